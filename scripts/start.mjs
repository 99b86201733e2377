// npm start: the application with the user's own data. It runs in this process, so that whoever ends it ends the server.
import { buildWeb, installPackages, runHere } from './prepare.mjs';

installPackages();
buildWeb();
await runHere('server/main.ts');
