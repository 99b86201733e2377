import { parseCount } from '@zugluft/core/count/parseCount';
import type { KindName } from '@zugluft/core/documents/kinds';
import type { UnitFacts } from '@zugluft/core/family/unitFacts';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { z } from 'zod';
import type { TravellingEdition } from '../reports/editionTravel';

/** A photo or paper as the list of a library names it. */
export const attachmentEntry = z.object({
  file: z.string().max(300),
  id: z.uuid(),
  path: z.string().max(200),
  name: z.string().min(1).max(200),
  caption: z.string().max(500),
  takenAt: z.string().max(30).nullable(),
  focalPx: z.number().positive().max(1e6).nullable().default(null),
  /** What is marked in it; what cannot be taken is named and left out. */
  marks: z.unknown().optional(),
});

/** Something in a file that may become a machine. */
export interface Candidate {
  /** Where it stood: a file in the zip, a line of a CSV. */
  label: string;
  /** The library's id, where the file came from one. */
  id?: string;
  record?: unknown;
  refused?: string;
  /** Where a count is refused: by its fields. */
  reasons?: { path: string; message: string }[];
  place?: { variantId: string; unitId: string; stateName: string; facts: UnitFacts };
  tags?: string[];
  /** Name of its state, where the file has a column for it. */
  stateName?: string;
  /** What else is kept of it, by kind: the log of its opening. */
  documents?: CandidateDocument[];
  attachments?: CandidateAttachment[];
  runs?: CandidateRun[];
  /** From the first on. */
  editions?: CandidateEdition[];
}

/** A report that was published of a machine. */
export interface CandidateEdition extends Omit<TravellingEdition, 'source'> {
  /** Where it stood, for messages. */
  label: string;
  said(): Promise<unknown>;
  files(): Promise<Buffer>;
}

/** A run that comes with a machine. */
export interface CandidateRun {
  /** Where it stood, for messages. */
  label: string;
  read(): Promise<unknown>;
  /** Bytes of one of its logs; null where it did not come along. */
  log(name: string): AsyncIterable<Uint8Array> | null;
}

/** A document that comes with a machine. */
export interface CandidateDocument {
  kind: KindName;
  value: unknown;
}

/** A photo or paper that comes with a machine. */
export interface CandidateAttachment extends z.infer<typeof attachmentEntry> {
  read(): Promise<Buffer>;
}

/** One that is read when its turn comes, so that there is never more than one of them in memory. */
export type LazyCandidate = () => Promise<Candidate>;

/** One whose reading fails is refused by its name, and the others go on. */
export const attempt =
  (label: string, make: () => Promise<Candidate> | Candidate): LazyCandidate =>
  async () => {
    try {
      return await make();
    } catch (cause) {
      return { label, refused: (cause as Error).message };
    }
  };

/** A machine made of what was counted. */
export function countCandidate(label: string, input: unknown): Candidate {
  const { record, issues } = parseCount(input);
  if (record) return { label, record: JSON.parse(JSON.stringify(record)) as CaseRecord };
  return {
    label,
    record: { identity: input },
    refused: issues[0]!.message,
    reasons: issues.map(({ path, message }) => ({ path, message })),
  };
}
