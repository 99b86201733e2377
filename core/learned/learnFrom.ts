import type { Cap } from '../envelope/fanStates';
import type { Foretelling, LearnedAnswer } from '../library/learnedAnswer';
import type { LabDefaults } from '../record/resolver';
import type { Band3 } from '../verdict/bandWords';
import { factorSlopes } from './factorSlopes';
import { learnedDefaults } from './learnedDefaults';
import { leaveOneOut, type LeaveOneOutOptions, type LeftOut, type TaughtBy } from './leaveOneOut';
import { fitPopulation, type Population } from './populationFit';

/**
 * A machine that teaches, and a steady state that it is foretold for. Its request is without the laboratory's learned defaults and without a
 * calibration, at the ratio of that state.
 */
export interface Teacher extends TaughtBy {
  measuredW: number;
}

export type Learned = Pick<LearnedAnswer, 'factors' | 'before' | 'after'> & {
  machines: LeftOut[];
};

/**
 * What machines teach about the next one: factors, defaults to be offered, and how well each machine is foretold from the others before
 * and after.
 *
 * @param teachers at least two
 * @param caps of the laboratory, at which the offered ranges give watts their learned spread
 * @param progress told of each machine; false ends it with those
 */
export function learnFrom(
  teachers: readonly Teacher[],
  caps: readonly Cap[],
  progress?: (done: number, of: number) => boolean | void,
): Learned {
  const population = fitPopulation(teachers.map((t) => t.evidence));
  const { offered, machines } = offeredBy(population, teachers, caps, { progress });
  const told = (which: 'before' | 'after') =>
    foretelling(machines.map((m, i) => ({ measuredW: teachers[i]!.measuredW, band: m[which] })));
  return {
    machines,
    factors: population.factors.map((f) => ({ ...f, offered: offered[f.key] ?? null })),
    before: told('before'),
    after: told('after'),
  };
}

/** Machines whose watts shape the offered ranges: many more would not change them, and each costs dozens of solves. */
const MOST_SLOPED = 40;

/**
 * Defaults that are offered, and how well each machine is foretold from the others.
 *
 * @param population learned from these machines
 */
export function offeredBy(
  population: Population,
  machines: readonly TaughtBy[],
  caps: readonly Cap[],
  options: LeaveOneOutOptions = {},
): { offered: LabDefaults; machines: LeftOut[] } {
  const keys = population.factors.map((f) => f.key);
  const middle = population.factors.map((f) => f.mean);
  const every = Math.ceil(machines.length / MOST_SLOPED);
  const slopes = machines.map((m, i) =>
    i % every === 0 ? factorSlopes(m.request, keys, middle, caps) : [],
  );
  return {
    offered: learnedDefaults(population, slopes.flat()),
    machines: leaveOneOut(machines, keys, slopes, options),
  };
}

/** How well some watts were foretold. */
export function foretelling(all: readonly { measuredW: number; band: Band3 }[]): Foretelling {
  const halves = all
    .map(({ band }) => (band.p95 - band.p05) / (band.p95 + band.p05))
    .sort((a, b) => a - b);
  const middle = (halves.length - 1) / 2;
  const square = all.reduce((sum, m) => sum + Math.log(m.measuredW / m.band.p50) ** 2, 0);
  return {
    inside: all.filter((m) => m.measuredW >= m.band.p05 && m.measuredW <= m.band.p95).length,
    halfBand: (halves[Math.floor(middle)]! + halves[Math.ceil(middle)]!) / 2,
    offShare: Math.sqrt(square / all.length),
  };
}
