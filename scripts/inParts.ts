import { spawn } from 'node:child_process';
import { availableParallelism } from 'node:os';

/**
 * Runs a script once for each of the processor's cores, told its part and of how many, and gathers the lists that they print as JSON.
 *
 * @param script its path
 */
export async function inParts<T>(script: string): Promise<T[]> {
  const parts = Math.max(1, availableParallelism());
  const all = await Promise.all(
    Array.from({ length: parts }, (_, p) => answerOf(script, p, parts)),
  );
  return all.flat() as T[];
}

function answerOf(script: string, part: number, parts: number): Promise<unknown[]> {
  return new Promise((done, failed) => {
    const words = ['--import', 'tsx', script, String(part), String(parts)];
    const child = spawn(process.execPath, words, { stdio: ['ignore', 'pipe', 'inherit'] });
    let out = '';
    child.stdout.on('data', (text: Buffer) => (out += text.toString()));
    child.on('error', failed);
    child.on('close', (code) => {
      if (code === 0) done(JSON.parse(out) as unknown[]);
      else failed(new Error(`a part of the study ended with ${code}`));
    });
  });
}
