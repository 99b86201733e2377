import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import { isDiskFull } from '../database/unusable';

/** An error that is answered as a problem document (RFC 9457). */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    detail: string,
    readonly more: Record<string, unknown> = {},
  ) {
    super(detail);
  }
}

function send(problem: Problem, res: Parameters<RequestHandler>[1]): void {
  res
    .status(problem.status)
    .type('application/problem+json')
    .send(
      JSON.stringify({
        type: 'about:blank',
        title: problem.title,
        status: problem.status,
        detail: problem.message,
        ...problem.more,
      }),
    );
}

/** Answers a path under /api that nothing serves. */
export const unknownRoute: RequestHandler = (req, res) => {
  send(new Problem(404, 'Not found', `nothing is served at ${req.method} ${req.path}`), res);
};

/** Turns whatever was thrown into a problem document; only expected errors say why, and no stack trace leaves. */
export function problemHandler(logger: Logger): ErrorRequestHandler {
  return (error: unknown, _req, res, next) => {
    // it was left out, since nobody is there any more to be answered
    if (res.destroyed && (error as Error).name === 'AbortError') return;
    if (res.headersSent) {
      next(error);
      return;
    }
    if (error instanceof Problem) {
      send(error, res);
      return;
    }
    const { type, status } = error as { type?: string; status?: number };
    if (type === 'entity.too.large') {
      const { limit } = error as { limit?: number };
      const most = Math.round((limit ?? 0) / (1024 * 1024));
      send(new Problem(413, 'Too large', `the body is larger than ${most} MB`), res);
    } else if (type === 'entity.parse.failed') {
      send(new Problem(400, 'Not JSON', 'the body is not well-formed JSON'), res);
    } else if (status !== undefined && status >= 400 && status < 500) {
      send(new Problem(status, 'Bad request', 'the request could not be read'), res);
    } else if (isDiskFull(error)) {
      logger.error(error);
      const words =
        'the disk is full: nothing of this was kept. Reading still works; make room, then do it again';
      send(new Problem(507, 'Disk full', words), res);
    } else {
      logger.error(error);
      send(new Problem(500, 'Server error', 'something failed here; it has been logged'), res);
    }
  };
}
