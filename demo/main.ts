import { join } from 'node:path';
import { lockFolder } from '@zugluft/server/database/folderLock';
import { openDatabase } from '@zugluft/server/database/openDatabase';
import { UnusableLibrary } from '@zugluft/server/database/unusable';
import { computeWatts } from '@zugluft/server/derived/computeWatts';
import { createLibrary } from '@zugluft/server/library';
import { serve } from '@zugluft/server/serve';
import { seedDemo } from './seed';

const root = process.cwd();
const dataFolder = process.env['ZUGLUFT_DATA'] ?? join(root, 'demo-data');
// filled before anybody can ask: half a library would be an answer too
const lock = await lockFolder(dataFolder).catch((cause: unknown) => {
  if (!(cause instanceof UnusableLibrary)) throw cause;
  process.stderr.write(`${cause.message}\n`);
  process.exit(1);
});
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
await lock.release();
if (added) process.stdout.write(`${added} demo machines added\n`);
await serve({
  dataFolder,
  webFolder: join(root, 'web/dist'),
  inboxFolder: process.env['ZUGLUFT_INBOX'],
  backupFolder: process.env['ZUGLUFT_BACKUPS'],
  port: Number(process.env['ZUGLUFT_PORT'] ?? 4180),
});
