import { finAreaCm2 } from '@zugluft/core/counting/countingAids';
import { pipeSection } from '@zugluft/core/pipes/pipeSection';
import { figureValue, type Figure } from '@zugluft/core/record/figure';
import { nameKey } from './nameKey';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';

/** Goes up when the columns below change their meaning: older rows are then described anew. */
export const DESCRIPTION = 3;

/** Words of parts, settings and notes that a search should find, each once. */
function wordsOf(record: CaseRecord): string[] {
  const words = new Set<string>();
  const walk = (x: unknown) => {
    if (typeof x === 'string') words.add(x);
    else if (Array.isArray(x)) x.forEach(walk);
    else if (typeof x === 'object' && x !== null) Object.values(x).forEach(walk);
  };
  walk({ ...record, format: undefined });
  return [...words];
}

const MAX_WORDS = 8000;

/** What a search finds a machine by. */
export function searchTextOf(record: CaseRecord): string {
  return wordsOf(record).join(' ').slice(0, MAX_WORDS).toLowerCase();
}

function sum(values: (number | null)[]): number | null {
  const known = values.filter((x) => x !== null);
  return known.length ? known.reduce((a, b) => a + b, 0) : null;
}

/** The columns in which a machine is listed, from its record; watts are computed apart. */
export function describeRecord(record: CaseRecord, complete: boolean) {
  const identity = record.identity ?? {};
  const v = (f: Figure | undefined) => figureValue(f) ?? null;
  return {
    complete,
    describedBy: DESCRIPTION,
    maker: identity.maker ?? '',
    model: identity.model ?? '',
    variant: identity.variant ?? '',
    makerKey: nameKey(identity.maker ?? ''),
    modelKey: nameKey(identity.model ?? ''),
    variantKey: nameKey(identity.variant ?? ''),
    searchText: searchTextOf(record),
    fans: record.fans?.length ?? 0,
    pipes: (record.heatPipes ?? []).reduce((n, p) => n + (figureValue(p.count) ?? 1), 0),
    stacks: record.finStacks?.length ?? 0,
    chamber: (record.plates ?? []).some((p) => p.kind === 'vapor-chamber'),
    finAreaCm2: sum(
      (record.finStacks ?? []).map((s) => {
        const [h, d, n] = [v(s.heightMm), v(s.depthMm), v(s.finCount)];
        return h === null || d === null || n === null ? null : finAreaCm2(h, d, n);
      }),
    ),
    pipeSectionMm2: sum(
      (record.heatPipes ?? []).map((p) => {
        const [d, t] = [v(p.diameterMm), v(p.flattenedMm)];
        if (d === null || t === null || t > d) return null;
        const open =
          pipeSection(d / 1000, t / 1000, undefined, p.wick ?? 'sintered', 1, 1).vaporAreaM2 * 1e6;
        return (figureValue(p.count) ?? 1) * open;
      }),
    ),
    thicknessMm: v(record.shell?.thicknessMm),
    massKg: v(record.shell?.massKg),
  };
}
