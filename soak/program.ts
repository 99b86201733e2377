import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import type { Program } from '@zugluft/server/test-support/program';

/** Ends the program as a power cut would: nothing is written any more. */
export async function kill({ child }: Program): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = once(child, 'exit');
  child.kill('SIGKILL');
  await gone;
}

/** Memory that the program holds now, or held at most, MB; NaN where the system does not tell. */
export function memoryMb(
  { child }: Pick<Program, 'child'>,
  of: 'VmRSS' | 'VmHWM' = 'VmRSS',
): number {
  try {
    const status = readFileSync(`/proc/${child.pid}/status`, 'utf8');
    return Number(new RegExp(`${of}:\\s+(\\d+)`).exec(status)?.[1] ?? NaN) / 1024;
  } catch {
    return NaN;
  }
}
