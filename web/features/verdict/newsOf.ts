import { wattsText } from '@zugluft/core/case/answerWords';
import type { EditionChanges, FigureChange } from '@zugluft/core/report/edition';

export interface NewsRow {
  what: string;
  before: string;
  after: string;
}

/** What stands where an edition does not tell a figure. */
const NOT_TOLD = 'not told';

/**
 * What is new in an edition, row by row: the headline, what was asked, figures, conditions, the record, words.
 *
 * @param nameOf a field of the record in words
 * @param valueOf what stands there in words
 */
export function newsOf(
  { headline, asked, figures, conditions, record, words }: EditionChanges,
  nameOf: (path: string) => string,
  valueOf: (value: unknown, path: string) => string,
): NewsRow[] {
  return [
    ...(headline ? [{ what: 'headline', ...headline }] : []),
    ...asked.map(({ name, before, after }) => ({ what: name, before, after })),
    ...figures.map((f) => ({
      what: figureName(f),
      before: figureText(f, f.before),
      after: figureText(f, f.after),
    })),
    ...conditions.map(({ name, before, after }) => ({
      what: name,
      before: before ?? NOT_TOLD,
      after: after ?? NOT_TOLD,
    })),
    ...record.map((d) => ({
      what: `record, ${nameOf(d.path)}`,
      before: 'before' in d ? valueOf(d.before, d.path) : NOT_TOLD,
      after: 'after' in d ? valueOf(d.after, d.path) : NOT_TOLD,
    })),
    ...words.map((title) => ({
      what: `words, ${title.toLowerCase()}`,
      before: '',
      after: 'written anew',
    })),
  ];
}

function figureName({ figure, cap }: FigureChange): string {
  if (cap === '') return figure;
  if (cap === 'off') return `${figure}, fans off`;
  return cap === 'full' ? `${figure}, full speed` : `${figure}, ${cap} dB(A)`;
}

function figureText({ unit }: FigureChange, told: FigureChange['before']): string {
  if (!told) return NOT_TOLD;
  const number = (x: number) => (unit === 'W' ? wattsText(x) : Number(x.toPrecision(3)).toString());
  const band = told.p05 !== null && told.p95 !== null;
  return `${number(told.value)} ${unit}${band ? `, ${number(told.p05!)} to ${number(told.p95!)}` : ''}`;
}
