import { air } from '../../fluids/air';
import { correctForBackground } from '../../sound/background';
import { type CaseData } from '../caseData';
import { figureValue } from '../figure';
import { type CaseRecord } from '../recordSchema';
import { type Resolver } from '../resolver';

const v = figureValue;

/** Level of the machine's fans, its air, and a measured sweep without its background. */
export function resolveNoise(
  record: CaseRecord,
  room: CaseData['room'],
  r: Resolver,
): CaseData['noise'] {
  const sweep = record.noise?.sweep ?? [];
  const background =
    sweep.length && v(record.noise?.backgroundDbA) !== undefined
      ? r.known('noise.backgroundDbA', record.noise!.backgroundDbA)
      : undefined;
  return {
    referenceDbA: r.factor('noise.referenceDbA'),
    sweepOffsetDb: sweep.length ? r.factor('noise.sweepOffsetDb') : 0,
    distanceM: r.optional('noise.distanceM', record.noise?.distanceM, 0.5),
    densityKgM3: air(room.temperatureC, room.pressurePa).densityKgM3,
    sweep: sweep.map((s, k) => ({
      rpm: Object.fromEntries(
        Object.entries(s.rpm).map(([id, x]) => [id, r.known(`noise.sweep.${k}.rpm.${id}`, x)]),
      ),
      dbA: withoutBackground(r.known(`noise.sweep.${k}.dbA`, s.dbA), background),
    })),
  };
}

function withoutBackground(readingDbA: number, backgroundDbA: number | undefined): number {
  return backgroundDbA === undefined
    ? readingDbA
    : correctForBackground(readingDbA, backgroundDbA).levelDbA;
}
