import { readFigure } from '../record/readFigure';
import { COUNT_FIELDS, COUNT_FIELD_NAMES, type CountField } from './countFields';
import { blankCount } from './countSchema';

const WORDS = ['maker', 'model', 'variant', 'interface', 'material'] as const;
const YES = /^(yes|y|true|x|1|ja)$/i;
const NO = /^(no|n|false|0|-|nein)$/i;

/** Columns of a table of counts, a machine a row: the names of the format. */
export const COUNT_COLUMNS: readonly string[] = [
  'maker',
  'model',
  'variant',
  'year',
  ...COUNT_FIELD_NAMES,
  'chamber',
  'interface',
  'material',
];

/** Whether a header is that of a table of counts: fans and their diameter at least. */
export function isCountHeader(header: readonly string[]): boolean {
  const names = new Set(header.map((h) => h.trim()));
  return names.has('fans') && names.has('fanDiameterMm') && !names.has('list');
}

/**
 * A row of a table as a count: figures as people type them (“58”, “58 ± 0.5”, “5,8 cm”), blank is absent. What cannot be read
 * stays a text, so that it is refused by its field.
 *
 * @param row cells by column
 * @returns a count to be read by `parseCount`
 */
export function countOfRow(row: Readonly<Record<string, string>>): unknown {
  const cell = (name: string) => (row[name] ?? '').trim();
  const count: Record<string, unknown> = { ...blankCount() };
  for (const name of WORDS) if (cell(name)) count[name] = cell(name);
  for (const name of COUNT_FIELD_NAMES) {
    const text = cell(name);
    if (text) count[name] = figureOf(text, COUNT_FIELDS[name]);
  }
  if (cell('year'))
    count['year'] = figureOf(cell('year'), { title: 'year', bounds: { max: 2100 } });
  const chamber = cell('chamber');
  if (YES.test(chamber)) count['chamber'] = true;
  else if (NO.test(chamber)) count['chamber'] = false;
  else if (chamber) count['chamber'] = chamber;
  return count;
}

function figureOf(text: string, { bounds, parts }: CountField): unknown {
  const read = readFigure(text, bounds.unit);
  if (typeof read !== 'object') return text;
  if (parts || read.plain) return read.value;
  const { plain: _, ...figure } = read;
  return figure;
}
