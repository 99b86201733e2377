import { text } from 'node:stream/consumers';
import { run } from './passphrase';

const { stdout, stderr, code } = await run(process.argv.slice(2), () => text(process.stdin));
for (const line of stderr) process.stderr.write(`${line}\n`);
if (stdout) process.stdout.write(`${stdout}\n`);
process.exitCode = code;
