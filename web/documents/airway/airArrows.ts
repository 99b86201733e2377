import type { PlacedPart } from '@zugluft/core/airway/placeParts';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';

/** An arrow of air, from the user's left and the rear edge, mm. */
export interface AirArrow {
  key: string;
  x1: number;
  y1: number;
  x2: number;
  y2: number;
}

/** Air of one arrow, L/s. */
export const LPS_PER_ARROW = 0.25;
const MAX_ARROWS = 10;
const OUT_MM = 14;
const IN_MM = 9;

/** How many arrows stand for a flow; one where it is not known. */
export const arrowsFor = (lps: number | undefined): number =>
  lps === undefined ? 1 : Math.min(MAX_ARROWS, Math.max(1, Math.round(lps / LPS_PER_ARROW)));

/**
 * Air through a machine as arrows whose number follows the flow: from vents into fans, from fans to stacks, out of the vents behind
 * stacks.
 *
 * @param byId parts where they lie
 * @param flowOf flow of a fan, L/s
 */
export function airArrows(
  record: CaseRecord,
  byId: ReadonlyMap<string, PlacedPart>,
  flowOf: (fan: string) => number | undefined,
): AirArrow[] {
  const out: AirArrow[] = [];
  const stacks = record.finStacks ?? [];
  const throughStack = (id: string) => {
    const flows = (stacks.find((s) => s.id === id)?.fans ?? []).map((fan) => {
      const flow = flowOf(fan);
      const served = stacks.filter((s) => s.fans?.includes(fan)).length;
      return flow === undefined ? undefined : flow / Math.max(1, served);
    });
    const known = flows.filter((f) => f !== undefined);
    return known.length ? known.reduce((a, b) => a + b, 0) : undefined;
  };
  for (const vent of record.vents ?? []) {
    const v = byId.get(vent.id);
    if (!v) continue;
    if (vent.flow === 'intake') {
      for (const id of vent.fans ?? []) {
        const fan = byId.get(id);
        if (fan) out.push(...into(v, fan, arrowsFor(flowOf(id))));
      }
    }
    if (vent.flow === 'exhaust') {
      const lps = (vent.finStacks ?? []).map(throughStack).filter((x) => x !== undefined);
      const sum = lps.length ? lps.reduce((a, b) => a + b, 0) : undefined;
      const stack = byId.get(vent.finStacks?.[0] ?? '');
      if (stack) out.push(...outOf(v, stack, arrowsFor(sum)));
    }
  }
  for (const stack of stacks) {
    const s = byId.get(stack.id);
    for (const id of stack.fans ?? []) {
      const fan = byId.get(id);
      if (s && fan) out.push(...through(fan, s, arrowsFor(throughStack(stack.id))));
    }
  }
  return out;
}

/** Shares of a width at which so many arrows stand. */
const places = (n: number) => Array.from({ length: n }, (_, i) => (i + 0.5) / n - 0.5);

/** From all sides into the impeller, where the vent lies over it; else from the vent. */
function into(vent: PlacedPart, fan: PlacedPart, n: number): AirArrow[] {
  const far = Math.hypot(vent.xMm - fan.xMm, vent.yMm - fan.yMm);
  const r = fan.widthMm / 2;
  const key = (i: number) => `${vent.id}>${fan.id} ${i}`;
  if (far < r) {
    return places(n).map((share, i) => {
      const angle = 2 * Math.PI * share + Math.PI / 2;
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      return {
        key: key(i),
        x1: fan.xMm + c * (r + 2),
        y1: fan.yMm + s * (r + 2),
        x2: fan.xMm + c * (r + 2 - IN_MM),
        y2: fan.yMm + s * (r + 2 - IN_MM),
      };
    });
  }
  return beside(key, vent, fan, n, Math.min(vent.widthMm, fan.widthMm) * 0.8, far - r);
}

/** Between the impeller's rim and the face of the stack. */
function through(fan: PlacedPart, stack: PlacedPart, n: number): AirArrow[] {
  const wide = Math.max(stack.widthMm, stack.depthMm);
  const far = Math.hypot(stack.xMm - fan.xMm, stack.yMm - fan.yMm);
  const depth = Math.min(stack.widthMm, stack.depthMm) / 2;
  const gap = far - fan.widthMm / 2 - depth;
  if (gap < 3) return [];
  return beside(
    (i) => `${fan.id}>${stack.id} ${i}`,
    fan,
    stack,
    n,
    Math.min(wide, fan.widthMm) * 0.8,
    gap,
    fan.widthMm / 2,
  );
}

/** Arrows side by side along the line between two parts. */
function beside(
  key: (i: number) => string,
  from: PlacedPart,
  to: PlacedPart,
  n: number,
  widthMm: number,
  lengthMm: number,
  startMm = 0,
): AirArrow[] {
  const far = Math.hypot(to.xMm - from.xMm, to.yMm - from.yMm);
  if (far < 1 || lengthMm < 2) return [];
  const [ux, uy] = [(to.xMm - from.xMm) / far, (to.yMm - from.yMm) / far];
  return places(n).map((share, i) => {
    const [ox, oy] = [-uy * share * widthMm, ux * share * widthMm];
    const end = startMm + lengthMm;
    return {
      key: key(i),
      x1: from.xMm + ux * startMm + ox,
      y1: from.yMm + uy * startMm + oy,
      x2: from.xMm + ux * end + ox,
      y2: from.yMm + uy * end + oy,
    };
  });
}

/** Out of the vent, away from the stack behind it. */
function outOf(vent: PlacedPart, stack: PlacedPart, n: number): AirArrow[] {
  const [dx, dy] = [vent.xMm - stack.xMm, vent.yMm - stack.yMm];
  const flat = Math.abs(dy) >= Math.abs(dx);
  const [ux, uy] = flat ? [0, dy > 0 ? 1 : -1] : [dx > 0 ? 1 : -1, 0];
  const wide = flat ? vent.widthMm : vent.depthMm;
  return places(n).map((share, i) => {
    const x = vent.xMm + (flat ? share * wide : 0);
    const y = vent.yMm + (flat ? 0 : share * wide);
    return {
      key: `${stack.id}>${vent.id} ${i}`,
      x1: x,
      y1: y,
      x2: x + ux * OUT_MM,
      y2: y + uy * OUT_MM,
    };
  });
}
