import { join } from 'node:path';
import { serve } from './serve';

const root = process.cwd();
await serve({
  dataFolder: process.env['ZUGLUFT_DATA'] ?? join(root, 'data'),
  webFolder: join(root, 'web/dist'),
  inboxFolder: process.env['ZUGLUFT_INBOX'],
  backupFolder: process.env['ZUGLUFT_BACKUPS'],
  port: Number(process.env['ZUGLUFT_PORT'] ?? 4180),
});
