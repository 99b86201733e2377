// Reads one log in a process of its own and tells how long it took and what memory it needed at most, as JSON.
import { createReadStream, statSync } from 'node:fs';
import Papa from 'papaparse';
import { readLogBytes } from '@zugluft/core/logs/readLogBytes';
import { analyseLog } from '@zugluft/core/runs/analyseLog';

const [way, file] = process.argv.slice(2) as ['parser' | 'analyse', string];
const rest = process.memoryUsage().rss;
let most = rest;
const watch = setInterval(() => {
  most = Math.max(most, process.memoryUsage().rss);
}, 5);
const from = performance.now();
if (way === 'parser') {
  await new Promise<void>((done, failed) => {
    Papa.parse(createReadStream(file, { highWaterMark: 1 << 20 }), {
      chunk: () => undefined,
      complete: () => done(),
      error: failed,
    });
  });
} else {
  const read = await readLogBytes(createReadStream(file, { highWaterMark: 1 << 20 }), {
    bytes: statSync(file).size,
  });
  if ('fault' in read) throw new Error(read.fault.message);
  most = Math.max(most, process.memoryUsage().rss);
  analyseLog(read.log);
}
const ms = performance.now() - from;
clearInterval(watch);
most = Math.max(most, process.memoryUsage().rss);
process.stdout.write(JSON.stringify({ ms, aboveMb: (most - rest) / 1e6 }));
