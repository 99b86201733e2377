/** How air gets to an opening in the base: the gap under it, and which rims of the base leave a way. */
export interface BaseGap {
  heightM: number;
  widthM: number;
  depthM: number;
  /** Share of each rim that feet, strips and soft ground leave open; `side` of the left and the right one. */
  open: { rear: number; front: number; side: number };
  /** Loss coefficient of the way in at the rim, on the velocity there. */
  rimLoss: number;
  /** Loss coefficient of the turn from the gap into an opening, on the velocity along its edge. */
  turnLoss: number;
}

/** An opening in the base. */
export interface BaseOpening {
  widthM: number;
  lengthM: number;
  /** From its edge to the rear rim of the base. */
  toRearRimM: number;
}

/** Shape of one way of a length, from an edge. */
function way(lengthAlongM: number, edgeM: number): number {
  return 2 / Math.log(1 + (2 * Math.max(LEAST_M, lengthAlongM)) / edgeM);
}

/** Room that is left in any case between openings and rims. */
const LEAST_M = 2e-3;

/**
 * Shape of the ways from the rims to one of several alike openings beside each other: the flow for a pressure drop of one, of a
 * potential flow in the plane, `Σ open · 2 / ln(1 + 2 L/f)` over the rims, f the edge that faces the rim and L the way to it; the
 * stream spreads by 45° on either side.
 *
 * @param opening its size and place
 * @param gap rims and what is open of them
 * @param alike how many openings share the base, each with its strip of the width
 * @returns dimensionless, > 0 unless all rims are closed
 * Source: Hele-Shaw flow is potential flow; conduction through a spreading trapezoid; checked against two-dimensional potential
 * flow to 25 %.
 */
export function gapShape(opening: BaseOpening, gap: BaseGap, alike: number): number {
  const { widthM, lengthM } = opening;
  const rearM = Math.min(opening.toRearRimM, gap.depthM - lengthM);
  const frontM = gap.depthM - lengthM - rearM;
  const sideM = (gap.widthM / alike - widthM) / 2;
  // where air comes from neither rear nor front, half of the edges that face them is reached from the sides
  const closed = (1 - gap.open.rear) * (1 - gap.open.front);
  const sideEdgeM =
    lengthM + closed * 0.5 * (Math.min(rearM, widthM / 2) + Math.min(frontM, widthM / 2));
  return (
    gap.open.rear * way(rearM, widthM) +
    gap.open.front * way(frontM, widthM) +
    // the outer ones of several have a side rim beside them, the inner ones none
    gap.open.side * (2 / alike) * way(sideM, sideEdgeM)
  );
}

/**
 * Pressure lost from the rims to an opening in the base: friction in the gap and the turn into the opening,
 * `Δp = 12 μ Q / (h³ S) + ζ ½ρ (Q / (p h))²`, S the shape of the ways, p the opening's edge.
 *
 * @param opening its size and place
 * @param gap gap under the base
 * @param alike how many openings share the base
 * @param viscosityPaS of the room’s air
 * @returns coefficients of Q: Pa s/m³, and m⁻⁴ to be multiplied by ½ρQ²
 * Source: Hele-Shaw flow between plates; Idelchik, turn into a gap.
 */
export function gapResistance(
  opening: BaseOpening,
  gap: BaseGap,
  alike: number,
  viscosityPaS: number,
): { linear: number; turnPerM4: number } {
  const edgeM2 = 2 * (opening.widthM + opening.lengthM) * gap.heightM;
  const shape = Math.max(LEAST_SHAPE, gapShape(opening, gap, alike));
  return {
    linear: (12 * viscosityPaS) / (gap.heightM ** 3 * shape),
    turnPerM4: gap.turnLoss / (edgeM2 * edgeM2),
  };
}

/** However all rims are closed, something leaks. */
const LEAST_SHAPE = 0.02;

/** Area between base and ground at the open rims. */
export function rimAreaM2(gap: BaseGap): number {
  const { open, widthM, depthM, heightM } = gap;
  const lengthM = (open.rear + open.front) * widthM + 2 * open.side * depthM;
  return Math.max(LEAST_SHAPE * widthM, lengthM) * heightM;
}
