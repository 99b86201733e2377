/** Cross-section of a round or pressed pipe, in metres. */
export interface PipeSection {
  outerWidthM: number;
  thicknessM: number;
  wallM: number;
  wickThicknessM: number;
  vaporWidthM: number;
  vaporGapM: number;
  vaporAreaM2: number;
  wickAreaM2: number;
}

/**
 * Cross-section of a heat pipe pressed flat with its perimeter kept.
 *
 * Width `w = t + π (D − t)/2`. Wall: 10 % of the thickness within 0.15–0.3 mm; wick: 20 % of it within 0.2–0.8 mm, and
 * never more than leaves an eighth of the thickness open for the vapor. Both rules carry a factor, since neither is
 * measured without cutting the pipe.
 *
 * @param diameterM diameter before pressing D
 * @param thicknessM pressed thickness t, ≤ D
 * @param widthM measured width, overrides the kept perimeter; undefined: computed
 * @param wallFactor, wickFactor factors on the rules, about 1
 * Source: geometry; wall and wick rules common practice, no source.
 * @example pipeSection(0.008, 0.003, undefined, 1, 1).outerWidthM // 0.01085
 */
export function pipeSection(
  diameterM: number,
  thicknessM: number,
  widthM: number | undefined,
  wallFactor: number,
  wickFactor: number,
): PipeSection {
  const t = Math.min(thicknessM, diameterM);
  const outerWidthM = Math.max(t, widthM ?? t + (Math.PI * (diameterM - t)) / 2);
  const wallM = Math.min(t / 6, wallFactor * Math.min(0.3e-3, Math.max(0.15e-3, 0.1 * t)));
  const inside = t - 2 * wallM;
  const wickThicknessM = Math.min(
    inside / 2 - t / 16,
    wickFactor * Math.min(0.8e-3, Math.max(0.2e-3, 0.2 * t)),
  );
  const vaporGapM = inside - 2 * wickThicknessM;
  const straight = outerWidthM - t;
  const area = (thickness: number) => straight * thickness + (Math.PI / 4) * thickness * thickness;
  return {
    outerWidthM,
    thicknessM: t,
    wallM,
    wickThicknessM,
    vaporWidthM: straight + vaporGapM,
    vaporGapM,
    vaporAreaM2: area(vaporGapM),
    wickAreaM2: area(inside) - area(vaporGapM),
  };
}
