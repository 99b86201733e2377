const MAX = 120;

/** What stands in a field of a record, on one line: “24 ± 0.1, measured”. */
export function fieldWords(value: unknown): string {
  if (value === undefined) return '–';
  if (value === null) return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return short(value.map(fieldWords).join(', '));
  if (typeof value !== 'object') return short(String(value));
  const { value: number, plusMinus, origin, note, ...rest } = value as Record<string, unknown>;
  if (number !== undefined) {
    const error = plusMinus === undefined ? '' : ` ± ${String(plusMinus)}`;
    return short([`${String(number)}${error}`, origin, note].filter(Boolean).join(', '));
  }
  return short(
    Object.entries(rest)
      .map(([key, x]) => `${key} ${fieldWords(x)}`)
      .join(', '),
  );
}

const short = (text: string) => (text.length > MAX ? `${text.slice(0, MAX)}…` : text);
