// One folder for all that a run of the unit tests writes, removed at its end.
import { existsSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

export default function setUp() {
  // in memory where the system offers that: durable writes need not wait for a disk
  const base = existsSync('/dev/shm') ? '/dev/shm' : tmpdir();
  process.env.ZUGLUFT_TEST_FOLDER = mkdtempSync(join(base, 'zugluft-run-'));
}
