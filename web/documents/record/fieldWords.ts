import { fieldAt } from '@zugluft/core/record/fieldTable';
import { plainWord } from './figureWords';

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

const short = (text: string) => (text.length > MAX ? `${text.slice(0, MAX)}…` : text);
