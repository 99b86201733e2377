/**
 * A fan's pressure against flow at a reference speed, as a falling polyline: `flowM3s` rises, `pressurePa` falls.
 * Both ends lie on the axes, or beyond.
 */
export interface FanCurve {
  referenceRpm: number;
  flowM3s: readonly number[];
  pressurePa: readonly number[];
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
/** Powers for the last exponent: fans of one kind share it. */
const powers = new Float64Array(SAMPLES + 1);
let lastExponent = NaN;

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
 * Source: similarity laws of AMCA 201 / ISO 5801; the shape is common practice, no source.
 */
export function fanCurveFromCoefficients(
  shape: FanShape,
  rpm: number,
  psi: number,
  phi: number,
  exponent: number,
  densityKgM3: number,
): FanCurve {
  const tip = tipSpeedMs(shape.impellerDiameterM, rpm);
  const stall = psi * 0.5 * densityKgM3 * tip * tip;
  const free = phi * Math.PI * shape.impellerDiameterM * shape.bladeHeightM * tip;
  if (exponent !== lastExponent) {
    for (let i = 0; i <= SAMPLES; i++) powers[i] = Math.pow(i / SAMPLES, exponent);
    lastExponent = exponent;
  }
  const flowM3s = new Array<number>(SAMPLES + 1);
  const pressurePa = new Array<number>(SAMPLES + 1);
  for (let i = 0; i <= SAMPLES; i++) {
    flowM3s[i] = (free * i) / SAMPLES;
    pressurePa[i] = stall * (1 - powers[i]!);
  }
  return { referenceRpm: rpm, flowM3s, pressurePa };
}

/**
 * Fan curve from datasheet or measured points, each at its own speed, brought to one speed by the similarity laws
 * (`Q ∝ n`, `Δp ∝ n²`) and completed towards the axes by the computed curve scaled onto them.
 *
 * @param points at least one point, rpm > 0, flow and pressure ≥ 0
 * @param computed the curve from coefficients, at the reference speed
 * Source: AMCA 201 / ISO 5801 similarity laws.
 */
export function fanCurveFromPoints(
  points: readonly { rpm: number; flowM3s: number; pressurePa: number }[],
  computed: FanCurve,
): FanCurve {
  const n = computed.referenceRpm;
  const at = points
    .map((p) => ({ q: (p.flowM3s * n) / p.rpm, p: p.pressurePa * (n / p.rpm) ** 2 }))
    .sort((a, b) => a.q - b.q);
  // a scatter of readings may rise a little; the running minimum keeps the curve falling
  let low = Infinity;
  const falling = at.map((x) => ({ q: x.q, p: (low = Math.min(low, x.p)) }));
  const first = falling[0]!;
  const last = falling[falling.length - 1]!;
  const stall = computed.pressurePa[0]!;
  const free = computed.flowM3s[computed.flowM3s.length - 1]!;
  if (first.q > 0) {
    const inside = pressureAtFlow(computed, Math.min(first.q, free * 0.999));
    const scale = Math.max(first.p, 1e-9) / Math.max(inside, stall * 0.02);
    falling.unshift({ q: 0, p: Math.max(first.p * 1.0001, stall * Math.min(scale, 2)) });
  }
  if (last.p > 0) {
    const start = falling[0]!.p;
    const rest = Math.max(0.02, 1 - last.p / Math.max(start, last.p * 1.001));
    const shape = Math.pow(rest, 1 / 1.5);
    const q0 = last.q > 0 ? last.q / shape : free;
    falling.push({ q: Math.max(q0, last.q * 1.0001), p: 0 });
  }
  return { referenceRpm: n, flowM3s: falling.map((x) => x.q), pressurePa: falling.map((x) => x.p) };
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
