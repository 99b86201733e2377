import {
  factorPlanned,
  planElimination,
  solvePlanned,
  type EliminationPlan,
} from '../numerics/elimination';
import { standardRanks } from './quantile';

/** Inputs as standard ranks with their factored correlations, ready for many outputs. */
export interface RankedInputs {
  draws: number;
  columns: Float64Array[];
  plan: EliminationPlan;
  factors: Float64Array;
}

/** Shares of one output's spread. */
export interface RankShares {
  /** Share per column; they add up to R². */
  shares: number[];
  r2: number;
  unexplained: number;
}

/** Keeps columns that hardly differ from each other from making the regression singular. */
const RIDGE = 1e-9;

/**
 * Prepares inputs for standardised rank regression.
 *
 * @param columns values of each input over the draws, more draws than columns
 */
export function rankInputs(columns: readonly ArrayLike<number>[]): RankedInputs {
  const ranked = columns.map((c) => standardRanks(c));
  const m = columns.length;
  const draws = columns[0]?.length ?? 0;
  const gram = new Float64Array(m * m);
  for (let a = 0; a < m; a++) {
    for (let b = a; b < m; b++) {
      let sum = 0;
      const x = ranked[a]!;
      const y = ranked[b]!;
      for (let i = 0; i < draws; i++) sum += x[i]! * y[i]!;
      gram[a * m + b] = gram[b * m + a] = sum / draws + (a === b ? RIDGE : 0);
    }
  }
  const plan = planElimination(m, new Uint8Array(m * m).fill(1));
  factorPlanned(gram, plan);
  return { draws, columns: ranked, plan, factors: gram };
}

/**
 * How much of an output's spread each input explains: standardised rank regression, each share the product of coefficient
 * and correlation, so that they add up to R².
 *
 * @param inputs from {@link rankInputs}
 * @param output value per draw
 * Source: Iman & Conover, Technometrics 21 (1979) for the rank transform; Pratt's decomposition of R²; from memory.
 */
export function rankShares(inputs: RankedInputs, output: ArrayLike<number>): RankShares {
  const y = standardRanks(output);
  const correlation = new Float64Array(inputs.columns.length);
  inputs.columns.forEach((x, c) => {
    let sum = 0;
    for (let i = 0; i < inputs.draws; i++) sum += x[i]! * y[i]!;
    correlation[c] = sum / inputs.draws;
  });
  const beta = correlation.slice();
  solvePlanned(inputs.factors, inputs.plan, beta);
  const shares = Array.from(beta, (b, c) => b * correlation[c]!);
  const r2 = Math.min(
    1,
    Math.max(
      0,
      shares.reduce((sum, s) => sum + s, 0),
    ),
  );
  return { shares, r2, unexplained: 1 - r2 };
}
