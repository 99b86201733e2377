import { z } from 'zod';

const band = z.object({ p05: z.number(), p50: z.number(), p95: z.number() });

/**
 * Watts of both dies together at a cap: the median of the draws, which is what people are shown, and their 5–95 % band; and what
 * firmware and adapter leave of them in the first setting, absent where an earlier program computed them.
 */
export const wattsBand = band.extend({ configured: band.optional() });
export type WattsBand = z.infer<typeof wattsBand>;

/** Draws by which a machine is shown, in the library and in its file alike, and their seed. */
export const SHOWN_DRAWS = 400;
export const SHOWN_SEED = 1;

/**
 * Watts by cap as they are stored: text of an earlier program may hold plain numbers, which stand until they are computed
 * anew.
 *
 * @param text JSON of an object by cap
 */
export function readWattsByCap(text: string): Record<string, WattsBand | null> {
  const stored = JSON.parse(text) as Record<string, WattsBand | number | null>;
  return Object.fromEntries(
    Object.entries(stored).map(([cap, at]) => [
      cap,
      typeof at === 'number' ? { p05: at, p50: at, p95: at } : at,
    ]),
  );
}
