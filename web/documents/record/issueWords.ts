import { ownerPath } from '../photos/ownerPath';
import type { Draft } from './draft';
import { figureWords } from './figureWords';

/**
 * What is wrong with a record, in words that need no path: “depth, fins-left: needs a number”, “the machine needs at least one
 * die”. A message that names its part stands alone.
 *
 * @param draft the record as it stands
 * @param path of the field, parts by their place
 */
export function issueWords(
  draft: Draft,
  { path, message }: { path: string; message: string },
): string {
  const parts = path.split('.').map((key) => (/^\d+$/.test(key) ? Number(key) : key));
  const needs = /^(needs|must) /.test(message);
  if (parts.length === 1) return needs ? `the machine ${message}` : message;
  return needs ? `${figureWords(ownerPath(draft, parts))}: ${message}` : message;
}
