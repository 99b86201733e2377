import type { QuietFor } from '@zugluft/core/library/quietFor';

const HOLDS = { 'at-most': '≤ ', at: '', above: '> ' };

/** “36”, “≤ 28”, “> 45”, “off”, or a dash where no level is quiet enough; in dB(A). */
export function quietText(found: QuietFor | null): string {
  if (!found) return '–';
  return found.holds === 'off' ? 'off' : `${HOLDS[found.holds]}${found.levelDbA.toFixed(0)}`;
}

/** The band of such a level; where its loud end is out of reach only its best, and nothing where it is one level or none. */
export function quietBand(quietEnd: string, loudEnd: string): string {
  if (quietEnd === loudEnd) return '';
  return loudEnd === '–' ? `${quietEnd} at best` : `${quietEnd} to ${loudEnd}`;
}
