import { existsSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A new folder for a test, in memory where the system offers that: durable writes need not wait for a disk. */
export function temporaryFolder(): string {
  const shared = '/dev/shm';
  return mkdtempSync(join(existsSync(shared) ? shared : tmpdir(), 'zugluft-'));
}
