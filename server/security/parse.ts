import { issuePlaces } from '@zugluft/core/documents/issuePlaces';
import type { z } from 'zod';
import { Problem } from './problem';

const MAX_ISSUES = 100;

/**
 * Reads part of a request by its schema.
 *
 * @throws Problem 400 with the path and message of each thing wrong
 */
export function parse<T>(schema: z.ZodType<T>, input: unknown): T {
  const result = schema.safeParse(input);
  if (result.success) return result.data;
  throw new Problem(400, 'Bad request', 'some of the request is not as it should be', {
    errors: issuePlaces(result.error).slice(0, MAX_ISSUES),
  });
}
