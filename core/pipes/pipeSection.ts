export type WickKind = 'sintered' | 'grooved' | 'mesh';

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
 * Width `w = t + π (D − t)/2`. Wall: 10 % of the thickness within 0.15–0.3 mm. Wick: sintered a third of the thickness beyond
 * 1 mm, within 0.2–0.8 mm and at most 12 % of the diameter, since a thin pipe is filled with a thinner layer; grooves 0.3 mm deep;
 * mesh 0.35 mm, three layers; never more than leaves an eighth of the thickness open for the vapor. Wall and wick carry a factor,
 * since neither is measured without cutting the pipe.
 *
 * @param diameterM diameter before pressing D
 * @param thicknessM pressed thickness t, ≤ D
 * @param widthM measured width, overrides the kept perimeter; undefined: computed
 * @param kind of wick
 * @param wallFactor, wickFactor factors on the rules, about 1
 * Source: geometry; wall and wick rules common practice, no source.
 * @example pipeSection(0.008, 0.003, undefined, 'sintered', 1, 1).outerWidthM // 0.01085
 */
export function pipeSection(
  diameterM: number,
  thicknessM: number,
  widthM: number | undefined,
  kind: WickKind,
  wallFactor: number,
  wickFactor: number,
): PipeSection {
  const t = Math.min(thicknessM, diameterM);
  const outerWidthM = Math.max(t, widthM ?? t + (Math.PI * (diameterM - t)) / 2);
  const layers = layersOf(
    t,
    Math.min(0.12 * diameterM, wickRuleM(kind, t)),
    wallFactor,
    wickFactor,
  );
  const inside = t - 2 * layers.wallM;
  const straight = outerWidthM - t;
  const vaporAreaM2 = stadiumArea(straight, layers.vaporGapM);
  return {
    outerWidthM,
    thicknessM: t,
    ...layers,
    vaporWidthM: straight + layers.vaporGapM,
    vaporAreaM2,
    wickAreaM2: stadiumArea(straight, inside) - vaporAreaM2,
  };
}

/** Area between two half circles and the straight sides that join them. */
function stadiumArea(straightM: number, thicknessM: number): number {
  return straightM * thicknessM + (Math.PI / 4) * thicknessM * thicknessM;
}

/** Wall, wick and vapor space of a sintered chamber of a thickness, by the rules of {@link pipeSection}. */
export function chamberLayers(thicknessM: number): Layers {
  return layersOf(thicknessM, wickRuleM('sintered', thicknessM), 1, 1);
}

type Layers = Pick<PipeSection, 'wallM' | 'wickThicknessM' | 'vaporGapM'>;

function layersOf(
  thicknessM: number,
  wickM: number,
  wallFactor: number,
  wickFactor: number,
): Layers {
  const wallRuleM = Math.min(0.3e-3, Math.max(0.15e-3, 0.1 * thicknessM));
  const wallM = Math.min(thicknessM / 6, wallFactor * wallRuleM);
  const inside = thicknessM - 2 * wallM;
  const wickThicknessM = Math.min(inside / 2 - thicknessM / 16, wickFactor * wickM);
  return { wallM, wickThicknessM, vaporGapM: inside - 2 * wickThicknessM };
}

function wickRuleM(kind: WickKind, thicknessM: number): number {
  if (kind === 'grooved') return 0.3e-3;
  if (kind === 'mesh') return 0.35e-3;
  return Math.min(0.8e-3, Math.max(0.2e-3, (thicknessM - 1e-3) / 3));
}
