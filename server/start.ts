import { once } from 'node:events';
import type { Server } from 'node:http';
import type { Logger } from 'pino';
import { createApp } from './app';
import type { PictureAnswer, PictureJob } from './attachments/pictureJobs';
import { lockFolder, type FolderLock } from './database/folderLock';
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

/** Requests that are under way at a stop have so long to end. */
const GRACE_MS = 10_000;
const LOOK_EVERY_MS = 50;

/**
 * Opens the library and listens on the loopback address.
 *
 * @param options data folder, folder of the built interface or null, port (0: any free one)
 * @throws UnusableLibrary where another process holds the folder, or the library in it cannot be opened
 */
export async function startServer(options: {
  dataFolder: string;
  webFolder: string | null;
  port: number;
  /** That loggers write into; one in the data folder by default. */
  inboxFolder?: string | undefined;
}): Promise<Running> {
  const logger = createLogger();
  const lock = await lockFolder(options.dataFolder);
  try {
    return await startLocked(options, logger, lock);
  } catch (cause) {
    await lock.release();
    throw cause;
  }
}

async function startLocked(
  options: Parameters<typeof startServer>[0],
  logger: Logger,
  lock: FolderLock,
): Promise<Running> {
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
  const address = `http://127.0.0.1:${port}`;
  await lock.tell(address);
  return {
    address,
    db,
    async settled() {
      await catchingUp;
      await library.watts.settled();
    },
    async stop() {
      const closed = new Promise((resolve) => server.close(resolve));
      // a connection that is kept open is done once its request is
      const looking = setInterval(() => server.closeIdleConnections(), LOOK_EVERY_MS);
      const late = setTimeout(() => server.closeAllConnections(), GRACE_MS);
      await closed;
      clearInterval(looking);
      clearTimeout(late);
      await catchingUp;
      await library.close();
      await lock.release();
    },
  };
}
