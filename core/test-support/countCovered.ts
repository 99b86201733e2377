import { openCase } from '../case/openCase';
import { sustainedTogether } from '../case/sustainedTogether';
import { figureValue } from '../record/figure';
import type { CaseRecord } from '../record/recordSchema';
import { normalQuantile } from '../uncertainty/normal';
import { randomStream } from '../uncertainty/random';
import { fitMultipliers } from '../calibration/fitMultipliers';
import { sustainedAfterFit } from '../calibration/holdout';
import { multipliersOf, valuesAt } from '../calibration/multipliers';
import { predictorOf } from '../calibration/predictReadings';
import { readingsOf, type SteadyRun } from '../calibration/steadyRun';

/** What a bad run reads is off by so many deviations. */
const BAD_SPREAD = 10;
/** Fewer than usual: hundreds of fits are to be made. */
const DRAWS = 160;

/**
 * Machines drawn from the priors, measured with the stated errors and fitted: how many lie inside each 90 % band, by multiplier
 * and for the watts at a cap that was not run.
 *
 * @param record with one die
 * @param bench how many runs each machine is measured in, 1 to 3, and how many of them are bad: what they read is off by
 *   ten of its deviations
 */
export function countCovered(
  record: CaseRecord,
  machines: number,
  seed: number,
  { runs: count, badShare }: { runs: number; badShare: number },
): Record<string, number> {
  const only = [
    'dies.cpu.interface.conductivity',
    'finStacks.uaFactor',
    'dies.hotSpotFactor',
    'fans.psi',
    'noise.reference',
    'dies.sensorGain',
  ];
  const parameters = multipliersOf(openCase({ record }), only);
  const fullRpm = (share: number) =>
    Object.fromEntries(record.fans!.map((f) => [f.id, share * figureValue(f.maxRpm)!]));
  const plan: SteadyRun[] = [
    [1, 30],
    [1, 15],
    [0.6, 18],
  ]
    .slice(0, count)
    .map(([share, cpuW], i) => ({
      id: `run-${i}`,
      ambientC: 23,
      rpm: fullRpm(share!),
      cpuW: cpuW!,
      gpuW: 0,
      junctionC: { cpu: 0 },
      exhaustC: { [record.finStacks![0]!.id]: 0 },
      levelDbA: 0,
    }));
  const readings = readingsOf(plan);
  const predict = predictorOf(openCase({ record }), plan, readings);
  const next = randomStream(seed);
  const inside = new Map(parameters.map((p) => [p.name, 0]));
  let watts = 0;
  for (let k = 0; k < machines; k++) {
    const z = Float64Array.from(parameters, () => normalQuantile(next()));
    const values = valuesAt(parameters, z);
    const predicted = predict(values).slice();
    const bad = plan.map(() => next() < badShare);
    const read = readings.map((r, i) => {
      const off = (bad[r.run] ? BAD_SPREAD : 1) * r.plusMinus * normalQuantile(next());
      return predicted[i]! + off;
    });
    const runs = plan.map((run, at): SteadyRun => {
      const of = (kind: string) =>
        Object.fromEntries(
          readings.flatMap((r, i) => (r.run === at && r.kind === kind ? [[r.part, read[i]!]] : [])),
        );
      return {
        ...run,
        junctionC: of('junction'),
        exhaustC: of('exhaust'),
        levelDbA: of('level')['']!,
      };
    });
    const fit = fitMultipliers(openCase({ record }), runs, {
      only,
      draws: DRAWS,
      suspicions: false,
    });
    fit.multipliers.forEach((m, i) => {
      if (z[i]! >= m.zRange[0] && z[i]! <= m.zRange[1]) {
        inside.set(m.name, inside.get(m.name)! + 1);
      }
    });
    const [held] = sustainedAfterFit(openCase({ record }), fit, [36]);
    const [carried] = sustainedTogether(openCase({ record, overrides: values }), [36]);
    if (carried! >= held!.low && carried! <= held!.high) watts++;
  }
  inside.set('watts at a cap that was not run', watts);
  return Object.fromEntries(inside);
}
