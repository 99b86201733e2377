import type { Request } from 'express';
import { Problem } from './problem';

/**
 * The revision in an If-Match header, such as `"7"`.
 *
 * @throws Problem 428 where there is none
 */
export function expectedRevision(req: Request): number {
  const match = /^"(\d{1,9})"$/.exec(req.headers['if-match'] ?? '');
  if (!match) {
    throw new Problem(428, 'Revision needed', 'name the revision you saw, as If-Match: "7"');
  }
  return Number(match[1]);
}
