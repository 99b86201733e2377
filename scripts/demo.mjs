// npm run demo: the application with the demo library, in a data folder of its own.
import { buildWeb, installPackages, run } from './prepare.mjs';

installPackages();
buildWeb();
process.exit(run('node', ['--import', 'tsx', 'demo/main.ts']));
