import { run } from './estimate';
import { drawInThreads } from './drawInThreads';

const { stdout, stderr, code } = await run(process.argv.slice(2), (plan, job) => {
  let told = 0;
  return drawInThreads(plan, job, (made, of) => {
    const tenth = Math.floor((10 * made) / of);
    if (tenth === told) return;
    told = tenth;
    process.stderr.write(`${made} of ${of} draws\n`);
  });
});
for (const line of stderr) process.stderr.write(`${line}\n`);
process.stdout.write(`${stdout}\n`);
process.exitCode = code;
