import { fieldAt } from '@zugluft/core/record/fieldTable';
import type { KindName } from '@zugluft/core/documents/kinds';
import { entryWords, LOG_WORDS, plainWord } from './figureWords';

const MAX = 120;

/**
 * What stands in a field of a record, on one line and with its unit: “24 ± 0.1 mm, measured”.
 *
 * @param value of the field
 * @param path of the field, as far as it is known
 */
export function fieldWords(value: unknown, path = ''): string {
  if (value === undefined) return '–';
  if (value === null) return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value))
    return short(value.map((x, i) => fieldWords(x, `${path}.${i}`)).join(', '));
  const known = path === '' ? undefined : fieldAt(path);
  const unit = known?.unit && known.unit !== '0–1' ? ` ${known.unit}` : '';
  if (typeof value === 'number') return `${value}${unit}`;
  if (typeof value !== 'object') {
    return short(known?.holds === 'choice' ? String(value).replace(/-/g, ' ') : String(value));
  }
  const { value: number, plusMinus, origin, note, ...rest } = value as Record<string, unknown>;
  if (number !== undefined) {
    const error = plusMinus === undefined ? '' : ` ± ${String(plusMinus)}`;
    return short([`${String(number)}${error}${unit}`, origin, note].filter(Boolean).join(', '));
  }
  return short(
    Object.entries(rest)
      .map(([key, x]) => {
        const at = path === '' ? key : `${path}.${key}`;
        // a name says itself
        const name =
          key === 'id' || key === 'part' ? '' : `${fieldAt(at)?.name ?? plainWord(key)} `;
        return `${name}${fieldWords(x, at)}`;
      })
      .join(', '),
  );
}

/** Fields of a log that name entries of one of its lists. */
const NAMES_ENTRY: Readonly<Record<string, string>> = {
  ...LOG_WORDS,
  layer: 'layer',
  group: 'group',
  needs: 'step',
  onlyWith: 'part',
  excludes: 'part',
};

/** What stands in a field of a log, its inner names as what they are of: “screw 11, screw 12”. */
function logWords(value: unknown, field: string): string {
  const entry = NAMES_ENTRY[field];
  if (typeof value === 'string' && entry) return entryWords(entry, value);
  if (Array.isArray(value)) return short(value.map((x) => logWords(x, field)).join(', '));
  if (typeof value !== 'object' || value === null) return fieldWords(value);
  return short(
    Object.entries(value)
      .filter(([key]) => key !== 'id')
      .map(([key, x]) => (key in NAMES_ENTRY ? '' : `${plainWord(key)} `) + logWords(x, key))
      .join(', '),
  );
}

/** How values of a kind of document are said, by the path of their field. */
export function valueWordsOf(kind: KindName): (value: unknown, path: string) => string {
  if (kind === 'record') return fieldWords;
  if (kind !== 'log') return (value) => fieldWords(value);
  return (value, path) => logWords(value, path.split('.').pop()!);
}

const short = (text: string) => (text.length > MAX ? `${text.slice(0, MAX)}…` : text);
