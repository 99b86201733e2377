/** Years with their ±. */
export interface Age {
  years: number;
  plusMinus: number;
  /** The day taken, as a share of a year. */
  made: number;
}

/** A shelf and a line between the code on a part and the paste: common practice, no source. */
const SHELF_YEARS = 0.15;
/** A product is built for about two years after it came out: common practice, no source. */
const BUILT_FOR_YEARS = 2;

/**
 * Age of the interface material from a date code or from the product's year, with a wide ±.
 *
 * Read are a year and month (`2023-05`), a year and week (`2023-W14`, `23W14`, or the four digits `2314` of a part's date
 * code), and a year alone, which is taken as the year the product came out.
 *
 * @param code as read off the label or part
 * @param today the day of the opening as a share of a year, such as 2026.9
 * @returns undefined where it is no date, or one still to come
 * @example pasteAge('2023-W14', 2026.9) // { years: 3.6, plusMinus: 0.15, made: 2023.26 }
 */
export function pasteAge(code: string, today: number): Age | undefined {
  const text = code.trim().toUpperCase();
  const month = /^((?:19|20)\d\d)[-/.](\d{1,2})$/.exec(text);
  const week = /^((?:19|20)?\d\d)-?W(\d{1,2})$/.exec(text) ?? /^(\d\d)(\d\d)$/.exec(text);
  const year = /^(?:19|20)\d\d$/.exec(text);
  const four = (y: string) => (y.length === 2 ? 2000 : 0) + Number(y);
  let made: number;
  let plusMinus = SHELF_YEARS;
  if (month) {
    const m = Number(month[2]);
    if (m < 1 || m > 12) return undefined;
    made = Number(month[1]) + (m - 0.5) / 12;
  } else if (year && four(text) <= today) {
    made = Math.min(today, four(text) + BUILT_FOR_YEARS / 2);
    // an even spread over the years in which it was built
    plusMinus = BUILT_FOR_YEARS / Math.sqrt(12);
  } else if (week) {
    const w = Number(week[2]);
    if (w < 1 || w > 53) return undefined;
    made = four(week[1]!) + (w - 0.5) / 52.18;
  } else return undefined;
  if (made > today) return undefined;
  return {
    years: Math.round((today - made) * 100) / 100,
    plusMinus: Math.round(plusMinus * 100) / 100,
    made,
  };
}

/** A day as a share of a year: 2026-07-02 is about 2026.5. */
export function dayAsYear(iso: string): number {
  const at = new Date(`${iso}T00:00:00Z`);
  const year = at.getUTCFullYear();
  const start = Date.UTC(year, 0, 1);
  return year + (at.getTime() - start) / (Date.UTC(year + 1, 0, 1) - start);
}
