// npm start: the application with the user's own data folder.
import { buildWeb, installPackages, run } from './prepare.mjs';

installPackages();
buildWeb();
process.exit(run('node', ['--import', 'tsx', 'server/main.ts']));
