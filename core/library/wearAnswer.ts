import { z } from 'zod';
import type { DefaultKey } from '../record/defaults';
import { defaultKey, learnedFactor } from './learnedAnswer';

/** What renewals of the library tell of how fast dust gathers and interface material ages. */
export const wearAnswer = z.object({
  /** Plans with a run before and one after, the newest first. */
  renewals: z.array(
    z.object({
      machineId: z.string(),
      machine: z.string(),
      planId: z.string(),
      plan: z.string(),
      hoursSince: z.number().nullable(),
      rates: z.array(
        z.object({ key: defaultKey, p05: z.number(), p50: z.number(), p95: z.number() }),
      ),
      /** Why it tells nothing; null where it does. */
      why: z.string().nullable(),
    }),
  ),
  rates: z.array(learnedFactor),
});

/** Of dust; all others are of kinds of interface material. */
export const LINT_RATE = 'upkeep.lintPerThousandHours' satisfies DefaultKey;

/** Fewer renewals are one machine's own dust, not a laboratory's (common practice, no source). */
export const LEAST_RENEWALS = 2;

export type WearAnswer = z.infer<typeof wearAnswer>;
