import { MEASURED_WORDS } from '@zugluft/core/record/field';
import { fieldAt } from '@zugluft/core/record/fieldTable';
import { MEANS_BY, MEANS_WORDS } from '@zugluft/core/verdict/measureNextWords';
import { middleCap } from '../answer/caps';
import { figureWords, stepOfFigure } from './figureWords';
import { useMachineFile } from './MachineFile';

/** Something worth measuring, in words. */
export interface MeasureNextItem {
  key: string;
  what: string;
  /** By what it is found out. */
  how: string | null;
  /** All that it settles. */
  settles: string;
  /** Where it is done or explained. */
  to: string;
  /** Half the band now and then, W. */
  nowW: string;
  thenW: string;
}

/** Half a band now and then, in the decimals of watts; one more only where the gain would not be seen. */
function halves(nowW: number, thenW: number): [string, string] {
  const digits = nowW < 10 || nowW - thenW < 1 ? 1 : 0;
  return [nowW.toFixed(digits), thenW.toFixed(digits)];
}

/**
 * What to measure next because it narrows the band of both dies together at the cap in the middle most.
 *
 * @returns the most worthwhile first, or null before the first draws
 */
export function useMeasureNext(): MeasureNextItem[] | null {
  const { summary, machine, caps } = useMachineFile();
  if (!summary) return null;
  const cap = middleCap(caps);
  const at = (readout: string) => summary.next.find((x) => x.readout === readout && x.cap === cap);
  const items = (at('together') ?? at('cpuAlone') ?? at('gpuAlone'))?.items ?? [];
  return items.map(({ means, inputs, nowW, thenW }) => {
    const first = inputs[0]!;
    const measured = fieldAt(first)?.measured;
    const [now, then] = halves(nowW, thenW);
    return {
      key: first,
      what: means === 'figure' ? figureWords(first) : MEANS_WORDS[means],
      how: means === 'figure' ? (measured ? MEASURED_WORDS[measured] : null) : MEANS_BY[means],
      settles: inputs.map(figureWords).join(', '),
      to:
        means === 'figure'
          ? `/machines/${machine.id}/${stepOfFigure(first)}`
          : `/method?find=${encodeURIComponent(first)}`,
      nowW: now,
      thenW: then,
    };
  });
}
