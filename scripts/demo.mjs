// npm run demo: the application with the demo library, in a data folder of its own.
import { buildWeb, installPackages, runHere } from './prepare.mjs';

installPackages();
buildWeb();
await runHere('demo/main.ts');
