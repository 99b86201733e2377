import type { AirProperties } from '../fluids/air';
import { stackFinEfficiency, type FinRow, type SpreadingFin } from '../conduction/fin';
import { ductApparentFriction, ductMeanNusselt, type Duct } from './rectangularDuct';
import { finRowLoss, lintLoss } from './openings';

/** A fin stack as the air sees it: open passages between fins. */
export interface StackGeometry {
  /** Number of open passages, after what is blocked; need not be whole. */
  passages: number;
  duct: Duct;
  fin: FinRow;
  openShare: number;
  /** The fin as heat enters it from what lies under it. */
  spreading: SpreadingFin;
  /** Loss of entrance, exit and lint on the velocity between the fins. */
  faceLoss: number;
}

/** Loss at a stack's faces: contraction, expansion, and the lint on its entrance. */
export function stackFaceLoss(openShare: number, lintShare: number): number {
  return finRowLoss(openShare) + lintLoss(lintShare);
}

/** Reynolds number between the fins on the hydraulic diameter, at least 1. */
export function stackReynolds(
  stack: StackGeometry,
  flowM3s: number,
  properties: AirProperties,
): number {
  const velocity = flowM3s / (stack.passages * stack.duct.areaM2);
  return Math.max(
    1,
    (properties.densityKgM3 * velocity * stack.duct.hydraulicM) / properties.viscosityPaS,
  );
}

/**
 * Pressure drop of a stack written as `Δp = a Q + b Q²` about a flow: friction in a, losses at its faces in b.
 *
 * @param stack its passages
 * @param flowM3s flow through the whole stack, > 0
 * @param properties air at the mean temperature in the stack
 * @param out receives a and b
 */
export function stackResistance(
  stack: StackGeometry,
  flowM3s: number,
  properties: AirProperties,
  out: { linear: number; quadratic: number },
): void {
  const area = stack.passages * stack.duct.areaM2;
  const reynolds = stackReynolds(stack, flowM3s, properties);
  const friction = ductApparentFriction(stack.duct, reynolds);
  const perFlow2 = (0.5 * properties.densityKgM3) / (area * area);
  out.linear = friction * 4 * (stack.duct.lengthM / stack.duct.hydraulicM) * perFlow2 * flowM3s;
  out.quadratic = stack.faceLoss * perFlow2;
}

/**
 * Conductance from a stack's walls to the air stream: `UA = η h A · factor`, fins and the base between them.
 *
 * @param stack its passages and fins
 * @param flowM3s flow through the fins, > 0
 * @param properties air at the mean temperature in the stack
 * @param factor what uneven flow and imperfect joints leave of it, 0…1
 * @param nusseltFactor model-form factor on the Nusselt number, about 1
 * @returns W/K
 */
export function stackConductance(
  stack: StackGeometry,
  flowM3s: number,
  properties: AirProperties,
  factor: number,
  nusseltFactor: number,
): number {
  const { gapM, heightM, lengthM, hydraulicM } = stack.duct;
  const reynolds = stackReynolds(stack, flowM3s, properties);
  const nusselt = nusseltFactor * ductMeanNusselt(stack.duct, reynolds, properties.prandtl);
  const h = (nusselt * properties.conductivityWmK) / hydraulicM;
  const eta = stackFinEfficiency(stack.spreading, h);
  const bases = stack.fin.joined === 'both-sides' ? 2 : 1;
  const wetted = stack.passages * lengthM * (2 * heightM * eta + bases * gapM);
  return h * wetted * factor;
}

/**
 * Effectiveness of a stream passing a wall of one temperature: `ε = 1 − exp(−UA/C)`.
 *
 * @param conductanceWPerK UA, ≥ 0
 * @param capacityRateWPerK mass flow times heat capacity C, > 0
 * Source: Kays & London; Incropera et al., ch. 11 (C_r = 0).
 * @example effectiveness(1, 1) // 0.632
 */
export function effectiveness(conductanceWPerK: number, capacityRateWPerK: number): number {
  return -Math.expm1(-conductanceWPerK / capacityRateWPerK);
}
