export type Decimal = '.' | ',';

/** How loggers write that there is nothing. */
const MISSING = /^(|-+|n\/?a|nan|null|none|invalid)$/i;

export const isMissing = (cell: string): boolean => MISSING.test(cell.trim());

/** Marks between thousands, by the decimal that stands beside them. */
const GROUPED: Readonly<Record<Decimal, RegExp>> = {
  '.': /^[+-]?\d{1,3}(?:[, '’\u00a0\u202f]\d{3})+(?:\.\d+)?$/,
  ',': /^[+-]?\d{1,3}(?:[. '’\u00a0\u202f]\d{3})+(?:,\d+)?$/,
};
const PLAIN: Readonly<Record<Decimal, RegExp>> = {
  '.': /^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?$/,
  ',': /^[+-]?(?:\d+,?\d*|,\d+)(?:[eE][+-]?\d+)?$/,
};

/**
 * A cell of a log as a number.
 *
 * @param cell as it stands there
 * @param decimal of its column
 * @returns null where it says that there is nothing; undefined where it is no number
 */
export function logNumber(cell: string, decimal: Decimal): number | null | undefined {
  const text = cell.trim();
  if (isMissing(text)) return null;
  if (PLAIN[decimal].test(text)) return Number(text.replace(',', '.'));
  if (!GROUPED[decimal].test(text)) return undefined;
  const [whole, part] = text.split(decimal);
  return Number(`${whole!.replace(/[^\d+-]/g, '')}.${part ?? '0'}`);
}

/** What the numbers of a column say of their decimal mark. */
export type DecimalFound =
  | { decimal: Decimal }
  /** Both readings are possible in every cell: the one named is a number either way. */
  | { either: string }
  /** Cells that cannot be of one column: one with a point, one with a comma. */
  | { mixed: [string, string] };

/**
 * Decimal mark of a column, from the cells that allow only one.
 *
 * @param cells of the column, in any order; what is no number or missing says nothing
 * @param separatedByComma cells are separated by commas, so that an unquoted one cannot hold any
 */
export function decimalOf(cells: Iterable<string>, separatedByComma = false): DecimalFound {
  let point: string | null = null;
  let comma: string | null = null;
  let either: string | null = null;
  for (const cell of cells) {
    const text = cell.trim();
    if (!/[.,]/.test(text)) continue;
    const asPoint = typeof logNumber(text, '.') === 'number';
    const asComma = typeof logNumber(text, ',') === 'number';
    if (asPoint && asComma) either ??= text;
    else if (asPoint) point ??= text;
    else if (asComma) comma ??= text;
  }
  if (point !== null && comma !== null) return { mixed: [point, comma] };
  if (comma !== null) return { decimal: ',' };
  // 1.234 with nothing beside it is a number of a column that has three decimals, unless commas stand in it as well
  if (point !== null || either === null || separatedByComma) return { decimal: '.' };
  return { either };
}
