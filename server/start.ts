import { once } from 'node:events';
import type { Express } from 'express';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { createApp } from './app';
import type { PictureAnswer, PictureJob } from './attachments/pictureJobs';
import { lockFolder } from './database/folderLock';
import { openDatabase, type Database } from './database/openDatabase';
import { computeInThread } from './derived/computeInThread';
import { inThread } from './derived/inThread';
import { BackupProblem } from './backup/backupFormat';
import { backUpDay } from './backup/dailyBackup';
import { swapBack, type Restored, type Staged } from './backup/restore';
import { tidyBackups } from './backup/tidyBackups';
import { tidyIncoming } from './exchange/receiveFile';
import type { TextAnswer, TextJob } from './exchange/textPieces';
import { createLibrary, type Library } from './library';
import { createLogger } from './logger';
import { LOOPBACK_ONLY, type Access } from './security/access';
import type { MadeReport, ReportJob } from './reports/makeReport';
import type { RunJob, RunJobAnswer } from './runs/runJobs';

export interface Running {
  address: string;
  db: Database;
  /** Resolves when nothing is left to compute of what is listed. */
  settled(): Promise<void>;
  stop(): Promise<void>;
}

/** Where a server keeps and shows what. */
export interface ServerOptions {
  dataFolder: string;
  webFolder: string | null;
  port: number;
  /** That loggers write into; one in the data folder by default. */
  inboxFolder?: string | undefined;
  /** For daily backups; one in the data folder by default. */
  backupFolder?: string | undefined;
  /** Who may reach it; this machine alone by default. */
  access?: Access | undefined;
}

/** Requests that are under way at a stop have so long to end. */
const GRACE_MS = 10_000;
const LOOK_EVERY_MS = 50;
/** The first look for a daily backup comes once people have what they started the program for. */
const FIRST_BACKUP_MS = 120_000;
const BACKUP_EVERY_MS = 3_600_000;

/**
 * Opens the library and listens on the loopback address.
 *
 * @param options data folder, folder of the built interface or null, port (0: any free one)
 * @throws UnusableLibrary where another process holds the folder, or the library in it cannot be opened
 */
export async function startServer(options: ServerOptions): Promise<Running> {
  const lock = await lockFolder(options.dataFolder);
  let log: Awaited<ReturnType<typeof createLogger>> | null = null;
  try {
    log = await createLogger(options.dataFolder);
    const { logger, close } = log;
    const running = await startLocked(options, logger);
    await lock.tell(running.address);
    return {
      ...running,
      async stop() {
        await running.stop();
        await close();
        await lock.release();
      },
    };
  } catch (cause) {
    await log?.close();
    await lock.release();
    throw cause;
  }
}

/** An open library with what answers for it. */
interface Opened {
  library: Library;
  app: Express;
  /** What an earlier version described, or a stop left behind, is caught up beside the requests. */
  catchingUp: Promise<unknown>;
}

async function startLocked(options: ServerOptions, logger: Logger): Promise<Running> {
  const access = options.access ?? LOOPBACK_ONLY;
  const backupFolder = options.backupFolder ?? join(options.dataFolder, 'backups');
  const openAll = async (): Promise<Opened> => {
    const library = await openLibrary(options, logger);
    const upkeep = { backupFolder, restore };
    const app = createApp(library, options.webFolder, logger, upkeep, access);
    const catchingUp = library.machines
      .catchUp()
      .then(() => library.list.load())
      .catch((cause: unknown) => logger.error(cause));
    return { library, app, catchingUp };
  };
  const close = async ({ library, catchingUp }: Opened) => {
    await catchingUp;
    await library.close();
  };

  const daily = keepDaily(options.dataFolder, backupFolder, logger);
  let opened: Opened;
  let restoring = false;
  const answering = new Set<ServerResponse>();
  /** Waits until nobody asks anything any more but the one who restores. */
  const quiet = async () => {
    for (let waited = 0; answering.size > 1 && waited < GRACE_MS; waited += LOOK_EVERY_MS) {
      await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS));
    }
  };
  const restore = async (staged: Staged): Promise<Restored> => {
    restoring = true;
    await daily.ended();
    await quiet();
    await close(opened);
    try {
      const restored = await staged.swap();
      try {
        opened = await openAll();
      } catch (cause) {
        await swapBack(options.dataFolder, restored.aside);
        throw new BackupProblem(
          `the library in it cannot be opened (${(cause as Error).message}), so that what was there was put back`,
        );
      }
      restoring = false;
      return restored;
    } catch (cause) {
      // whichever library stands there now
      opened = await openAll();
      restoring = false;
      throw cause;
    }
  };

  opened = await openAll();
  const answer = (req: IncomingMessage, res: ServerResponse) => {
    if (restoring) {
      res.writeHead(503, { 'Retry-After': '2', 'Content-Type': 'application/problem+json' });
      res.end(JSON.stringify({ status: 503, detail: 'a backup is being restored, a moment' }));
      return;
    }
    answering.add(res);
    res.once('close', () => answering.delete(res));
    opened.app(req, res);
  };
  const server: Server = access.tls ? createSecureServer(access.tls, answer) : createServer(answer);
  server.listen(options.port, access.host);
  try {
    await once(server, 'listening');
  } catch (cause) {
    daily.stop();
    await close(opened);
    throw cause;
  }
  const bound = server.address();
  const port = typeof bound === 'object' && bound ? bound.port : options.port;
  const shown = access.host.includes(':') ? `[${access.host}]` : access.host;
  const address = `${access.tls ? 'https' : 'http'}://${shown}:${port}`;
  return {
    address,
    db: opened.library.db,
    async settled() {
      await opened.catchingUp;
      await opened.library.watts.settled();
    },
    async stop() {
      daily.stop();
      const closed = new Promise((resolve) => server.close(resolve));
      // a connection that is kept open is done once its request is
      const looking = setInterval(() => server.closeIdleConnections(), LOOK_EVERY_MS);
      const late = setTimeout(() => server.closeAllConnections(), GRACE_MS);
      await closed;
      clearInterval(looking);
      clearTimeout(late);
      await daily.ended();
      await close(opened);
    },
  };
}

async function openLibrary(options: ServerOptions, logger: Logger): Promise<Library> {
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
    inThread<TextJob, TextAnswer>(
      new URL('./exchange/startTextWorker.mjs', import.meta.url),
      'for a while',
    ),
  );
  await library.attachments.tidy();
  await tidyIncoming(options.dataFolder);
  await tidyBackups(options.dataFolder);
  return library;
}

/** A backup of each day, made beside the requests once the start is over; one that fails is told of and tried again. */
function keepDaily(dataFolder: string, folder: string, logger: Logger) {
  let running: Promise<unknown> = Promise.resolve();
  const look = () => {
    running = running
      .then(() => backUpDay(dataFolder, folder))
      .catch((cause: unknown) => logger.error(cause));
  };
  const first = setTimeout(look, FIRST_BACKUP_MS);
  const later = setInterval(look, BACKUP_EVERY_MS);
  first.unref();
  later.unref();
  return {
    stop() {
      clearTimeout(first);
      clearInterval(later);
    },
    ended: () => running,
  };
}
