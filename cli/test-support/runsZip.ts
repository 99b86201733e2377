import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';

const KINDS = ['load', 'level'] as const;

/** The example's two logs as one run in a zip; more of the run, or other than usual, as it is given. */
export function simulatedRunsZip(run: object = {}): Uint8Array {
  const text = (kind: string) =>
    strToU8(readFileSync(join(__dirname, `../../examples/${kind}-two-fans.csv`), 'utf8'));
  const logs = KINDS.map((kind, i) => ({ id: `log-${i + 1}`, file: `${kind}.csv`, kind: 'csv' }));
  const document = {
    format: 'zugluft-run',
    formatVersion: 1,
    id: 'r',
    backgroundDbA: 19,
    logs,
    ...run,
  };
  return zipSync({
    'a/run.json': strToU8(JSON.stringify(document)),
    'a/logs/1-load.csv': text('load'),
    'a/logs/2-level.csv': text('level'),
  });
}
