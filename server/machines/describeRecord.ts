import { sustainedTogether } from '@zugluft/core/estimate';
import { figureValue } from '@zugluft/core/record/figure';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { LabDefaults } from '@zugluft/core/record/resolver';
import { Problem } from '../security/problem';

/** What the library shows of the answer. */
export function answerOf(record: CaseRecord, complete: boolean, lab: LabDefaults) {
  const [at36, full] = complete ? sustainedTogether(record, [36, 'full'], lab) : [];
  return { togetherAt36W: at36 ?? null, togetherFullW: full ?? null };
}

/** The columns in which a machine is listed, from its record. */
export function describeRecord(record: CaseRecord, complete: boolean, lab: LabDefaults) {
  const identity = record.identity ?? {};
  const words = [identity.maker, identity.model, identity.modelCode, identity.variant];
  return {
    record: JSON.stringify(record),
    complete,
    maker: identity.maker ?? '',
    model: identity.model ?? '',
    variant: identity.variant ?? '',
    searchText: words.filter(Boolean).join(' ').toLowerCase(),
    fans: record.fans?.length ?? 0,
    pipes: (record.heatPipes ?? []).reduce((sum, p) => sum + (figureValue(p.count) ?? 1), 0),
    stacks: record.finStacks?.length ?? 0,
    thicknessMm: figureValue(record.shell?.thicknessMm) ?? null,
    massKg: figureValue(record.shell?.massKg) ?? null,
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
