import type { Request } from 'express';
import { diffRecords, type Difference } from '@zugluft/core/family/diffRecords';
import { Problem } from '../security/problem';

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

/** A version of a document, as the refusal of an older one tells it. */
export interface Version {
  revision: number;
  value: unknown;
}

const MAX_DIFFERENCES = 100;

/**
 * The one answer to a write that was made from an older version: what stands there now, what the writer had seen, and in which
 * figures the two differ from what was sent.
 *
 * @param title what the document is
 * @param seen the revision the writer named
 * @param theirs what stands there
 * @param base what the writer had seen, null where there is no such revision
 * @param sent what was to be written, undefined where only a mark was to be changed
 * @param current what stands there in the shape of the address that was asked
 */
export function staleProblem(
  title: string,
  seen: number,
  theirs: Version,
  base: Version | null,
  sent: unknown,
  current: unknown,
): Problem {
  const differs: Difference[] = sent === undefined ? [] : diffRecords(theirs.value, sent);
  return new Problem(
    412,
    'Changed meanwhile',
    `this ${title} is at revision ${theirs.revision}, not ${seen}`,
    { current, theirs, seen: base, differs: differs.slice(0, MAX_DIFFERENCES) },
  );
}
