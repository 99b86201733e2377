import { join } from 'node:path';
import { openDatabase } from '@zugluft/server/database/openDatabase';
import { startServer } from '@zugluft/server/start';
import { seedDemo } from './seed';

const root = process.cwd();
const dataFolder = process.env['ZUGLUFT_DATA'] ?? join(root, 'demo-data');
// filled before anybody can ask: half a library would be an answer too
const db = await openDatabase(dataFolder);
const added = await seedDemo(db);
await db.close();
if (added) process.stdout.write(`${added} demo machines added\n`);
const { address, stop } = await startServer({
  dataFolder,
  webFolder: join(root, 'web/dist'),
  port: Number(process.env['ZUGLUFT_PORT'] ?? 4180),
});
process.stdout.write(`Zugluft runs at ${address}\n`);
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => void stop().then(() => process.exit(0)));
}
