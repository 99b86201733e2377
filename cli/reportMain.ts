import { run } from './report';

const { stdout, code } = await run(process.argv.slice(2), (line) => {
  process.stderr.write(`${line}\n`);
});
process.stdout.write(`${stdout}\n`);
process.exitCode = code;
