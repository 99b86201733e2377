import { openCase, type CaseRequest } from '../case/openCase';
import { sustainedTogether } from '../case/sustainedTogether';
import type { Cap } from '../envelope/fanStates';
import { figureValue } from '../record/figure';
import type { CaseRecord } from '../record/recordSchema';
import { SHOWN_DRAWS, SHOWN_SEED } from '../uncertainty/wattsBand';
import { sustainedBands } from '../uncertainty/sustainedBands';
import { applyChanges, ImpossibleChange } from './applyChanges';
import type { Change } from './lever';

/** Figures of a design that are looked through, each over all parts of its kind at once. */
export const DESIGN_FIGURES = ['fans', 'pipes', 'stacks', 'machine'] as const;
export type DesignFigure = (typeof DESIGN_FIGURES)[number];

export interface DesignPoint {
  /** What was asked for: mm across, pipes in all, mm deep, mm thick; of several parts the largest. */
  size: number;
  /** Sustained at the cap in the ratio of what is needed, at the median. */
  watts: number;
  change: Change[];
}

/** What a figure could be, and the least that still would. */
export interface DesignAnswer {
  figure: DesignFigure;
  unit: 'mm' | '';
  today: { size: number; watts: number };
  /** From the smallest to the largest that could be computed. */
  curve: DesignPoint[];
  /** The least of the curve that sustains what is needed; null where none does. */
  least: DesignPoint | null;
}

export interface DesignNeed {
  cpuW: number;
  gpuW: number;
}

/** How far from today's a size is looked for, as shares of it, and in how many steps. */
const SPAN = { from: 0.4, to: 1.4, steps: 20 } as const;
const MOST_MORE_PIPES = 4;
const LEAST_SHARE = 1e-6;
const v = figureValue;
const hundredths = (x: number) => Math.round(100 * x) / 100;

/**
 * What one figure of a design buys: the watts at a cap over the size of fans, the count of pipes, the depth of stacks or the thickness
 * of the machine, and the smallest that still sustains what is needed. Each size is solved for itself; its watts are the central ones
 * moved to the median as today's are.
 *
 * @param request the case
 * @param figure what is looked through
 * @param cap at which
 * @param need watts of both dies, ≥ 0, at least one above 0
 * @param looked told of each size that is done; false ends the search with those
 * @returns null where the record does not have the figure
 */
export function designSearch(
  request: CaseRequest,
  figure: DesignFigure,
  cap: Cap,
  need: DesignNeed,
  looked: () => boolean | void = () => undefined,
): DesignAnswer | null {
  const watts = need.cpuW + need.gpuW;
  if (!(watts > 0)) throw new Error('needs watts above 0');
  const today = sizeOf(request.record, figure);
  if (today === null) return null;
  const ratio = {
    cpu: Math.max(LEAST_SHARE, need.cpuW / watts),
    gpu: Math.max(LEAST_SHARE, need.gpuW / watts),
  };
  const open = openCase({ ...request, ratio });
  const [central] = sustainedTogether(open, [cap]);
  const [band] = sustainedBands(open, { caps: [cap], draws: SHOWN_DRAWS, seed: SHOWN_SEED });
  const toMedian = central! > 0 ? band!.p50 / central! : 1;
  const curve: DesignPoint[] = [];
  for (const size of sizesAbout(figure, today, request.record.heatPipes?.length)) {
    const change = designChange(request.record, figure, size);
    try {
      // what a calibration learned of a part says nothing of another size of it
      const changed = applyChanges(request.record, change, request.setting);
      const other = openCase({ ...request, ...changed, ratio, calibration: null });
      curve.push({ size, watts: sustainedTogether(other, [cap])[0]! * toMedian, change });
    } catch (cause) {
      if (!(cause instanceof ImpossibleChange)) throw cause;
    }
    if (looked() === false) break;
  }
  return {
    figure,
    unit: figure === 'pipes' ? '' : 'mm',
    today: { size: today, watts: band!.p50 },
    curve,
    least: curve.find((p) => p.watts >= watts) ?? null,
  };
}

/**
 * Sizes that are looked at, from the smallest up, today's among them.
 *
 * @param kinds of pipes, each of which keeps one at least
 */
export function sizesAbout(figure: DesignFigure, today: number, kinds = 1): number[] {
  if (figure === 'pipes') {
    return Array.from({ length: today - kinds + 1 + MOST_MORE_PIPES }, (_, i) => kinds + i);
  }
  const { from, to, steps } = SPAN;
  const sizes = Array.from({ length: steps + 1 }, (_, i) =>
    hundredths(today * (from + ((to - from) * i) / steps)),
  );
  return [...new Set([...sizes, today])].sort((a, b) => a - b);
}

/** A figure of a design as it stands; null where the record does not have it. */
function sizeOf(record: CaseRecord, figure: DesignFigure): number | null {
  const most = (sizes: (number | undefined)[]) => {
    const known = sizes.filter((x) => x !== undefined);
    return known.length > 0 ? Math.max(...known) : null;
  };
  switch (figure) {
    case 'fans':
      return most((record.fans ?? []).map((f) => v(f.impellerDiameterMm)));
    case 'pipes': {
      const count = (record.heatPipes ?? []).reduce((n, p) => n + (v(p.count) ?? 1), 0);
      return count > 0 ? count : null;
    }
    case 'stacks':
      return most((record.finStacks ?? []).map((s) => v(s.depthMm)));
    case 'machine':
      return v(record.shell?.thicknessMm) ?? null;
  }
}

/**
 * The change that brings a figure to a size: fans and stacks all by the same share, pipes shared out as they are now, a thinner machine
 * by what its fans and fins lose of their height.
 */
export function designChange(record: CaseRecord, figure: DesignFigure, size: number): Change[] {
  const today = sizeOf(record, figure);
  if (today === null || size === today) return [];
  const share = size / today;
  switch (figure) {
    case 'fans':
      return (record.fans ?? []).flatMap((f): Change[] => {
        const across = v(f.impellerDiameterMm);
        if (across === undefined) return [];
        return [
          { path: `fans.${f.id}.impellerDiameterMm`, to: hundredths(share * across) },
          // a curve belongs to the fan that it was measured of
          ...(f.curve?.length ? [{ path: `fans.${f.id}.curve`, to: null }] : []),
        ];
      });
    case 'pipes':
      return pipesChange(record, size);
    case 'stacks':
      return (record.finStacks ?? []).flatMap((s): Change[] => {
        const depth = v(s.depthMm);
        return depth === undefined
          ? []
          : [{ path: `finStacks.${s.id}.depthMm`, to: hundredths(share * depth) }];
      });
    case 'machine': {
      const less = size - today;
      return [
        { path: 'shell.thicknessMm', to: size },
        ...(record.fans ?? []).flatMap((f): Change[] => {
          const blade = v(f.bladeHeightMm);
          return blade === undefined
            ? []
            : [{ path: `fans.${f.id}.bladeHeightMm`, to: hundredths(blade + less) }];
        }),
        ...(record.finStacks ?? []).flatMap((s): Change[] => {
          const height = v(s.heightMm);
          return height === undefined
            ? []
            : [{ path: `finStacks.${s.id}.heightMm`, to: hundredths(height + less) }];
        }),
      ];
    }
  }
}

/** So many pipes in all: each kind gets its share and one at least, what is left over goes to those that lose most by rounding. */
function pipesChange({ heatPipes = [] }: CaseRecord, total: number): Change[] {
  const counts = heatPipes.map((p) => v(p.count) ?? 1);
  const all = counts.reduce((a, b) => a + b, 0);
  const exact = counts.map((c) => (c * total) / all);
  const whole = exact.map((x) => Math.max(1, Math.floor(x)));
  const byLoss = exact.map((x, i) => ({ i, loss: x - whole[i]! })).sort((a, b) => b.loss - a.loss);
  let left = total - whole.reduce((a, b) => a + b, 0);
  for (const { i } of byLoss) {
    if (left <= 0) break;
    whole[i]!++;
    left--;
  }
  // kinds that were kept at one have taken too many
  for (const { i } of byLoss.reverse()) {
    while (left < 0 && whole[i]! > 1) {
      whole[i]!--;
      left++;
    }
  }
  return heatPipes.map((p, i) => ({ path: `heatPipes.${p.id}.count`, to: whole[i]! }));
}
