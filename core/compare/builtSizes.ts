import type { CaseData } from '../record/caseData';

/** What a machine is built of, as reviewers hold it against its watts. */
export interface BuiltSizes {
  /** Both faces of all fins. */
  finAreaCm2: number;
  /** Discs of all impellers. */
  sweptCm2: number;
  /** Sections of all heat pipes, as they are pressed. */
  pipeSectionMm2: number;
}

/**
 * Sums what heat and air go through.
 *
 * Fins `Σ 2 n h d`, fans `Σ π D² / 4`, pipes `Σ n (w − t) t + π t² / 4`.
 *
 * @param data a resolved case
 * Source: geometry.
 */
export function builtSizes({ stacks, fans, pipes }: CaseData): BuiltSizes {
  const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0);
  return {
    finAreaCm2: 1e4 * sum(stacks.map((s) => 2 * s.passages * s.fin.heightM * s.fin.depthM)),
    sweptCm2: 1e4 * sum(fans.map((f) => (Math.PI / 4) * f.diameterM * f.diameterM)),
    pipeSectionMm2:
      1e6 *
      sum(
        pipes.map(
          (p) =>
            p.count *
            ((p.outerWidthM - p.thicknessM) * p.thicknessM +
              (Math.PI / 4) * p.thicknessM * p.thicknessM),
        ),
      ),
  };
}
