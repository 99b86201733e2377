import type { HeldShare, Readout } from './answer';
import type { Binding } from '../envelope/limitTypes';

const PIPE_WORDS = {
  capillary: ' running dry',
  boiling: ' boiling dry',
  entrainment: ', vapor tearing liquid off',
  sonic: ', vapor at its speed of sound',
  viscous: ', vapor too thin',
};

/** The figure that people are shown: the median of the draws, and the central solution only while there are none. */
export function shownW(r: Pick<Readout, 'watts' | 'p50'>): number {
  return r.p50 ?? r.watts;
}

/** Shares below this are not worth a word. */
const MIN_SHARE = 0.2;
const MOST_NAMED = 2;

/** Which limit holds, as shares of ten draws: “GPU junction 7 of 10, pipe-1 running dry 3 of 10”. */
export const heldWords = (readout: Pick<Readout, 'held' | 'binding'>): string =>
  heldBy(readout, (words, ofTen) => `${words} ${ofTen} of 10`).join(', ');

/** The same in a sentence: “the GPU junction in 7 of 10 draws, pipe-1 running dry in 3”. */
export const heldSentence = (readout: Pick<Readout, 'held' | 'binding'>): string =>
  heldBy(readout, (words, ofTen, k) => `${words} in ${ofTen}${k === 0 ? ' of 10 draws' : ''}`)
    .map((words) => (/^[CG]PU junction/.test(words) ? `the ${words}` : words))
    .join(', ');

function heldBy(
  { held, binding }: Pick<Readout, 'held' | 'binding'>,
  share: (words: string, ofTen: number, k: number) => string,
): string[] {
  const [first] = held;
  if (!first) return [bindingWords(binding)];
  // how a pipe fails is known of the central solution alone
  const words = (h: HeldShare) =>
    bindingWords(
      h.limit === binding.limit && h.part === binding.part
        ? binding
        : { limit: h.limit, part: h.part },
    );
  if (first.share >= 0.95) return [words(first)];
  return held
    .filter((h) => h.share >= MIN_SHARE || h === first)
    .slice(0, MOST_NAMED)
    .map((h, k) => share(words(h), Math.max(1, Math.round(10 * h.share)), k));
}

/** “36 CPU + 61 GPU”. */
export function splitWords(cpuW: number, gpuW: number): string {
  return `${wattsText(cpuW)} CPU + ${wattsText(gpuW)} GPU`;
}

/** What binds, in words: “CPU junction”, “pipe-1 running dry”. */
export function bindingWords(binding: Binding): string {
  switch (binding.limit) {
    case 'junction':
      return `${roleWord(binding.part)} junction`;
    case 'pipe':
      return `${binding.part}${PIPE_WORDS[binding.kind ?? 'capillary']}`;
    case 'chamber':
      return `${binding.part}, wick ${binding.kind === 'boiling' ? 'boiling' : 'running dry'}`;
    case 'skin':
      return `skin over ${binding.part}`;
    case 'exhaust-air':
      return `exhaust air of ${binding.part}`;
    case 'firmware':
      return `firmware limit, ${roleWord(binding.part)}`;
    case 'adapter':
      return 'adapter rating';
  }
}

function roleWord(part: string): string {
  return part === 'cpu' || part === 'gpu' ? part.toUpperCase() : part;
}

/** A cap as it is read: “36”, “off”, “full”. */
export function capWord(cap: number | 'off' | 'full'): string {
  return typeof cap === 'number' ? String(cap) : cap === 'off' ? 'fans off' : 'full speed';
}

/** Watts with the decimals that their size supports. */
export function wattsText(watts: number): string {
  return watts < 9.95 ? watts.toFixed(1) : watts.toFixed(0);
}
