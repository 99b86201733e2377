import { run } from './estimate';

const { stdout, stderr, code } = run(process.argv.slice(2));
for (const line of stderr) process.stderr.write(`${line}\n`);
process.stdout.write(`${stdout}\n`);
process.exitCode = code;
