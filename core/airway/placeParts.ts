import { figureValue, type Figure } from '../record/figure';
import type { CaseRecord } from '../record/recordSchema';

/** Kinds of parts that the plan shows. */
export type AirwayKind = 'die' | 'plate' | 'stack' | 'fan' | 'vent';

/** A part on the plan: its middle from the user's left and from the rear edge, and its size, mm. */
export interface PlacedPart {
  id: string;
  kind: AirwayKind;
  /** List and place in the record. */
  list: 'dies' | 'plates' | 'finStacks' | 'fans' | 'vents';
  index: number;
  xMm: number;
  yMm: number;
  widthMm: number;
  depthMm: number;
  /** Somebody put it there. */
  kept: boolean;
}

export interface AirwayPlan {
  widthMm: number;
  depthMm: number;
  parts: PlacedPart[];
  /** Heat pipes as the parts they pass, in order; parts that do not exist are left out. */
  pipes: { id: string; index: number; count: number; through: string[] }[];
}

const SHELL_MM = { width: 355, depth: 245 };
/** From the rear edge, as shares of the shell's depth. */
const ROW = { stack: 0.055, fan: 0.27, die: 0.36, frontFan: 0.56 };

const v = (figure: Figure | undefined, otherwise: number): number => {
  const value = figureValue(figure);
  return typeof value === 'number' && Number.isFinite(value) && value > 0 ? value : otherwise;
};

/** −1 for what is called left, 1 for right, 0 for neither. */
function sideOf(id: string): number {
  if (/left/i.test(id)) return -1;
  return /right/i.test(id) ? 1 : 0;
}

/** Spreads parts over a width: those called left on the left, right on the right, the others between them in order. */
function spread(ids: readonly string[], widthMm: number): number[] {
  const order = ids
    .map((id, i) => ({ i, side: sideOf(id) }))
    .sort((a, b) => a.side - b.side || a.i - b.i);
  const out = new Array<number>(ids.length);
  order.forEach(({ i }, k) => {
    // one alone stands where its name says, else left of the middle as most do
    const share =
      ids.length === 1
        ? 0.5 + 0.32 * (sideOf(ids[0]!) || -1)
        : 0.16 + (0.68 * k) / (ids.length - 1);
    out[i] = share * widthMm;
  });
  return out;
}

/**
 * Where the parts of a machine lie, seen from below: as somebody put them (`airway.places` in the record), else by what feeds
 * what: fans in the rear corners, stacks behind them, vents at their edges over what they serve, dies side by side in front of
 * the fans with their plates around them.
 *
 * @param record a record, complete or not
 */
export function placeParts(record: CaseRecord): AirwayPlan {
  const widthMm = v(record.shell?.widthMm, SHELL_MM.width);
  const depthMm = v(record.shell?.depthMm, SHELL_MM.depth);
  const places = record.airway?.places ?? {};
  const parts: PlacedPart[] = [];
  const at = new Map<string, { xMm: number; yMm: number }>();
  const add = (part: Omit<PlacedPart, 'kept'>) => {
    const own = places[part.id];
    const place = own
      ? { xMm: v(own.xMm, 0), yMm: v(own.yMm, 0) }
      : { xMm: part.xMm, yMm: part.yMm };
    const xMm = Math.min(widthMm, Math.max(0, place.xMm));
    const yMm = Math.min(depthMm, Math.max(0, place.yMm));
    at.set(part.id, { xMm, yMm });
    parts.push({ ...part, xMm, yMm, kept: own !== undefined });
  };
  const mean = (ids: readonly string[] | undefined, axis: 'xMm' | 'yMm'): number | undefined => {
    const known = (ids ?? []).flatMap((id) => at.get(id)?.[axis] ?? []);
    return known.length ? known.reduce((a, b) => a + b, 0) / known.length : undefined;
  };

  const fans = record.fans ?? [];
  // those called front stand in a row of their own
  const front = (id: string) => /front/i.test(id);
  for (const [row, share] of [
    [fans.filter((f) => !front(f.id)), ROW.fan],
    [fans.filter((f) => front(f.id)), ROW.frontFan],
  ] as const) {
    const fanX = spread(
      row.map((f) => f.id),
      widthMm,
    );
    row.forEach((f, i) => {
      const d = v(f.impellerDiameterMm, 50);
      add({
        id: f.id,
        kind: 'fan',
        list: 'fans',
        index: fans.indexOf(f),
        xMm: fanX[i]!,
        yMm: share * depthMm,
        widthMm: d,
        depthMm: d,
      });
    });
  }

  const stacks = record.finStacks ?? [];
  const looseX = spread(
    stacks.map((s) => s.id),
    widthMm,
  );
  const served = new Map<string, number>();
  stacks.forEach((s, index) => {
    const fan = s.fans?.find((id) => at.has(id));
    const nth = fan === undefined ? 0 : (served.get(fan) ?? 0);
    if (fan !== undefined) served.set(fan, nth + 1);
    const width = v(s.widthMm, 60);
    const depth = v(s.depthMm, 15);
    const fanAt = fan === undefined ? undefined : at.get(fan)!;
    const whole = { id: s.id, kind: 'stack', list: 'finStacks', index } as const;
    const exhaust = (record.vents ?? []).find(
      (x) => x.flow === 'exhaust' && x.finStacks?.includes(s.id),
    );
    const beside = exhaust?.side === 'left' || exhaust?.side === 'right';
    if (beside || (nth > 0 && fanAt)) {
      // behind a vent at the side, or the second stack of one fan: along the side
      const left = beside ? exhaust.side === 'left' : fanAt!.xMm < widthMm / 2;
      const xMm = left ? depth / 2 + 2 : widthMm - depth / 2 - 2;
      const yMm = fanAt?.yMm ?? ROW.fan * depthMm;
      add({ ...whole, xMm, yMm, widthMm: depth, depthMm: width });
    } else {
      const xMm = mean(s.fans, 'xMm') ?? mean(s.plates, 'xMm') ?? looseX[index]!;
      add({
        ...whole,
        xMm,
        yMm: Math.max(depth / 2 + 2, ROW.stack * depthMm),
        widthMm: width,
        depthMm: depth,
      });
    }
  });

  const dies = record.dies ?? [];
  dies.forEach((d, index) => {
    const share = dies.length === 1 ? 0.5 : 0.4 + (0.2 * index) / (dies.length - 1);
    const size = { widthMm: v(d.widthMm, 12), depthMm: v(d.lengthMm, 14) };
    add({
      id: d.id,
      kind: 'die',
      list: 'dies',
      index,
      xMm: share * widthMm,
      yMm: ROW.die * depthMm,
      ...size,
    });
  });
  (record.plates ?? []).forEach((p, index) => {
    const size = { widthMm: v(p.widthMm, 40), depthMm: v(p.lengthMm, 40) };
    const xMm = mean(p.dies, 'xMm') ?? widthMm / 2;
    const yMm = mean(p.dies, 'yMm') ?? 0.6 * depthMm;
    add({ id: p.id, kind: 'plate', list: 'plates', index, xMm, yMm, ...size });
  });

  const vents = record.vents ?? [];
  const ventX = spread(
    vents.map((x) => x.id),
    widthMm,
  );
  vents.forEach((x, index) => {
    const serves = [...(x.fans ?? []), ...(x.finStacks ?? [])];
    const xServed = mean(serves, 'xMm') ?? ventX[index]!;
    const yServed = mean(serves, 'yMm') ?? ROW.fan * depthMm;
    const long = v(x.widthMm, 60);
    const short = v(x.lengthMm, 10);
    const whole = { id: x.id, kind: 'vent', list: 'vents', index } as const;
    const edge = 3;
    if (x.side === 'rear') add({ ...whole, xMm: xServed, yMm: 0, widthMm: long, depthMm: edge });
    else if (x.side === 'left')
      add({ ...whole, xMm: 0, yMm: yServed, widthMm: edge, depthMm: long });
    else if (x.side === 'right')
      add({ ...whole, xMm: widthMm, yMm: yServed, widthMm: edge, depthMm: long });
    else add({ ...whole, xMm: xServed, yMm: yServed, widthMm: long, depthMm: short });
  });

  const pipes = (record.heatPipes ?? []).map((p, index) => ({
    id: p.id,
    index,
    count: v(p.count, 1),
    through: (p.along ?? []).map((a) => a.part).filter((id) => at.has(id)),
  }));
  return { widthMm, depthMm, parts, pipes };
}
