import { figureValue, type Figure, type FigureDetail } from '../record/figure';
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
  /** Somebody else than this mark told it: a calliper, a label, another photo. */
  isOther: boolean;
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
  marks.forEach(({ mark, figure }, i) => {
    if (!figure) return;
    for (const told of figuresOfMark(figure, mark.kind, measures.marks[i])) {
      const at = pathOfFigure(record, told.path);
      if (!at) continue;
      const known = byPath.get(told.path);
      if (known && known.plusMinus <= told.plusMinus) continue;
      const stands = getAt(record, at);
      const after = figureFromPhoto(stands, told, {
        photo,
        mark: mark.id,
        ...scaleShareOf(told, measures),
      });
      const { origin, photo: of } = (typeof stands === 'object' ? stands : {}) as FigureDetail;
      byPath.set(told.path, {
        ...told,
        at,
        mark: mark.id,
        before: stands === undefined ? undefined : figureValue(stands as Figure),
        after,
        isOther: stands !== undefined && !(origin === 'photo' && of === photo),
      });
    }
  });
  return [...byPath.values()].filter((r) => !isSame(getAt(record, r.at), r.after));
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
