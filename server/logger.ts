import pino, { type Logger } from 'pino';

/**
 * Logs what should not happen. Sequelize makes a stack trace for every query, and looking each of them up in the source maps is a
 * tenth of the work of a write: they are looked up only for what is logged.
 */
export function createLogger(): Logger {
  process.setSourceMapsEnabled(false);
  return pino({
    level: 'warn',
    serializers: {
      err(error: Error) {
        process.setSourceMapsEnabled(true);
        try {
          return pino.stdSerializers.err(error);
        } finally {
          process.setSourceMapsEnabled(false);
        }
      },
    },
  });
}
