import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import pino, { type Logger } from 'pino';
import openRolling from 'pino-roll';

/** The log of the program lies here in its data folder: so many files of so many MB, the oldest let go of. */
export const LOG_FOLDER = 'logs';
const FILE_MB = 5;
const FILES = 5;
/** So many bytes are written together: a write for each line would take the threads that read the library. */
const TOGETHER_BYTES = 8192;
/** What is fewer is written after so long. */
const FLUSH_MS = 500;

/** What is told of an error: neither the statement nor the values that it was about, which may be of a record. */
interface ToldError {
  type: string;
  message: string;
  code: string | undefined;
  stack: string | undefined;
}

/**
 * Sequelize makes a stack trace for every query, and looking each of them up in the source maps is a tenth of the work of a write:
 * they are looked up only for what is logged.
 */
export function toldError(error: unknown): ToldError | { message: string } {
  if (!(error instanceof Error)) return { message: 'something that is no error was thrown' };
  process.setSourceMapsEnabled(true);
  try {
    const { name, message, stack } = error;
    return { type: name, message, code: (error as { code?: string }).code, stack };
  } finally {
    process.setSourceMapsEnabled(false);
  }
}

/**
 * Logs requests and what should not happen, a JSON document a line: into a file that rolls, and what should not happen on the console.
 *
 * @param dataFolder data directory
 */
export async function createLogger(dataFolder: string): Promise<{
  logger: Logger;
  close(): Promise<void>;
}> {
  process.setSourceMapsEnabled(false);
  const folder = join(dataFolder, LOG_FOLDER);
  mkdirSync(folder, { recursive: true });
  const file = await openRolling({
    file: join(folder, 'zugluft'),
    extension: '.log',
    size: `${FILE_MB}m`,
    limit: { count: FILES - 1 },
    minLength: TOGETHER_BYTES,
    periodicFlush: FLUSH_MS,
  });
  // a full disk or a folder that went away is no reason to end the program
  file.on('error', () => undefined);
  const logger = pino(
    { base: null, timestamp: pino.stdTimeFunctions.isoTime, serializers: { err: toldError } },
    pino.multistream([
      { level: 'info', stream: file },
      { level: 'warn', stream: process.stderr },
    ]),
  );
  return {
    logger,
    close: () =>
      new Promise((resolve) => {
        file.once('close', () => resolve());
        file.once('error', () => resolve());
        file.end();
      }),
  };
}
