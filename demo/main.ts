import { join } from 'node:path';
import { startServer } from '@zugluft/server/start';
import { seedDemo } from './seed';

const root = process.cwd();
const { address, db, stop } = await startServer({
  dataFolder: process.env['ZUGLUFT_DATA'] ?? join(root, 'demo-data'),
  webFolder: join(root, 'web/dist'),
  port: Number(process.env['ZUGLUFT_PORT'] ?? 4180),
});
const added = await seedDemo(db);
if (added) process.stdout.write(`${added} demo machines added\n`);
process.stdout.write(`Zugluft runs at ${address}\n`);
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => void stop().then(() => process.exit(0)));
}
