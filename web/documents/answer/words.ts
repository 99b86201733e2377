import type { Binding } from '@zugluft/core/envelope/limitTypes';

const PIPE_WORDS = {
  capillary: ' running dry',
  boiling: ' boiling dry',
  entrainment: ', vapor tearing liquid off',
  sonic: ', vapor at its speed of sound',
  viscous: ', vapor too thin',
};

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
