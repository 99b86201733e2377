import { KNOWN_THINGS, REFERENCE_POINTS, type KnownThing } from '@zugluft/core/photo/knownThings';
import { POINTS_OF, type MarkKind } from '@zugluft/core/photo/marksFile';
import type { PointPx } from '@zugluft/core/photo/point';

/** What is being marked: a mark of a kind, or something of known size. */
export type Tool = { as: 'mark'; kind: MarkKind } | { as: 'reference'; thing: KnownThing };

/** A mark or reference that is in hand, and which of its points; null: the whole. */
export interface Held {
  list: 'marks' | 'references';
  index: number;
  point: number | null;
}

/** The hand on a photo: where its cursor is, what it is marking, what it holds. */
export interface Marking {
  cursor: PointPx;
  tool: Tool | null;
  /** Of what is being marked. */
  points: PointPx[];
  held: Held | null;
}

export const startOf = (size: readonly [number, number]): Marking => ({
  cursor: [size[0] / 2, size[1] / 2],
  tool: null,
  points: [],
  held: null,
});

/** Fewest and most points of what is being marked. */
export const pointsWanted = (tool: Tool): readonly [number, number] =>
  tool.as === 'mark' ? POINTS_OF[tool.kind] : REFERENCE_POINTS[tool.thing.kind];

/** Takes up a tool; taken up again it is put down. */
export function takeTool(m: Marking, tool: Tool): Marking {
  const same =
    m.tool?.as === tool.as &&
    (tool.as === 'mark'
      ? (m.tool as typeof tool).kind === tool.kind
      : (m.tool as typeof tool).thing === tool.thing);
  return { ...m, tool: same ? null : tool, points: [], held: null };
}

/** A point where the hand is. What has all points that it can have is done. */
export function placePoint(
  m: Marking,
  at: PointPx = m.cursor,
): { marking: Marking; done: readonly PointPx[] | null } {
  if (!m.tool) return { marking: { ...m, cursor: at }, done: null };
  const points = [...m.points, at];
  const [, most] = pointsWanted(m.tool);
  if (points.length < most) return { marking: { ...m, cursor: at, points }, done: null };
  return { marking: { ...m, cursor: at, points: [] }, done: points };
}

/** Ends what may have any number of points; null where there are too few. */
export function finish(m: Marking): { marking: Marking; done: readonly PointPx[] } | null {
  if (!m.tool || m.points.length < pointsWanted(m.tool)[0]) return null;
  return { marking: { ...m, points: [] }, done: m.points };
}

/** Takes the last point back, else puts the tool or what is held down. */
export function stepBack(m: Marking): Marking {
  if (m.points.length > 0) return { ...m, points: m.points.slice(0, -1) };
  return letGo(m);
}

/** Puts down what is in hand: points first, then the tool, then what is held. */
export function letGo(m: Marking): Marking {
  if (m.points.length > 0) return { ...m, points: [] };
  return m.tool ? { ...m, tool: null } : { ...m, held: null };
}

/** Keeps a place in the picture. */
export const within = ([x, y]: PointPx, [w, h]: readonly [number, number]): PointPx => [
  Math.min(w, Math.max(0, x)),
  Math.min(h, Math.max(0, y)),
];

/** How far an arrow goes: a pixel, with Shift ten, with Ctrl a hundred. */
export const PIXEL = 1;
export const TEN = 10;
export const HUNDRED = 100;

/** Keys of the photo, as far as they take up a tool for a mark. */
export const MARK_KEYS: Readonly<Record<string, MarkKind>> = {
  l: 'length',
  w: 'strip',
  c: 'circle',
  p: 'path',
  f: 'fins',
  o: 'openShare',
  a: 'area',
  n: 'angle',
};

/** What kinds of marks are called, and what they want to be clicked. */
export const MARK_WORDS: Readonly<Record<MarkKind, { name: string; ask: string }>> = {
  length: { name: 'length', ask: 'one end, then the other' },
  strip: {
    name: 'width',
    ask: 'a rough click at one edge, then at the other: the edges are found',
  },
  circle: { name: 'circle', ask: 'three points on the rim or more' },
  path: { name: 'path', ask: 'along the middle of the pipe, from end to end' },
  fins: { name: 'fins', ask: 'a line right across, both ends beyond the outermost fins' },
  openShare: { name: 'open share', ask: 'corners of a part of the mesh' },
  area: { name: 'area', ask: 'its corners; of four the sides are told too' },
  angle: { name: 'angle', ask: 'one arm, the corner, the other arm' },
};

const REFERENCE_ASK: Record<KnownThing['kind'], string> = {
  rectangle: 'its four corners, on round; width is from the first to the second',
  length: 'one end, then the other',
  circle: 'three points on its rim or more',
  straight: 'three points along it or more, far out in the picture',
  lens: '',
};

/** What is to be clicked next, in words. */
export function askOf({ tool, points }: Marking): string {
  if (!tool) return '';
  const [least, most] = pointsWanted(tool);
  const name = tool.as === 'mark' ? MARK_WORDS[tool.kind].name : tool.thing.name;
  const ask =
    tool.as === 'mark'
      ? MARK_WORDS[tool.kind].ask
      : tool.thing.what === 'shell'
        ? 'its four corners, from the rear one at the user’s right to the rear one at the user’s left and on round'
        : REFERENCE_ASK[tool.thing.kind];
  const count =
    least === most
      ? `${points.length} of ${most}`
      : `${points.length}${points.length >= least ? '' : ` of at least ${least}`}`;
  return `${name}: ${ask} · ${count}`;
}

/** The next in a list that goes round; the first or last where none was held. */
export function nextHeld(
  { held }: Marking,
  counts: { references: number; marks: number },
  by: 1 | -1,
): Held | null {
  const all = [
    ...Array.from({ length: counts.references }, (_, index) => ({
      list: 'references' as const,
      index,
    })),
    ...Array.from({ length: counts.marks }, (_, index) => ({ list: 'marks' as const, index })),
  ];
  if (all.length === 0) return null;
  const at = held ? all.findIndex((x) => x.list === held.list && x.index === held.index) : -1;
  const next = at < 0 ? (by > 0 ? 0 : all.length - 1) : (at + by + all.length) % all.length;
  return { ...all[next]!, point: null };
}

/** A thing by the word that is kept with a reference. */
export const thingOf = (what: string): KnownThing | undefined =>
  KNOWN_THINGS.find((t) => t.what === what);
