import { randomUUID } from 'node:crypto';
import type { RequestHandler } from 'express';
import type { Logger } from 'pino';

const MAX_PATH = 200;

/** Logs each request once it is answered: never what was asked for after a question mark, a header or a body. */
export const requestLog =
  (logger: Logger): RequestHandler =>
  (req, res, next) => {
    const begun = performance.now();
    const id = randomUUID();
    res.set('X-Request-Id', id);
    const [path] = req.originalUrl.split('?');
    const { method } = req;
    res.once('close', () => {
      logger.info({
        id,
        method,
        path: path!.slice(0, MAX_PATH),
        // one whose answer was not waited for has none
        status: res.writableFinished ? res.statusCode : null,
        ms: Math.round(performance.now() - begun),
      });
    });
    next();
  };
