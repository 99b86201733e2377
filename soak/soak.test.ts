import { parseRecord } from '@zugluft/core/record/parseRecord';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { soak } from './soak';

const folder = mkdtempSync(join(tmpdir(), 'zugluft-soak-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test('many clients at once, half of them on one machine, and kills at any moment: nothing that was acknowledged is lost', async () => {
  const text = readFileSync(join(__dirname, '../examples/one-die.json'), 'utf8');
  const tally = await soak({
    folder,
    record: parseRecord(JSON.parse(text)).record!,
    seed: 3,
    clients: 50,
    goesOn: ({ kills, acknowledged }) => kills < 3 || acknowledged <= 30,
    killAfter: [60, 200],
    restores: 2,
  });
  expect(tally.lost).toEqual([]);
  expect(tally.wrong).toEqual([]);
  expect(tally.restores.before + tally.restores.after).toBe(2);
}, 600_000);
