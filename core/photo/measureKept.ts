import { fitScale, type Lens, type Scale } from './fitScale';
import { CLICK_PX, isSized, type Mark } from './marksFile';
import { MarkFault, measureMark, UNIT_OF_MARK, type Measured } from './measureMarks';
import { markOutside, referenceOutside, scaleAnswer, type Measures } from './measures';
import { markOf, type PhotoMarks } from './photoMarks';
import type { Picture } from './picture';
import { referenceFault } from './references';

/** What of the marks of a photo can be measured as they stand, and what cannot. */
export interface KeptMeasures {
  /** Null where nothing of known size is marked, or nothing of it can be used. */
  scale: Measures['scale'] | null;
  /** Of each mark, in their order; without a value where it cannot be measured. */
  marks: Measured[];
  /** What is wrong, by its place: `references.0.item.corners`, `marks.1.points.0`. */
  faults: { path: string; message: string }[];
}

/** Kinds that are measured by their points alone, without the picture's light. */
const BY_POINTS: ReadonlySet<Mark['kind']> = new Set(['length', 'circle', 'path', 'area', 'angle']);

export const needsLight = (kind: Mark['kind']): boolean => !BY_POINTS.has(kind);

/**
 * Measures what is marked in a photo while it is being marked: what is wrong with one mark or reference holds up no other.
 *
 * @param picture its light; `null` measures by points alone and leaves the other marks without a value
 * @param size of the picture, px
 * @param progress told how many marks are done; false ends it
 */
export function measureKept(
  picture: Picture | null,
  size: readonly [number, number],
  lens: Lens,
  { references, marks, clickPx = CLICK_PX, planeMm = 0 }: PhotoMarks,
  progress?: (done: number, of: number) => boolean | void,
): KeptMeasures {
  const faults: KeptMeasures['faults'] = [];
  const usable = references.flatMap(({ item }, i) => {
    const fault = referenceFault(item) ?? referenceOutside(item, size);
    if (!fault) return [{ item, i }];
    faults.push({ path: `references.${i}.item.${fault.at}`, message: fault.message });
    return [];
  });
  const items = usable.map((u) => u.item);
  const scale = items.some(isSized) ? fitScale(items, size, lens, clickPx) : null;
  const said = scale && scaleAnswer(items, size, lens, scale);
  const out: Measured[] = [];
  for (const [i, own] of marks.entries()) {
    out.push(measured(picture, size, scale, markOf(own), planeMm, `marks.${i}.mark`, faults));
    if (progress?.(i + 1, marks.length) === false) break;
  }
  return { scale: said && { ...said, note: renamed(said.note, usable) }, marks: out, faults };
}

function measured(
  picture: Picture | null,
  size: readonly [number, number],
  scale: Scale | null,
  mark: Mark,
  planeMm: number,
  path: string,
  faults: KeptMeasures['faults'],
): Measured {
  const none = (note: string | null): Measured => ({
    id: mark.id,
    value: null,
    plusMinus: null,
    unit: UNIT_OF_MARK[mark.kind],
    note,
  });
  const fault = markOutside(mark.points, size);
  if (fault) {
    faults.push({ path: `${path}.${fault.at}`, message: fault.message });
    return none(null);
  }
  if (!scale) return none(null);
  if (!picture && needsLight(mark.kind)) return none(null);
  try {
    const blank = { width: size[0], height: size[1], light: new Uint16Array(0) };
    return measureMark(picture ?? blank, scale, mark, planeMm, true);
  } catch (cause) {
    if (!(cause instanceof MarkFault)) throw cause;
    faults.push({ path: `${path}.points`, message: cause.message });
    return none(null);
  }
}

/** Notes name references by their place among those that could be used; here by that among all, counted from one. */
const renamed = (note: string | null, usable: readonly { i: number }[]): string | null =>
  note?.replace(/scale\.(\d+)/g, (_, k: string) => `reference ${usable[Number(k)]!.i + 1}`) ?? null;
