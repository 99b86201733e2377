import { join } from 'node:path';
import { startServer } from './start';

const root = process.cwd();
const { address, stop } = await startServer({
  dataFolder: process.env['ZUGLUFT_DATA'] ?? join(root, 'data'),
  webFolder: join(root, 'web/dist'),
  inboxFolder: process.env['ZUGLUFT_INBOX'],
  port: Number(process.env['ZUGLUFT_PORT'] ?? 4180),
});
// every statement makes a trace; to map each back to its source would take as long as the statement
process.setSourceMapsEnabled(false);
process.stdout.write(`Zugluft runs at ${address}\n`);
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => void stop().then(() => process.exit(0)));
}
