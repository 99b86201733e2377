import { z } from 'zod';

const text = (max: number) => z.string().max(max, `must be at most ${max} characters`);

/** What is known of the one notebook on the bench. The serial number is never part of an exported record. */
export const unitFacts = z.looseObject({
  serial: text(80).optional(),
  /** Bought, lent, sent in by a reader … */
  source: text(200).optional(),
  receivedOn: z.union([z.iso.date('must be a day such as 25.11.2026'), z.literal('')]).optional(),
  reason: text(500).optional(),
  earlierHands: text(2000).optional(),
});

export type UnitFacts = z.infer<typeof unitFacts>;

/** A name for a state of a unit, such as “as found” or “cleaned, new paste”. */
export const stateName = z
  .string('needs a name')
  .trim()
  .min(1, 'needs a name')
  .max(80, 'must be at most 80 characters');
