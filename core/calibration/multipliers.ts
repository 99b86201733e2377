import type { OpenCase } from '../case/openCase';
import { normalProbability } from '../uncertainty/normal';
import { spreadOf } from '../uncertainty/spread';

/** Reported watts over true ones, as a factor on what the machine reports. */
export const POWER_GAIN = 'bench.powerGain';
/** Mains to direct current. */
export const ADAPTER_EFFICIENCY = 'bench.adapterEfficiency';

/** Multipliers that a bench run is expected to tell; the others are figures whose error merely has to be borne. */
const NAMED = [
  /^dies\..*interface/,
  /^finStacks\.(uaFactor|nusseltFactor)$/,
  /^dies\.hotSpotFactor$/,
  /^fans\.(psi|phi|leakage|recirculation)/,
  /^heatPipes\.solderM2KW$/,
  /^shell\.(evenness|spotCoefficientWm2K|boardWK|insideAirWm2K)/,
  /^noise\./,
  /^bench\./,
];

/** Something uncertain that a fit may move: `values(z)` are its figures z prior deviations from the median. */
export interface Multiplier {
  name: string;
  /** One that a bench run is expected to tell. */
  named: boolean;
  values: (z: number) => [path: string, value: number][];
}

const GAIN_LOG_SD = 0.03;
const EFFICIENCY = { median: 0.88, logSd: 0.03 };

/**
 * Everything about a machine that is not exactly known, with its prior: figures that share a cause are one multiplier.
 *
 * @param open the case; what it overrides is exact
 * @param only keeps those whose name begins with one of these
 */
export function multipliersOf(
  { data, labDefaults, request }: OpenCase,
  only?: readonly string[],
): Multiplier[] {
  const groups = new Map<string, { path: string; quantile: (p: number) => number }[]>();
  for (const input of data.inputs) {
    if (request.overrides?.has(input.path)) continue;
    const spread = spreadOf(input, labDefaults);
    // the room is read in every run
    if (!spread || input.path.startsWith('room.temperature')) continue;
    const own = groups.get(spread.group) ?? [];
    own.push({ path: input.path, quantile: spread.quantile });
    groups.set(spread.group, own);
  }
  const all = [...groups].map(([name, inputs]): Multiplier => ({
    name,
    named: NAMED.some((x) => x.test(name)),
    values: (z) => {
      const p = normalProbability(Math.min(6, Math.max(-6, z)));
      return inputs.map((i) => [i.path, i.quantile(p)]);
    },
  }));
  const factor = (name: string, median: number, logSd: number): Multiplier => ({
    name,
    named: true,
    values: (z) => [[name, median * Math.exp(logSd * z)]],
  });
  all.push(
    factor(POWER_GAIN, 1, GAIN_LOG_SD),
    factor(ADAPTER_EFFICIENCY, EFFICIENCY.median, EFFICIENCY.logSd),
  );
  return only ? all.filter((m) => only.some((o) => m.name.startsWith(o))) : all;
}

/** Values of all multipliers at a point, by path. */
export function valuesAt(
  multipliers: readonly Multiplier[],
  z: ArrayLike<number>,
): Map<string, number> {
  return new Map(multipliers.flatMap((m, i) => m.values(z[i]!)));
}
