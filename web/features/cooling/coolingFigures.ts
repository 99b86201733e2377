import { finAreaCm2, sweptAreaCm2 } from '@zugluft/core/counting/countingAids';
import { pipeSection } from '@zugluft/core/pipes/pipeSection';
import { figureValue } from '@zugluft/core/record/figure';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';

/** Sums a reviewer used to work out by hand; null where no part has the figures yet. */
export interface CoolingFigures {
  finAreaCm2: number | null;
  sweptCm2: number | null;
  pipeSectionMm2: number | null;
}

const v = figureValue;

/**
 * Fin area (both faces), swept area of the fans' outlets (π D b) and open vapor section of all pipes.
 *
 * @param record a record, complete or not
 */
export function coolingFigures(record: CaseRecord): CoolingFigures {
  const sum = (values: (number | undefined)[]) => {
    const known = values.filter((x) => x !== undefined);
    return known.length ? known.reduce((a, b) => a + b, 0) : null;
  };
  return {
    finAreaCm2: sum(
      (record.finStacks ?? []).map((s) => {
        const [h, d, n] = [v(s.heightMm), v(s.depthMm), v(s.finCount)];
        return h === undefined || d === undefined || n === undefined
          ? undefined
          : finAreaCm2(h, d, n);
      }),
    ),
    sweptCm2: sum(
      (record.fans ?? []).map((f) => {
        const [d, b] = [v(f.impellerDiameterMm), v(f.bladeHeightMm)];
        return d === undefined || b === undefined ? undefined : sweptAreaCm2(d, b);
      }),
    ),
    pipeSectionMm2: sum(
      (record.heatPipes ?? []).map((p) => {
        const d = v(p.diameterMm);
        const t = v(p.flattenedMm);
        if (d === undefined || t === undefined || t > d) return undefined;
        const section = pipeSection(d / 1000, t / 1000, undefined, p.wick ?? 'sintered', 1, 1);
        return (v(p.count) ?? 1) * section.vaporAreaM2 * 1e6;
      }),
    ),
  };
}
