import { figureValue, type Figure, type FigureDetail } from '../record/figure';
import { getAt } from '../record/plainJson';
import type { PassesOfPipe, PipePass } from './passesOfMarks';

/** What a pipe passes by its course in a photo, beside what its record says. */
export interface RenewedPasses {
  pipe: string;
  /** Its place in the list. */
  index: number;
  mark: string;
  before: Partial<PipePass>[];
  after: PipePass[];
}

/** Positions that differ by no more are the same, mm. */
const SAME_MM = 2;

/**
 * Pipes that pass something else, or elsewhere, than their record says. Along a course that was drawn from the other end they are told
 * from the end that the record begins at.
 *
 * @param record as it stands
 */
export function renewedPasses(
  record: unknown,
  all: readonly PassesOfPipe[],
  lengthMm: (mark: string) => number | null,
): RenewedPasses[] {
  const pipes = getAt(record, ['heatPipes']);
  if (!Array.isArray(pipes)) return [];
  return all.flatMap(({ pipe, mark, passes }) => {
    const index = pipes.findIndex((p) => getAt(p, ['id']) === pipe);
    if (index < 0) return [];
    const along = getAt(pipes[index], ['along']);
    const before = (Array.isArray(along) ? along : []).map((a: unknown) => ({
      part: getAt(a, ['part']) as string,
      ...numbers({ fromMm: getAt(a, ['fromMm']), toMm: getAt(a, ['toMm']) }),
    }));
    const length = lengthMm(mark);
    const turned = length === null ? passes : reversed(passes, length);
    const after = likeness(before, turned) > likeness(before, passes) ? turned : passes;
    return isSame(before, after) ? [] : [{ pipe, index, mark, before, after }];
  });
}

function numbers(given: Record<'fromMm' | 'toMm', unknown>): Partial<PipePass> {
  return Object.fromEntries(
    Object.entries(given).flatMap(([key, x]) => {
      const value = figureValue(x as Figure | undefined);
      return typeof value === 'number' ? [[key, value]] : [];
    }),
  );
}

/** The same from the other end. */
export function reversed(passes: readonly PipePass[], lengthMm: number): PipePass[] {
  const end = Math.floor(lengthMm);
  return passes
    .map(({ part, fromMm, toMm }) => ({
      part,
      fromMm: Math.max(0, end - toMm),
      toMm: Math.max(0, end - fromMm),
    }))
    .reverse();
}

/** How well two follow each other in one order: parts at the same place among the known ones. */
function likeness(before: readonly Partial<PipePass>[], after: readonly PipePass[]): number {
  const order = before.map((b) => after.findIndex((a) => a.part === b.part)).filter((i) => i >= 0);
  return order.slice(1).filter((x, i) => x > order[i]!).length;
}

function isSame(before: readonly Partial<PipePass>[], after: readonly PipePass[]): boolean {
  return (
    before.length === after.length &&
    after.every((a, i) => {
      const b = before[i]!;
      const near = (x: number | undefined, y: number) =>
        x !== undefined && Math.abs(x - y) <= SAME_MM;
      return b.part === a.part && near(b.fromMm, a.fromMm) && near(b.toMm, a.toMm);
    })
  );
}

/** Rounding to a whole mm, as one standard deviation. */
const ROUNDED_MM = 1 / Math.sqrt(12);

/**
 * What a pipe passes as the record keeps it; what else stood there of a part, such as a note, stays.
 *
 * @param along as it stands
 * @param clickMm one standard deviation of a click
 * @param scaleShare of the scale, which all lengths of the photo share
 */
export function alongFromPhoto(
  along: unknown,
  { after, mark }: Pick<RenewedPasses, 'after' | 'mark'>,
  { photo, clickMm, scaleShare }: { photo: string; clickMm: number; scaleShare: number },
): Record<string, unknown>[] {
  type Kept = { part?: unknown; fromMm?: unknown; toMm?: unknown; [other: string]: unknown };
  const kept = Array.isArray(along) ? [...(along as Kept[])] : [];
  const figure = (value: number, before: unknown): FigureDetail => {
    const own = typeof before === 'object' && before !== null ? (before as FigureDetail) : {};
    // the pipe's end, and the edge of the part
    const sd = Math.hypot(Math.SQRT2 * clickMm, ROUNDED_MM, scaleShare * value);
    return {
      ...own,
      value,
      plusMinus: Number(sd.toFixed(1)),
      origin: 'photo',
      photo,
      mark,
      ...(value > 0 ? { scaleShare: Number(scaleShare.toPrecision(3)) } : {}),
    };
  };
  return after.map(({ part, fromMm, toMm }) => {
    const k = kept.findIndex((a) => a.part === part);
    const own: Kept = k < 0 ? {} : kept.splice(k, 1)[0]!;
    return { ...own, part, fromMm: figure(fromMm, own.fromMm), toMm: figure(toMm, own.toMm) };
  });
}
