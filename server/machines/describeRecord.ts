import { finAreaCm2 } from '@zugluft/core/counting/countingAids';
import { openCase } from '@zugluft/core/case/openCase';
import { sustainedTogether } from '@zugluft/core/case/sustainedTogether';
import { pipeSection } from '@zugluft/core/pipes/pipeSection';
import { figureValue, type Figure } from '@zugluft/core/record/figure';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { LabDefaults } from '@zugluft/core/record/resolver';
import { Problem } from '../security/problem';

/** Goes up when the columns below change their meaning: older rows are then described anew. */
export const DESCRIPTION = 1;

const CAPS = [28, 32, 36, 40, 45, 'full'] as const;

/** What the library shows of the answer. */
export function answerOf(record: CaseRecord, complete: boolean, lab: LabDefaults) {
  const watts = complete
    ? sustainedTogether(openCase({ record, lab: { defaults: lab } }), CAPS)
    : [];
  const at = (cap: (typeof CAPS)[number]) => watts[CAPS.indexOf(cap)] ?? null;
  return {
    togetherAt28W: at(28),
    togetherAt32W: at(32),
    togetherAt36W: at(36),
    togetherAt40W: at(40),
    togetherAt45W: at(45),
    togetherFullW: at('full'),
  };
}

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

function sum(values: (number | null)[]): number | null {
  const known = values.filter((x) => x !== null);
  return known.length ? known.reduce((a, b) => a + b, 0) : null;
}

/** The columns in which a machine is listed, from its record. */
export function describeRecord(record: CaseRecord, complete: boolean, lab: LabDefaults) {
  const identity = record.identity ?? {};
  const v = (f: Figure | undefined) => figureValue(f) ?? null;
  return {
    complete,
    describedBy: DESCRIPTION,
    maker: identity.maker ?? '',
    model: identity.model ?? '',
    variant: identity.variant ?? '',
    searchText: wordsOf(record).join(' ').slice(0, MAX_WORDS).toLowerCase(),
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
        const open = pipeSection(d / 1000, t / 1000, undefined, 1, 1).vaporAreaM2 * 1e6;
        return (figureValue(p.count) ?? 1) * open;
      }),
    ),
    thicknessMm: v(record.shell?.thicknessMm),
    massKg: v(record.shell?.massKg),
    ...answerOf(record, complete, lab),
  };
}

/**
 * Takes a record that may be kept, complete or not.
 *
 * @throws Problem 422 with the path of each figure that cannot be
 */
export function acceptRecord(input: unknown): { record: CaseRecord; complete: boolean } {
  const { record, issues, keepable, complete } = parseRecord(input);
  if (!record || !keepable) {
    throw new Problem(422, 'Record refused', 'the record holds figures that cannot be', {
      errors: issues
        .filter((i) => i.kind === 'impossible')
        .slice(0, 100)
        .map(({ path, message }) => ({ path: path ? `record.${path}` : 'record', message })),
    });
  }
  return { record, complete };
}
