import type { MachineModel } from '../network/networkModel';
import { solveInto } from '../network/steadyState';
import { carryAmong, carryOnRay, isRunning, type CarryMemory } from './carry';
import type { Carried } from './carried';
import { controlGroups, type FanState } from './fanStates';
import { type Binding, type HalfPlane, type Ray } from './limitTypes';
import { limitPlanes } from './limits';
import { clipPolygon, crossing } from './polygon';

/** A corner of the envelope; `edge` binds from here to the next corner, null at the last. */
export interface EnvelopeCorner {
  cpuWatts: number;
  gpuWatts: number;
  edge: Binding | null;
}

/** An edge may be off by this share in its middle before a corner is inserted. */
const EDGE_TOLERANCE = 0.003;
const DEEPEST = 5;
const CPU: Ray = { cpu: 1, gpu: 0 };
const GPU: Ray = { cpu: 0, gpu: 1 };

function rayThrough(cpuW: number, gpuW: number): Ray {
  const sum = cpuW + gpuW;
  return { cpu: cpuW / sum, gpu: gpuW / sum };
}

/**
 * The region of sustainable (CPU, GPU) watts at a cap, as corners from the GPU axis to the CPU axis.
 *
 * A first polygon comes from the half-planes at the properties of one point. Each edge's middle is then solved at its own
 * properties; the limits found there are crossed for better corners, each corner is solved at its own properties, and corners
 * are inserted until no edge is more than 0.5 % off in its middle.
 *
 * @param model the machine
 * @param states the fan states that the cap's readouts chose, the loudest among them
 * @param memory start values
 * @param onAxes both axis points, and a point between where one is already known
 */
export function traceEnvelope(
  model: MachineModel,
  states: readonly FanState[],
  memory: CarryMemory,
  onAxes: { cpu: Carried | null; gpu: Carried | null; between?: Carried | undefined },
): EnvelopeCorner[] {
  const { cpu, gpu } = onAxes;
  if (!cpu || !gpu) {
    return [{ cpuWatts: cpu?.point.watts ?? 0, gpuWatts: gpu?.point.watts ?? 0, edge: null }];
  }
  const apart = controlGroups(model.data).length > 1 && isRunning(states[0]!);
  const seen: Carried[] = [];
  const carry = (ray: Ray) => {
    const found = apart
      ? carryOnRay(model, states[0]!, ray, null, memory)
      : carryAmong(model, states, ray, null, memory);
    seen.push(found);
    return found;
  };
  const middle =
    onAxes.between ??
    carry(rayThrough(Math.max(cpu.point.watts, 1e-9), Math.max(gpu.point.watts, 1e-9)));
  seen.push(middle);
  if (middle.point.watts < 1e-6) return [{ cpuWatts: 0, gpuWatts: 0, edge: null }];
  const work = isRunning(middle.state) ? memory.on : memory.off;
  solveInto(model, middle.state.rpms, work);
  const rough = clipPolygon(limitPlanes(model, work, null));
  // the limits met at the rough edges' middles, from the GPU axis to the CPU axis, each once in a row
  const met: { carried: Carried; plane: HalfPlane }[] = [];
  const meet = (carried: Carried) => {
    const last = met[met.length - 1];
    if (last && sameLimit(last.plane, carried.point.plane)) return;
    met.push({ carried, plane: carried.point.plane });
  };
  meet(gpu);
  for (let i = 0; i + 1 < rough.length; i++) {
    const a = rough[i]!;
    const b = rough[i + 1]!;
    if (a.cpuW + a.gpuW + b.cpuW + b.gpuW > 0) {
      meet(carry(rayThrough(a.cpuW + b.cpuW, a.gpuW + b.gpuW)));
    }
  }
  meet(cpu);
  const points: Carried[] = [gpu];
  for (let i = 0; i + 1 < met.length; i++) {
    const c = crossing(met[i]!.plane, met[i + 1]!.plane);
    if (c && c.cpuW > 0 && c.gpuW > 0) points.push(carry(rayThrough(c.cpuW, c.gpuW)));
    else if (i > 0) points.push(met[i]!.carried);
  }
  points.push(cpu);
  points.sort((a, b) => angle(a) - angle(b));
  const corners: EnvelopeCorner[] = [];
  for (let i = 0; i + 1 < points.length; i++) {
    const a = points[i]!;
    const b = points[i + 1]!;
    if (angle(b) - angle(a) < 1e-9) continue;
    refine(a, b, 0, carry, seen, corners);
  }
  corners.push({ cpuWatts: cpu.point.watts, gpuWatts: 0, edge: null });
  return mergeStraight(corners);
}

function angle(c: Carried): number {
  return Math.atan2(c.point.ray.cpu, c.point.ray.gpu);
}

function sameLimit(a: HalfPlane, b: HalfPlane): boolean {
  if (sameBinding(a.binding, b.binding)) {
    const det = a.cpu * b.gpu - a.gpu * b.cpu;
    return Math.abs(det) < 0.02 * Math.hypot(a.cpu, a.gpu) * Math.hypot(b.cpu, b.gpu);
  }
  return false;
}

export function sameBinding(a: Binding | null, b: Binding | null): boolean {
  return a?.limit === b?.limit && a?.part === b?.part && a?.kind === b?.kind;
}

/** Watts at which a ray meets the straight line through two points. */
function chordWatts(a: Carried, b: Carried, ray: Ray): number {
  const { cpuW: ax, gpuW: ay } = a.point;
  const { cpuW: bx, gpuW: by } = b.point;
  return (ax * by - bx * ay) / (ray.cpu * (by - ay) - ray.gpu * (bx - ax));
}

/** A point solved already somewhere in the inner half of an edge, so that its middle need not be. */
function solvedInside(a: Carried, b: Carried, seen: readonly Carried[]): Carried | undefined {
  const from = angle(a);
  const width = angle(b) - from;
  return seen.find((c) => Math.abs((angle(c) - from) / width - 0.5) < 0.25);
}

function refine(
  a: Carried,
  b: Carried,
  depth: number,
  carry: (ray: Ray) => Carried,
  seen: readonly Carried[],
  out: EnvelopeCorner[],
): void {
  const pa = a.point;
  const pb = b.point;
  const mid = solvedInside(a, b, seen) ?? carry(rayThrough(pa.cpuW + pb.cpuW, pa.gpuW + pb.gpuW));
  const chord = chordWatts(a, b, mid.point.ray);
  const off = Math.abs(mid.point.watts - chord) / Math.max(mid.point.watts, 1e-9);
  if (off > EDGE_TOLERANCE && depth < DEEPEST && chord > 1e-6) {
    refine(a, mid, depth + 1, carry, seen, out);
    refine(mid, b, depth + 1, carry, seen, out);
    return;
  }
  out.push({ cpuWatts: pa.cpuW, gpuWatts: pa.gpuW, edge: mid.point.binding });
}

/** Drops corners between edges of one name that lie on one line. */
function mergeStraight(corners: EnvelopeCorner[]): EnvelopeCorner[] {
  const out: EnvelopeCorner[] = [];
  corners.forEach((c, i) => {
    const before = out[out.length - 1];
    const after = corners[i + 1];
    if (before && after && sameBinding(before.edge, c.edge)) {
      const ax = after.cpuWatts - before.cpuWatts;
      const ay = after.gpuWatts - before.gpuWatts;
      const bend = Math.abs(
        ax * (c.gpuWatts - before.gpuWatts) - ay * (c.cpuWatts - before.cpuWatts),
      );
      if (bend / Math.max(1e-12, ax * ax + ay * ay) < 5e-4) return;
    }
    out.push(c);
  });
  return out;
}

export { CPU as CPU_RAY, GPU as GPU_RAY };
