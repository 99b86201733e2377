import type { Band3 } from './bandWords';

/** A kind of work with what it draws while it goes on. */
export interface UsualWork {
  id: string;
  name: string;
  cpuW: number;
  gpuW: number;
}

/**
 * Work that reviewers ask about, with the watts it draws for as long as it goes on. Common practice, no source; classes, not
 * programs.
 */
export const USUAL_WORK: readonly UsualWork[] = [
  { id: 'writing', name: 'writing and the web', cpuW: 8, gpuW: 0 },
  { id: 'sound', name: 'recording and mixing sound', cpuW: 18, gpuW: 0 },
  { id: 'compile', name: 'long compiling, CPU alone', cpuW: 45, gpuW: 0 },
  { id: 'cut', name: 'cutting and exporting video', cpuW: 30, gpuW: 30 },
  { id: 'live-picture', name: 'rendering live picture', cpuW: 25, gpuW: 50 },
  { id: 'play', name: 'games at full detail', cpuW: 30, gpuW: 80 },
  { id: 'render', name: 'long renders on both dies', cpuW: 45, gpuW: 90 },
];

/** How sure it is that some work is held. */
export type HeldWord = 'held' | 'likely held' | 'likely short' | 'short';

/**
 * Whether work is held, as far as the band allows to say: surely where its watts lie below the band, surely not where they lie above.
 *
 * @param wantedW watts that the work draws
 * @param band of what is sustained in the work's own split
 */
export function isHeld(wantedW: number, band: Band3): HeldWord {
  if (wantedW <= band.p05) return 'held';
  if (wantedW <= band.p50) return 'likely held';
  return wantedW <= band.p95 ? 'likely short' : 'short';
}
