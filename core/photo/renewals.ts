import { figureValue, type Figure, type FigureDetail } from '../record/figure';
import { recordedDeviation } from '../uncertainty/spread';
import { isPartList } from '../record/fieldTable';
import { getAt, type Path } from '../record/plainJson';
import { figureFromPhoto, figuresOfMark, type FigureOfMark } from './figuresOfMark';
import type { KeptMeasures } from './measureKept';
import type { PhotoMarks } from './photoMarks';

/** A figure that a mark tells, beside what the record has. */
export interface Renewal extends FigureOfMark {
  /** Where it stands in the record; parts by their place. */
  at: Path;
  mark: string;
  /** What stands there now; undefined where nothing does. */
  before: number | undefined;
  /** The figure as it would be kept. */
  after: FigureDetail;
  /** Something else than this photo told it, a calliper, a label, and so: it agrees with the mark within both ±, or does not. */
  other: 'agrees' | 'differs' | null;
  /** What told it before knows it better: it is taken only where somebody says so. */
  isSurer: boolean;
}

/**
 * Where a figure that names its part stands in a record.
 *
 * @returns null where there is no such part
 * @example pathOfFigure(record, 'fans.fan-left.maxRpm') // ['fans', 0, 'maxRpm']
 */
export function pathOfFigure(record: unknown, figure: string): Path | null {
  const [list = '', id = '', ...rest] = figure.split('.');
  if (!isPartList(list)) return figure.split('.');
  const parts = getAt(record, [list]);
  const index = Array.isArray(parts) ? parts.findIndex((p) => getAt(p, ['id']) === id) : -1;
  return index < 0 ? null : [list, index, ...rest];
}

/**
 * What the marks of a photo would change of a record: figures that are not there yet, and those that came out differently since a
 * reference or a mark was moved. Of two marks that tell one figure the surer one counts.
 *
 * @param record as it stands
 * @param photo its id
 */
export function renewalsOf(
  record: unknown,
  photo: string,
  { marks }: PhotoMarks,
  measures: KeptMeasures,
): Renewal[] {
  const byPath = new Map<string, Renewal>();
  marks.forEach(({ id, mark, figure }, i) => {
    if (!figure) return;
    for (const told of figuresOfMark(figure, mark.kind, measures.marks[i])) {
      const at = pathOfFigure(record, told.path);
      if (!at) continue;
      const known = byPath.get(told.path);
      if (known && known.plusMinus <= told.plusMinus) continue;
      const stands = getAt(record, at);
      const after = figureFromPhoto(stands, told, {
        photo,
        mark: id,
        ...scaleShareOf(told, measures),
      });
      byPath.set(told.path, {
        ...told,
        at,
        mark: id,
        before: stands === undefined ? undefined : figureValue(stands as Figure),
        after,
        ...toldBefore(told, stands as Figure | undefined, photo),
      });
    }
  });
  return [...byPath.values()].filter((r) => !isSame(getAt(record, r.at), r.after));
}

/** Two figures of one thing differ by more than this many of their deviations only where one is wrong. */
const DIFFERS = 2.5;

/** What something else said of a figure, beside what its mark says. */
function toldBefore(
  told: FigureOfMark,
  stands: Figure | undefined,
  photo: string,
): Pick<Renewal, 'other' | 'isSurer'> {
  const value = figureValue(stands);
  const { origin, photo: of } = (typeof stands === 'object' ? stands : {}) as Partial<FigureDetail>;
  // what was taken for granted, or counted by eye, nobody measured
  const nobody =
    origin === 'assumed' || origin === 'estimated' || (origin === 'photo' && of === photo);
  if (stands === undefined || typeof value !== 'number' || nobody)
    return { other: null, isSurer: false };
  const sd = recordedDeviation(told.path, value, stands);
  const off = Math.abs(value - told.value);
  return {
    other: off > DIFFERS * Math.hypot(sd, told.plusMinus) ? 'differs' : 'agrees',
    isSurer: sd < told.plusMinus,
  };
}

/** The scale's share of a figure, at most all of its ±. */
function scaleShareOf({ value, plusMinus }: FigureOfMark, { scale }: KeptMeasures) {
  if (!scale || !(value > 0) || !(plusMinus > 0)) return {};
  return { scaleShare: Math.min(scale.plusMinusShare, plusMinus / value) };
}

const isSame = (now: unknown, after: FigureDetail): boolean =>
  typeof now === 'object' &&
  now !== null &&
  (['value', 'plusMinus', 'origin', 'photo', 'mark', 'scaleShare'] as const).every(
    (k) => (now as FigureDetail)[k] === after[k],
  );
