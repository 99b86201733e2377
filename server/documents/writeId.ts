import type { Request } from 'express';
import { Problem } from '../security/problem';

/**
 * A writer's own name for a write, as `Idempotency-Key`: sent again after an answer was lost, the same write is taken once.
 *
 * @throws Problem 400 where it is no plain word of at most 60 characters
 */
export function writeIdOf(req: Request): string | undefined {
  const key = req.headers['idempotency-key'];
  if (key === undefined) return undefined;
  if (typeof key !== 'string' || !/^[\w-]{8,60}$/.test(key)) {
    throw new Problem(400, 'Bad request', 'Idempotency-Key must be 8 to 60 letters, digits or -');
  }
  return key;
}
