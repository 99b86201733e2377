import { z } from 'zod';
import { DEFAULTS, type Default, type DefaultKey } from './defaults';
import type { LabDefaults } from './resolver';

const finite = z.number({ error: 'needs a number' }).finite('must be a finite number');

/** A lab's own value and range for one default. */
export const labDefaultSchema = z.strictObject({
  value: finite,
  low: finite,
  high: finite,
  note: z.string().max(500, 'must be at most 500 characters').default(''),
  /** Learned from the laboratory's own machines: a fit to a machine's runs begins without it. */
  learned: z.literal(true).optional(),
  /** Of those learned, which come from runs before and after renewals: machines fitted anew do not replace them. */
  from: z.literal('renewals').optional(),
});
export type LabDefault = z.infer<typeof labDefaultSchema>;

/** Farther than this from the built-in range a value is taken for a slip of the unit. */
const MAX_FACTOR_BEYOND = 1000;

export function isDefaultKey(key: string): key is DefaultKey {
  return Object.hasOwn(DEFAULTS, key);
}

/**
 * Says what is wrong with a lab's value and range for a default: order, sign, shares beyond 0 to 1, or far off any sense.
 *
 * @returns issues by field, none where it may be kept
 */
export function checkLabDefault(
  key: DefaultKey,
  x: { value: number; low: number; high: number },
): { path: 'value' | 'low' | 'high'; message: string }[] {
  const d: Default = DEFAULTS[key];
  const issues: { path: 'value' | 'low' | 'high'; message: string }[] = [];
  if (x.low > x.value)
    issues.push({ path: 'low', message: `must be at most the value, ${x.value}` });
  if (x.high < x.value) {
    issues.push({ path: 'high', message: `must be at least the value, ${x.value}` });
  }
  for (const path of ['value', 'low', 'high'] as const) {
    const y = x[path];
    if (d.share && !(y > 0 && y < 1)) issues.push({ path, message: 'must lie between 0 and 1' });
    else if (!d.share && d.low > 0 && !(y > 0))
      issues.push({ path, message: 'must be more than 0' });
    else if (Math.abs(y) > MAX_FACTOR_BEYOND * Math.max(Math.abs(d.high), Math.abs(d.low))) {
      issues.push({ path, message: `is far beyond ${d.low} to ${d.high} ${d.unit}`.trim() });
    }
  }
  return issues;
}

/** What the core needs of a lab's defaults. */
export function labDefaultsOf(entries: Iterable<[string, LabDefault]>): LabDefaults {
  const out: LabDefaults = {};
  for (const [key, x] of entries) {
    if (!isDefaultKey(key)) continue;
    const { value, low, high, learned } = x;
    out[key] = { value, low, high, ...(learned ? { learned } : {}) };
  }
  return out;
}

/**
 * A lab's defaults but for those learned from its machines' runs: what a fit to a machine's own runs begins from, since they hold what
 * those runs said already.
 */
export const withoutLearned = (defaults: LabDefaults = {}): LabDefaults =>
  Object.fromEntries(Object.entries(defaults).filter(([, x]) => !x.learned));
