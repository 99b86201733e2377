import { run } from './backup';

const { stdout, stderr, code } = await run(process.argv.slice(2));
for (const line of stderr) process.stderr.write(`${line}\n`);
if (stdout) process.stdout.write(`${stdout}\n`);
process.exitCode = code;
