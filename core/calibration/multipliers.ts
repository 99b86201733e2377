import type { OpenCase } from '../case/openCase';
import { spreadOf } from '../uncertainty/spread';

/** Mains to direct current. */
export const ADAPTER_EFFICIENCY = 'bench.adapterEfficiency';

/** Multipliers that a bench run is expected to tell; the others are figures whose error merely has to be borne. */
const NAMED = [
  /^dies\..*interface/,
  /^finStacks\.(uaFactor|nusseltFactor)$/,
  /^dies\.(hotSpotFactor|sensorGain)/,
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
  /** The same, figure by figure. */
  figures: readonly { path: string; at: (z: number) => number }[];
}

/** Common practice, no source. */
export const USUAL_EFFICIENCY = 0.88;
const EFFICIENCY_LOG_SD = 0.03;

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
  const groups = new Map<string, { path: string; at: (z: number) => number }[]>();
  for (const input of data.inputs) {
    if (request.overrides?.has(input.path)) continue;
    const spread = spreadOf(input, labDefaults);
    // the room is read in every run
    if (!spread || input.path.startsWith('room.temperature')) continue;
    const own = groups.get(spread.group) ?? [];
    own.push({ path: input.path, at: spread.at });
    groups.set(spread.group, own);
  }
  const all = [...groups].map(([name, figures]) =>
    multiplier(
      name,
      NAMED.some((x) => x.test(name)),
      figures,
    ),
  );
  all.push(
    multiplier(ADAPTER_EFFICIENCY, true, [
      {
        path: ADAPTER_EFFICIENCY,
        at: (z) => USUAL_EFFICIENCY * Math.exp(EFFICIENCY_LOG_SD * z),
      },
    ]),
  );
  return only ? all.filter((m) => only.some((o) => m.name.startsWith(o))) : all;
}

/** Beyond so many deviations a prior says nothing more. */
const FARTHEST = 6;

/** A multiplier of some figures, kept to where its prior says something. */
export function multiplier(
  name: string,
  named: boolean,
  figures: Multiplier['figures'],
): Multiplier {
  const kept = figures.map(({ path, at }) => ({
    path,
    at: (z: number) => at(Math.min(FARTHEST, Math.max(-FARTHEST, z))),
  }));
  return { name, named, figures: kept, values: (z) => kept.map((f) => [f.path, f.at(z)]) };
}

/** Values of all multipliers at a point, by path. */
export function valuesAt(
  multipliers: readonly Multiplier[],
  z: ArrayLike<number>,
): Map<string, number> {
  return new Map(multipliers.flatMap((m, i) => m.values(z[i]!)));
}
