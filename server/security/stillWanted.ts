import type { Response } from 'express';

/** Tells when whoever asked has gone before the answer was whole, so that what is not begun yet need not be done. */
export function stillWanted(res: Response): AbortSignal {
  const gone = new AbortController();
  res.once('close', () => {
    if (!res.writableFinished) gone.abort();
  });
  return gone.signal;
}
