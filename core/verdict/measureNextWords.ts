import { wattsText } from '../case/answerWords';
import type { Cap } from '../envelope/fanStates';
import { figureWords } from '../record/figureWords';
import type { DrawSummary } from '../uncertainty/summary';

/** What is done where it is no single figure. */
export const MEANS_WORDS = {
  'noise-sweep': 'Level over fan speed',
  'fan-curve': 'Fan curve or datasheet',
  'run-under-load': 'A steady run under load',
} as const;

/** By what it is found out. */
export const MEANS_BY = {
  'noise-sweep': 'sound level meter, at four speeds and more',
  'fan-curve': 'data sheet, or a test duct',
  'run-under-load': 'both dies, twenty minutes; read watts, junctions and speeds',
} as const;

/**
 * What narrows the band at a cap most, in words, the most worthwhile first.
 *
 * @example measureNextWords(summary, 36) // ['A steady run under load: ± 14 → 8.2 W']
 */
export function measureNextWords({ next }: DrawSummary, cap: Cap): string[] {
  const at = (readout: string) => next.find((x) => x.readout === readout && x.cap === cap);
  const items = (at('together') ?? at('cpuAlone') ?? at('gpuAlone'))?.items ?? [];
  return items.map(({ means, inputs, nowW, thenW }) => {
    const what = means === 'figure' ? figureWords(inputs[0]!) : MEANS_WORDS[means];
    return `${what}: ± ${wattsText(nowW)} → ${wattsText(thenW)} W`;
  });
}
