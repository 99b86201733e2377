/**
 * A fan's pressure against flow at a reference speed, as a falling polyline: `flowM3s` rises, `pressurePa` falls.
 * Both ends lie on the axes, or beyond.
 */
export interface FanCurve {
  readonly referenceRpm: number;
  readonly flowM3s: readonly number[];
  readonly pressurePa: readonly number[];
}

/** A curve of which the figures are still to be set, see {@link fanCurveFromCoefficients}. */
export interface FanCurveRoom extends FanCurve {
  referenceRpm: number;
  flowM3s: number[];
  pressurePa: number[];
}

export interface FanShape {
  impellerDiameterM: number;
  bladeHeightM: number;
}

/** Tip speed in m/s: `U = π D n / 60`. */
export function tipSpeedMs(impellerDiameterM: number, rpm: number): number {
  return (Math.PI * impellerDiameterM * rpm) / 60;
}

const SAMPLES = 24;
/** Logarithms of the shares of free delivery: a power by its exponential takes half the time. */
const logs = Float64Array.from({ length: SAMPLES + 1 }, (_, i) => Math.log(i / SAMPLES));
/** Powers for the last exponent: fans of one kind share it. */
const powers = new Float64Array(SAMPLES + 1);
let lastExponent = NaN;

/** Room for a curve from coefficients. */
export function emptyFanCurve(): FanCurveRoom {
  const zeros = () => new Array<number>(SAMPLES + 1).fill(0);
  return { referenceRpm: 0, flowM3s: zeros(), pressurePa: zeros() };
}

/**
 * Fan curve from two coefficients and a shape exponent.
 *
 * `Δp₀ = ψ · ½ ρ U²`, `Q₀ = φ π D b U`, `Δp = Δp₀ (1 − (Q/Q₀)^n)`, sampled as a polyline.
 *
 * @param shape impeller diameter and blade height, m
 * @param rpm reference speed, > 0
 * @param psi pressure coefficient at no flow
 * @param phi flow coefficient at no pressure
 * @param exponent curve shape n, ≥ 1
 * @param densityKgM3 air density
 * @param out where given, overwritten and returned, for inner loops
 * Source: similarity laws of AMCA 201 / ISO 5801; the shape is common practice, no source.
 */
export function fanCurveFromCoefficients(
  shape: FanShape,
  rpm: number,
  psi: number,
  phi: number,
  exponent: number,
  densityKgM3: number,
  out: FanCurveRoom = emptyFanCurve(),
): FanCurve {
  const tip = tipSpeedMs(shape.impellerDiameterM, rpm);
  const stall = psi * 0.5 * densityKgM3 * tip * tip;
  const free = phi * Math.PI * shape.impellerDiameterM * shape.bladeHeightM * tip;
  if (exponent !== lastExponent) {
    for (let i = 0; i <= SAMPLES; i++) powers[i] = Math.exp(exponent * logs[i]!);
    lastExponent = exponent;
  }
  out.referenceRpm = rpm;
  for (let i = 0; i <= SAMPLES; i++) {
    out.flowM3s[i] = (free * i) / SAMPLES;
    out.pressurePa[i] = stall * (1 - powers[i]!);
  }
  return out;
}

/** Pressure in Pa on the polyline at a flow in m³/s, at the reference speed; beyond the ends the end value. */
export function pressureAtFlow(curve: FanCurve, flowM3s: number): number {
  const { flowM3s: q, pressurePa: p } = curve;
  if (flowM3s <= q[0]!) return p[0]!;
  for (let i = 1; i < q.length; i++) {
    if (flowM3s <= q[i]!) {
      const w = (flowM3s - q[i - 1]!) / Math.max(q[i]! - q[i - 1]!, 1e-15);
      return p[i - 1]! + w * (p[i]! - p[i - 1]!);
    }
  }
  return p[p.length - 1]!;
}
