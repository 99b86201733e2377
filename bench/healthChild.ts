// Asks for the health of a server again and again, in a process of its own, and tells what it waited, ms, once it is told to end.
import { Agent, get } from 'node:http';

const [at, everyMs] = process.argv.slice(2) as [string, string];
const agent = new Agent({ keepAlive: true });
const waited = () =>
  new Promise<number>((resolve, reject) => {
    const asked = performance.now();
    get(`${at}/api/health`, { agent }, (answer) => {
      if (answer.statusCode !== 200) reject(new Error(`health answered ${answer.statusCode}`));
      answer.resume();
      answer.on('end', () => resolve(performance.now() - asked));
    }).on('error', reject);
  });
const waits: number[] = [];
let ends = false;
process.once('message', () => (ends = true));
// the first is this process’s own start
await waited();
process.send!('ready');
while (!ends) {
  waits.push(await waited());
  await new Promise((resolve) => setTimeout(resolve, Number(everyMs)));
}
process.send!(waits, () => process.disconnect());
