import { run } from './analyse';

const { stdout, stderr, code } = await run(process.argv.slice(2), (line) => {
  process.stderr.write(`${line}\n`);
});
for (const line of stderr) process.stderr.write(`${line}\n`);
process.stdout.write(`${stdout}\n`);
process.exitCode = code;
