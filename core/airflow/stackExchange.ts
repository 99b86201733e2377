import type { AirProperties } from '../fluids/air';
import { stackFinEfficiency, type FinRow } from '../conduction/fin';
import { ductApparentFriction, ductMeanNusselt, type Duct } from './rectangularDuct';
import { finRowLoss } from './openings';

/** A fin stack as the air sees it: open passages between fins. */
export interface StackGeometry {
  /** Number of open passages, after what is blocked; need not be whole. */
  passages: number;
  duct: Duct;
  fin: FinRow;
  openShare: number;
  contactDepthM: number;
}

/**
 * Pressure drop of a stack written as `Δp = a Q + b Q²` about a flow: friction in a, entrance and exit loss in b.
 *
 * @param stack its passages
 * @param flowM3s flow through the whole stack, > 0
 * @param properties air at the mean temperature in the stack
 */
export function stackResistance(
  stack: StackGeometry,
  flowM3s: number,
  properties: AirProperties,
): { linear: number; quadratic: number } {
  const { gapM, heightM, lengthM } = stack.duct;
  const area = stack.passages * gapM * heightM;
  const dh = (2 * gapM * heightM) / (gapM + heightM);
  const velocity = flowM3s / area;
  const reynolds = Math.max(1, (properties.densityKgM3 * velocity * dh) / properties.viscosityPaS);
  const friction = ductApparentFriction(stack.duct, reynolds);
  const head = 0.5 * properties.densityKgM3 * velocity * velocity;
  return {
    linear: (friction * 4 * (lengthM / dh) * head) / flowM3s,
    quadratic: (finRowLoss(stack.openShare) * 0.5 * properties.densityKgM3) / (area * area),
  };
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
  const { gapM, heightM, lengthM } = stack.duct;
  const area = stack.passages * gapM * heightM;
  const dh = (2 * gapM * heightM) / (gapM + heightM);
  const velocity = flowM3s / area;
  const reynolds = Math.max(1, (properties.densityKgM3 * velocity * dh) / properties.viscosityPaS);
  const nusselt = nusseltFactor * ductMeanNusselt(stack.duct, reynolds, properties.prandtl);
  const h = (nusselt * properties.conductivityWmK) / dh;
  const eta = stackFinEfficiency(stack.fin, h, stack.contactDepthM);
  const bases = stack.fin.joined === 'both-sides' ? 2 : 1;
  const wetted = stack.passages * lengthM * (2 * heightM * eta + bases * gapM);
  return h * wetted * factor;
}

/**
 * Effectiveness of a stream passing a wall of one temperature: `ε = 1 − exp(−UA/C)`.
 *
 * @param conductanceWK UA, ≥ 0
 * @param capacityRateWK mass flow times heat capacity C, > 0
 * Source: Kays & London; Incropera et al., ch. 11 (C_r = 0).
 * @example effectiveness(1, 1) // 0.632
 */
export function effectiveness(conductanceWK: number, capacityRateWK: number): number {
  return -Math.expm1(-conductanceWK / capacityRateWK);
}
