import { correctForBackground } from '../sound/background';
import type { LogAnalysis } from './analyseLog';
import { instrumentError } from './windowMeans';

/**
 * Gives the last steady state the level of a recording of which nothing tells when it was made: where no log holds a level it was
 * made while the machine was steady, since nothing else is worth a recording.
 *
 * @param analysis of the logs
 * @param leqDbA energy mean of the recording; null: none was made
 * @param backgroundDbA level with the machine off
 */
export function withHeardLevel(
  analysis: LogAnalysis,
  leqDbA: number | null,
  backgroundDbA: number | null,
): LogAnalysis {
  const last = analysis.steady[analysis.steady.length - 1];
  if (leqDbA === null || !last || last.means['levelDbA']) return analysis;
  const alone =
    backgroundDbA === null
      ? { levelDbA: leqDbA, upperBound: false }
      : correctForBackground(leqDbA, backgroundDbA);
  const level = {
    mean: alone.levelDbA,
    se: 0,
    plusMinus: instrumentError('level', alone.levelDbA),
    ...(alone.upperBound ? { upperBound: true } : {}),
  };
  return {
    ...analysis,
    steady: [
      ...analysis.steady.slice(0, -1),
      { ...last, means: { ...last.means, levelDbA: level } },
    ],
  };
}
