import { once } from 'node:events';
import type { Server } from 'node:http';
import pino from 'pino';
import { createApp } from './app';
import { createAttachmentStore } from './attachments/attachmentStore';
import { createDefaultStore } from './defaults/defaultStore';
import { createMachineStore } from './machines/machineStore';
import { tidyIncoming } from './exchange/receiveFile';
import { openDatabase, type Database } from './database/openDatabase';

export interface Running {
  address: string;
  db: Database;
  stop(): Promise<void>;
}

/**
 * Opens the library and listens on the loopback address.
 *
 * @param options data folder, folder of the built interface or null, port (0: any free one)
 */
export async function startServer(options: {
  dataFolder: string;
  webFolder: string | null;
  port: number;
}): Promise<Running> {
  const logger = pino({ level: 'warn' });
  const db = await openDatabase(options.dataFolder);
  await createAttachmentStore(db).tidy();
  await tidyIncoming(options.dataFolder);
  const app = createApp(db, options.webFolder, logger);
  const server: Server = app.listen(options.port, '127.0.0.1');
  try {
    await once(server, 'listening');
  } catch (cause) {
    await db.close();
    throw cause;
  }
  const catchingUp = createMachineStore(db, createDefaultStore(db).current)
    .catchUp()
    .catch((cause: unknown) => logger.error(cause));
  const bound = server.address();
  const port = typeof bound === 'object' && bound ? bound.port : options.port;
  return {
    address: `http://127.0.0.1:${port}`,
    db,
    async stop() {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await catchingUp;
      await db.close();
    },
  };
}
