import type { Ranking } from '@zugluft/core/levers/rankLevers';
import type { LeverPlan } from '@zugluft/core/levers/plansDocument';

const ORDER: Record<Ranking, string> = {
  'per-minute': 'watts per minute of work',
  gain: 'watts gained',
  effort: 'least work',
};
export const orderWords = (r: Ranking): string => ORDER[r];

/** A difference with its sign, and the decimals it supports: “+6.4”, “−0.3”. */
export function signed(x: number): string {
  const text = Math.abs(x) < 9.95 ? Math.abs(x).toFixed(1) : Math.abs(x).toFixed(0);
  if (Number(text) === 0) return text;
  return `${x < 0 ? '−' : '+'}${text}`;
}

/** “3.8 to 9.9”. */
export const bandWords = ({ p05, p95 }: { p05: number; p95: number }): string =>
  `${signed(p05)} to ${signed(p95)}`;

/** What a gain is, in one sentence. */
export function gainWords({
  wattsGained: w,
  dbSaved: d,
  kelvinSaved: k,
}: Pick<LeverPlan['promised'], 'wattsGained' | 'dbSaved' | 'kelvinSaved'>): string {
  const quieter =
    d.p50 >= 0 ? `${d.p50.toFixed(1)} dB quieter` : `${(-d.p50).toFixed(1)} dB louder`;
  const cooler = k.p50 >= 0 ? `${k.p50.toFixed(1)} K cooler` : `${(-k.p50).toFixed(1)} K hotter`;
  return `${signed(w.p50)} W (${bandWords(w)}); at equal watts ${quieter}, ${cooler}`;
}

/** What stands below the chance: nothing where a lever is felt. */
export function feltWords({
  wattsGained,
  chanceNoticeable,
  tooSmallToFeel,
}: {
  wattsGained: { p95: number };
  chanceNoticeable: number;
  tooSmallToFeel: boolean;
}): string {
  if (wattsGained.p95 < 0) return 'a loss';
  if (!tooSmallToFeel) return '';
  // the watts may be none while kelvins are felt
  return chanceNoticeable < 0.5 ? 'too small to feel' : 'may be too small to feel';
}
