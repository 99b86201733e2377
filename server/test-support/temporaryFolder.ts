import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A new folder for a test, within that of the whole run, which is removed at its end. */
export function temporaryFolder(): string {
  return mkdtempSync(join(process.env['ZUGLUFT_TEST_FOLDER'] ?? tmpdir(), 'zugluft-'));
}
