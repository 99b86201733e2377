import { correctForBackground } from '../../sound/background';
import { type CaseData } from '../caseData';
import { figureValue } from '../figure';
import { type CaseRecord } from '../recordSchema';
import { type Resolver } from '../resolver';

const v = figureValue;

export function resolveNoise(record: CaseRecord, r: Resolver): CaseData['noise'] {
  const background = v(record.noise?.backgroundDbA);
  return {
    referenceDbA: r.factor('noise.referenceDbA'),
    sweepOffsetDb: record.noise?.sweep?.length ? r.factor('noise.sweepOffsetDb') : 0,
    distanceM: r.optional('noise.distanceM', record.noise?.distanceM, 0.5),
    sweep: (record.noise?.sweep ?? []).map((s) => ({
      rpm: Object.fromEntries(Object.entries(s.rpm).map(([id, x]) => [id, v(x)!])),
      dbA:
        background === undefined ? v(s.dbA)! : correctForBackground(v(s.dbA)!, background).levelDbA,
    })),
  };
}
