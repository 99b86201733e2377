import { pressureAtFlow, type FanCurve } from './fanCurve';

/** A datasheet or measured point of a fan. */
export interface FanPoint {
  rpm: number;
  flowM3s: number;
  pressurePa: number;
}

/** Below this share of the computed curve's end a flow or pressure counts as none. */
const NONE = 1e-4;
/** How far beyond its last point a curve may reach, as flow over that of the point. */
const FURTHEST = 6;
/** Pressure over that at no flow that a point beside a given end may have at most. */
const FULLEST = 0.985;
const BISECTIONS = 60;
const SAMPLES = 12;

/**
 * Fan curve from datasheet or measured points, each at its own speed, in any order, brought to one speed by the similarity
 * laws (`Q ∝ n`, `Δp ∝ n²`).
 *
 * A free delivery alone or a shut-off pressure alone scales its own axis; both ends keep the default shape between them. One
 * point between the ends moves the computed curve along its own system line; beside a given end it sets the other one. Two
 * points between the ends and more are followed and completed towards the axes by the default shape through the nearest ones.
 * A fan always has pressure: a point without flow and pressure says nothing.
 *
 * @param points at least one, rpm > 0, flow and pressure ≥ 0
 * @param computed the curve from coefficients, at the reference speed
 * Source: AMCA 201 / ISO 5801 similarity laws; the shape between the ends is common practice, no source.
 */
export function fanCurveFromPoints(points: readonly FanPoint[], computed: FanCurve): FanCurve {
  const n = computed.referenceRpm;
  const stall = computed.pressurePa[0]!;
  const free = computed.flowM3s[computed.flowM3s.length - 1]!;
  const at = points
    .map((p) => ({ q: (p.flowM3s * n) / p.rpm, p: p.pressurePa * (n / p.rpm) ** 2 }))
    .map(({ q, p }) => ({ q: q > NONE * free ? q : 0, p: p > NONE * stall ? p : 0 }));
  const p0 = mean(at.filter((x) => x.q === 0 && x.p > 0).map((x) => x.p));
  const q0 = mean(at.filter((x) => x.p === 0 && x.q > 0).map((x) => x.q));
  const shape = (x: number) => pressureAtFlow(computed, x * free) / stall;
  const inner = falling(at.filter((x) => x.q > 0 && x.p > 0));
  if (inner.length === 0) return scaled(computed, (q0 ?? free) / free, (p0 ?? stall) / stall);
  if (inner.length === 1 && (p0 === null || q0 === null)) {
    const [{ q, p }] = inner as [Point];
    if (p0 === null && q0 === null) {
      const speed = onSystemLine(computed, q, p);
      return scaled(computed, speed, speed * speed);
    }
    const full = p0 ?? p / Math.max(shape(Math.min(q / q0!, 0.999)), 0.01);
    const open = q0 ?? q / inverse(shape, Math.min(p / full, FULLEST));
    return scaled(computed, Math.max(open, q) / free, Math.max(full, p) / stall);
  }
  const first = inner[0]!;
  const last = inner[inner.length - 1]!;
  // the default shape through the outermost points tells the ends that nobody gave
  const through = flowThrough(shape, first, last);
  const full = Math.max(p0 ?? first.p / shape(first.q / through), first.p * 1.0001);
  const open = Math.max(q0 ?? through, last.q * 1.0001);
  const flowM3s: number[] = [];
  const pressurePa: number[] = [];
  const add = (q: number, p: number) => {
    flowM3s.push(q);
    pressurePa.push(p);
  };
  const leftQ0 = first.q / inverse(shape, Math.min(first.p / full, FULLEST));
  for (let i = 0; i < SAMPLES; i++) {
    const q = (first.q * i) / SAMPLES;
    add(q, Math.max(first.p, full * shape(q / leftQ0)));
  }
  for (const x of inner) add(x.q, x.p);
  const rightP0 = last.p / Math.max(shape(last.q / open), 1e-3);
  for (let i = 1; i <= SAMPLES; i++) {
    const q = last.q + ((open - last.q) * i) / SAMPLES;
    add(q, i === SAMPLES ? 0 : Math.min(last.p, rightP0 * shape(q / open)));
  }
  return { referenceRpm: n, flowM3s, pressurePa };
}

interface Point {
  q: number;
  p: number;
}

function mean(values: readonly number[]): number | null {
  return values.length ? values.reduce((a, b) => a + b, 0) / values.length : null;
}

/** By flow, each flow once; a scatter of readings may rise a little, the running minimum keeps the curve falling. */
function falling(points: readonly Point[]): Point[] {
  const out: Point[] = [];
  for (const x of [...points].sort((a, b) => a.q - b.q)) {
    const before = out[out.length - 1];
    const p = Math.min(x.p, before?.p ?? Infinity);
    if (before && x.q - before.q < 1e-9 * x.q) before.p = p;
    else out.push({ q: x.q, p });
  }
  return out;
}

function scaled(curve: FanCurve, flow: number, pressure: number): FanCurve {
  return {
    referenceRpm: curve.referenceRpm,
    flowM3s: curve.flowM3s.map((q) => q * flow),
    pressurePa: curve.pressurePa.map((p) => p * pressure),
  };
}

/** Where a falling function of 0 to 1 has a value, kept off both ends. */
function inverse(shape: (x: number) => number, value: number): number {
  let lo = 0;
  let hi = 1;
  for (let i = 0; i < BISECTIONS; i++) {
    const mid = 0.5 * (lo + hi);
    if (shape(mid) > value) lo = mid;
    else hi = mid;
  }
  return Math.min(0.9999, Math.max(0.02, lo));
}

/** Speed over the reference at which the computed curve passes through a point: it moves along the system line there. */
function onSystemLine(computed: FanCurve, q: number, p: number): number {
  let lo = 1e-3;
  let hi = 1e3;
  for (let i = 0; i < BISECTIONS; i++) {
    const mid = Math.sqrt(lo * hi);
    if (pressureAtFlow(computed, q / mid) * mid * mid < p) lo = mid;
    else hi = mid;
  }
  return Math.sqrt(lo * hi);
}

/** Free delivery of the default shape that passes through two points, within bounds where they hardly fall. */
function flowThrough(shape: (x: number) => number, first: Point, last: Point): number {
  const wanted = last.p / first.p;
  let lo = last.q * 1.0001;
  let hi = last.q * FURTHEST;
  for (let i = 0; i < BISECTIONS; i++) {
    const mid = 0.5 * (lo + hi);
    if (shape(last.q / mid) / Math.max(shape(first.q / mid), 1e-9) < wanted) lo = mid;
    else hi = mid;
  }
  return 0.5 * (lo + hi);
}
