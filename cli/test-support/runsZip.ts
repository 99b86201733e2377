import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';

const KINDS = ['load', 'level'] as const;

/**
 * The example's two logs as one run in a zip.
 *
 * @param run more of it, or other than usual
 * @param altered what becomes of the text of its load
 */
export function simulatedRunsZip(
  run: object = {},
  altered: (load: string) => string = (load) => load,
): Uint8Array {
  const text = (kind: (typeof KINDS)[number]) => {
    const read = readFileSync(join(__dirname, `../../examples/${kind}-two-fans.csv`), 'utf8');
    return strToU8(kind === 'load' ? altered(read) : read);
  };
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
