import type { Database } from '../database/openDatabase';
import type { WattsKeeper } from '../derived/wattsKeeper';
import { createMachineList } from './machineList';

const ROWS = 253;
const ids = Array.from({ length: ROWS }, (_, n) => `m${n}`);

/** A library of many machines, which tells how many rows were read at once. */
function libraryOf(sizes: number[]) {
  const db = {
    read: async (sql: string, { ids: list }: { ids?: string } = {}) => {
      await new Promise((resolve) => setImmediate(resolve));
      if (sql.includes('json_group_array')) return [{ ids: JSON.stringify(ids) }];
      const wanted = JSON.parse(list!) as string[];
      if (sql.includes('FROM machine_tags'))
        return [
          { machineId: 'm7', tag: 'b' },
          { machineId: 'm7', tag: 'a' },
        ].filter((t) => wanted.includes(t.machineId));
      if (sql.includes('FROM search_keys'))
        return wanted.map((machineId, key) => ({ key, machineId }));
      sizes.push(wanted.length);
      return wanted.map((id) => ({ id, updatedAt: '2026-01-01', putAsideAt: null }));
    },
    onTouched: () => undefined,
    queued: () => 0,
  };
  const watts = {
    ready: () => Promise.resolve(),
    note: () => undefined,
    of: () => ({ at: () => null, pending: false }),
    caps: () => [36],
    onChange: () => undefined,
  };
  return createMachineList(db as unknown as Database, watts as unknown as WattsKeeper);
}

test('a large library is read in parts, between which others have a turn, and read whole', async () => {
  const sizes: number[] = [];
  const list = libraryOf(sizes);
  const rows = await list.rows();
  expect(rows.map((r) => r.id)).toEqual(ids);
  expect(Math.max(...sizes)).toBeLessThanOrEqual(100);
  expect(sizes.reduce((a, b) => a + b)).toBe(ROWS);
  expect(rows[7]!.tags).toEqual(['a', 'b']);
});
