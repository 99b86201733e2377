import type { RunDocument } from '@zugluft/core/runs/runDocument';

const ON_WORDS = { cpu: 'CPU alone', gpu: 'GPU alone', both: 'both dies', none: 'idle' } as const;

export const onWords = (on: keyof typeof ON_WORDS): string => ON_WORDS[on];

/** What a run is called where nobody named it. */
export function runName(run: RunDocument): string {
  if (run.name) return run.name;
  const words = [run.load ? ON_WORDS[run.load.on] : 'run', run.setting];
  // two that are planned differ by their fans
  return [...words, run.fanMode].filter(Boolean).join(', ');
}
