import { once } from 'node:events';
import type { Server } from 'node:http';
import { createApp } from './app';
import type { PictureAnswer, PictureJob } from './attachments/pictureJobs';
import { openDatabase, type Database } from './database/openDatabase';
import { computeInThread } from './derived/computeInThread';
import { inThread } from './derived/inThread';
import { tidyIncoming } from './exchange/receiveFile';
import { createLibrary } from './library';
import { createLogger } from './logger';
import type { MadeReport, ReportJob } from './reports/makeReport';
import type { RunJob, RunJobAnswer } from './runs/runJobs';

export interface Running {
  address: string;
  db: Database;
  /** Resolves when nothing is left to compute of what is listed. */
  settled(): Promise<void>;
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
  /** That loggers write into; one in the data folder by default. */
  inboxFolder?: string | undefined;
}): Promise<Running> {
  const logger = createLogger();
  const db = await openDatabase(options.dataFolder);
  const runWorker = new URL('./runs/startRunWorker.mjs', import.meta.url);
  const library = createLibrary(
    db,
    computeInThread(),
    (cause) => logger.error(cause),
    inThread<RunJob, RunJobAnswer>(runWorker),
    inThread<RunJob, RunJobAnswer>(runWorker, 'later'),
    options.inboxFolder,
    inThread<ReportJob, MadeReport>(
      new URL('./reports/startReportWorker.mjs', import.meta.url),
      'later',
    ),
    inThread<PictureJob, PictureAnswer>(
      new URL('./attachments/startPictureWorker.mjs', import.meta.url),
      'later',
    ),
  );
  await library.attachments.tidy();
  await tidyIncoming(options.dataFolder);
  const app = createApp(library, options.webFolder, logger);
  const server: Server = app.listen(options.port, '127.0.0.1');
  try {
    await once(server, 'listening');
  } catch (cause) {
    await library.close();
    throw cause;
  }
  // what an earlier version described, or a stop left behind, is caught up beside the requests
  const catchingUp = library.machines
    .catchUp()
    .then(() => library.list.load())
    .catch((cause: unknown) => logger.error(cause));
  const bound = server.address();
  const port = typeof bound === 'object' && bound ? bound.port : options.port;
  return {
    address: `http://127.0.0.1:${port}`,
    db,
    async settled() {
      await catchingUp;
      await library.watts.settled();
    },
    async stop() {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await catchingUp;
      await library.close();
    },
  };
}
