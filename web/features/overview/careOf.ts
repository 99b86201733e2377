import { figureValue } from '@zugluft/core/record/figure';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { careDue, careWords } from '@zugluft/core/verdict/care';

/** Share of lint in a stack from which on its cleaning is due (common practice, no source). */
const LINT_DUE = 0.25;
/** Care is told where it may be due within so many months. */
const SOON_MONTHS = 6;

/**
 * Care that a machine's record says is due or soon will be, in words; empty where it says nothing of it.
 *
 * @param record as it stands
 */
export function careOf(record: CaseRecord): string[] {
  const lint = Math.max(0, ...(record.finStacks ?? []).map((s) => figureValue(s.lintShare) ?? 0));
  const years = (record.dies ?? []).flatMap((d) => {
    const age = figureValue(d.interface?.ageYears);
    return age === undefined ? [] : [age];
  });
  const paste =
    years.length > 0
      ? careDue(null, { paste: 12 * Math.max(...years) }).find((c) => c.what === 'paste')
      : undefined;
  return [
    ...(lint >= LINT_DUE ? [`fins: ${Math.round(100 * lint)} % of them hold lint`] : []),
    ...(paste && paste.fromMonths <= SOON_MONTHS ? [careWords(paste)] : []),
  ];
}
