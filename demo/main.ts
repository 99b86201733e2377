import { join } from 'node:path';
import { openDatabase } from '@zugluft/server/database/openDatabase';
import { computeWatts } from '@zugluft/server/derived/computeWatts';
import { createLibrary } from '@zugluft/server/library';
import { startServer } from '@zugluft/server/start';
import { seedDemo } from './seed';

const root = process.cwd();
const dataFolder = process.env['ZUGLUFT_DATA'] ?? join(root, 'demo-data');
// filled before anybody can ask: half a library would be an answer too
const library = createLibrary(
  await openDatabase(dataFolder),
  async (job) => computeWatts(job),
  (cause) => {
    throw cause;
  },
);
const added = await seedDemo(library);
await library.list.load();
await library.watts.settled();
await library.close();
if (added) process.stdout.write(`${added} demo machines added\n`);
const { address, stop } = await startServer({
  dataFolder,
  webFolder: join(root, 'web/dist'),
  inboxFolder: process.env['ZUGLUFT_INBOX'],
  port: Number(process.env['ZUGLUFT_PORT'] ?? 4180),
});
process.stdout.write(`Zugluft runs at ${address}\n`);
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => void stop().then(() => process.exit(0)));
}
