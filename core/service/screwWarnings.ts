import {
  isPlaced,
  type LoggedPart,
  type OpenUpLog,
  type PlacedScrew,
  type Screw,
  type StepKind,
} from './openUpLog';
import { stepKindOf } from './stepKinds';

export type ScrewWarning =
  | { kind: 'two-lengths'; screws: string[]; lengthsMm: number[] }
  | { kind: 'odd-near'; screw: string; part: string }
  | { kind: 'mirror'; screw: string; xMm: number; yMm: number; layer: string };

/** Screws stand in one row when they are off by no more than this, mm. */
const ROW_MM = 6;
/** Lengths that differ by no more are one length measured twice. */
const SAME_LENGTH_MM = 0.3;
/** Within this of a touchpad or battery a longer screw can press on it. */
const NEAR_MM = 15;
/** A hole lies where its mirror has one when it is off by no more than this. */
const MIRROR_MM = 8;

/** Steps whose screws hold something inside the machine. */
const INSIDE: ReadonlySet<StepKind> = new Set([
  'sink',
  'fan-out',
  'card',
  'board',
  'jack',
  'battery-out',
  'battery',
]);

/** A touchpad or a battery, by its kind or its name. */
const mayBePressed = ({ id, name, kind }: LoggedPart) =>
  kind === 'battery' || kind === 'touchpad' || /touchpad|battery/i.test(`${id} ${name}`);

/**
 * What looks wrong on the screw map: two lengths in one row, an odd one near touchpad or battery, a side that does not match its
 * mirror, so that a hidden screw may not have been found. A hole that was empty on arrival counts as found.
 *
 * @param log the log of an opening
 * Source: common practice, no source.
 */
export function screwWarnings(log: OpenUpLog): ScrewWarning[] {
  const lengthOf = (s: Screw) => log.groups.find((g) => g.id === s.group)?.lengthMm;
  const out: ScrewWarning[] = [];
  const within = new Set(
    log.steps.filter((s) => INSIDE.has(stepKindOf(s))).flatMap((s) => s.screws),
  );
  for (const layer of log.layers) {
    const mine = log.screws.filter(isPlaced).filter((s) => s.layer === layer.id);
    for (const row of rows(mine)) {
      const known = row.filter((s) => lengthOf(s) !== undefined);
      const lengths = distinct(known.map((s) => lengthOf(s)!));
      if (known.length < 3 || lengths.length < 2) continue;
      out.push({ kind: 'two-lengths', screws: known.map((s) => s.id), lengthsMm: lengths });
    }
    const usual = median(mine.map(lengthOf).filter((l) => l !== undefined));
    for (const s of mine) {
      const length = lengthOf(s);
      if (length === undefined || usual === undefined || length <= usual + SAME_LENGTH_MM) continue;
      for (const p of log.parts) {
        if (p.layer !== layer.id || !p.place || !mayBePressed(p)) {
          continue;
        }
        const dx = Math.max(p.place.xMm - s.xMm, 0, s.xMm - p.place.xMm - p.place.widthMm);
        const dy = Math.max(p.place.yMm - s.yMm, 0, s.yMm - p.place.yMm - p.place.depthMm);
        if (Math.hypot(dx, dy) <= NEAR_MM) out.push({ kind: 'odd-near', screw: s.id, part: p.id });
      }
    }
    if (layer.widthMm === undefined) continue;
    // inside, where parts lie off centre, a side says nothing of the other
    for (const s of mine.filter((x) => !within.has(x.id))) {
      const xMm = layer.widthMm - s.xMm;
      if (Math.abs(xMm - s.xMm) <= 2 * MIRROR_MM) continue;
      if (mine.some((m) => Math.hypot(m.xMm - xMm, m.yMm - s.yMm) <= MIRROR_MM)) continue;
      out.push({ kind: 'mirror', screw: s.id, xMm, yMm: s.yMm, layer: layer.id });
    }
  }
  return out;
}

/** Screws by rows across; from rear to front lengths may well differ, long behind and short in front. */
function rows(screws: readonly PlacedScrew[]): PlacedScrew[][] {
  const out: PlacedScrew[][] = [];
  for (const s of [...screws].sort((a, b) => a.yMm - b.yMm)) {
    const last = out.at(-1);
    if (last && s.yMm - last[0]!.yMm <= ROW_MM) last.push(s);
    else out.push([s]);
  }
  return out.map((row) => row.sort((a, b) => a.xMm - b.xMm));
}

function distinct(lengths: readonly number[]): number[] {
  const out: number[] = [];
  for (const l of [...lengths].sort((a, b) => a - b)) {
    if (!out.length || l - out.at(-1)! > SAME_LENGTH_MM) out.push(l);
  }
  return out;
}

function median(values: readonly number[]): number | undefined {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[(sorted.length - 1) >> 1];
}
