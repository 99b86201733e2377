/** A day as it is kept: `2026-11-25`. */
type IsoDay = string;

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

/**
 * Reads a day as people type it: “2026-11-25”, “25.11.2026”, “25. 11. 26”, “25 Nov 2026”, “November 25, 2026”. What could be read
 * in two ways, such as 3/4/2026, is not guessed at.
 *
 * @returns undefined where it is no day that was
 * @example readDate('25.11.2026') // '2026-11-25'
 */
export function readDate(text: string): IsoDay | undefined {
  const trimmed = text.trim();
  const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/.exec(trimmed);
  if (iso) return dayOf(iso[1]!, iso[2]!, iso[3]!);
  const dotted = /^(\d{1,2})\.\s*(\d{1,2})\.\s*(\d{4}|\d{2})$/.exec(trimmed);
  if (dotted) return dayOf(dotted[3]!, dotted[2]!, dotted[1]!);
  const slashed = /^(\d{1,2})\/(\d{1,2})\/(\d{4})$/.exec(trimmed);
  if (slashed) {
    // a day above 12 tells which is which
    const [a, b] = [Number(slashed[1]), Number(slashed[2])];
    if (a > 12) return dayOf(slashed[3]!, slashed[2]!, slashed[1]!);
    if (b > 12 || a === b) return dayOf(slashed[3]!, slashed[1]!, slashed[2]!);
    return undefined;
  }
  const named =
    /^(\d{1,2})\.?\s+([a-z]+)\.?,?\s+(\d{4})$/i.exec(trimmed) ??
    /^()([a-z]+)\.?\s+(\d{1,2}),?\s+(\d{4})$/i.exec(trimmed);
  if (!named) return undefined;
  const month = MONTHS.indexOf(named[2]!.slice(0, 3).toLowerCase()) + 1;
  if (!month) return undefined;
  return named[1] === ''
    ? dayOf(named[4]!, String(month), named[3]!)
    : dayOf(named[3]!, String(month), named[1]!);
}

function dayOf(year: string, month: string, day: string): IsoDay | undefined {
  const whole = year.length === 2 ? `20${year}` : year;
  const iso = `${whole}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
  const at = new Date(`${iso}T00:00:00Z`);
  return Number.isNaN(at.getTime()) || at.toISOString().slice(0, 10) !== iso ? undefined : iso;
}
