import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { capsOf } from '@zugluft/core/case/laboratory';
import { openDatabase } from '../database/openDatabase';
import { createLibrary, type Library } from '../library';
import { listQuery } from '../machines/listQuery';
import { temporaryFolder } from '../test-support/temporaryFolder';
import { computeWatts, type ComputeWatts } from './computeWatts';

const two = () =>
  JSON.parse(readFileSync(join(__dirname, '../../examples/two-fan-shared-pipes.json'), 'utf8'));
const here: ComputeWatts = async (job) => computeWatts(job);
const open = async (
  folder: string,
  compute = here,
  failed: (x: unknown) => void = () => undefined,
) => createLibrary(await openDatabase(folder), compute, failed);
const row = async (library: Library, query = '') => {
  const text = await library.list.listJson(query, () =>
    listQuery.parse(Object.fromEntries(new URLSearchParams(query))),
  );
  const page = JSON.parse(text.toString());
  return { ...page.items[0], pending: page.pending };
};
const settled = async (library: Library) => {
  await library.list.load();
  await library.watts.settled();
};

test('what is computed waits beside the requests, and the list says how much of it is open', async () => {
  let go = () => undefined as void;
  const gate = new Promise<void>((resolve) => (go = resolve));
  const library = await open(temporaryFolder(), async (job) => {
    await gate;
    return computeWatts(job);
  });
  await library.list.load();
  await library.machines.create(two());
  expect(await row(library)).toMatchObject({ pending: 1, wattsPending: true, togetherFullW: null });
  go();
  await settled(library);
  const now = await row(library);
  expect(now).toMatchObject({ pending: 0, wattsPending: false });
  expect(now.togetherFullW).toBeGreaterThan(now.togetherAt28W);
  await library.close();
});

test('the bands by which a machine opens are those of its list, at its very revision', async () => {
  const library = await open(temporaryFolder());
  await library.list.load();
  const { id, record } = await library.machines.create(two());
  expect(library.watts.bandsOf(id, 1)).toEqual([]);
  await settled(library);
  const listed = await row(library);
  const bands = library.watts.bandsOf(id, 1);
  expect(bands.map((b) => b.cap)).toEqual(capsOf());
  const { p05, p50, p95 } = bands.find((b) => b.cap === 36)!;
  expect([p05, p50, p95]).toEqual([
    listed.togetherAt36WP05,
    listed.togetherAt36W,
    listed.togetherAt36WP95,
  ]);
  // a newer record has none yet, and those of the old one are not its own
  const thin = { ...record, shell: { ...record.shell, thicknessMm: 15 } };
  await library.machines.update(id, 1, thin);
  expect(library.watts.bandsOf(id, 2)).toEqual([]);
  await settled(library);
  expect(library.watts.bandsOf(id, 1)).toEqual([]);
  expect(library.watts.bandsOf(id, 2)).toHaveLength(bands.length);
  await library.close();
});

test('a stop in the middle is caught up at the next start', async () => {
  const folder = temporaryFolder();
  const first = await open(folder, () => new Promise(() => undefined));
  await first.list.load();
  const made = await first.machines.create(two());
  // ended while the thread computes
  await first.db.close();
  const second = await open(folder);
  expect((await row(second)).wattsPending).toBe(true);
  await settled(second);
  const before = await row(second);
  expect(before.togetherFullW).toBeGreaterThan(50);
  // other watts, as a program that was ended between a record and its watts would leave them
  await second.db.sequelize.query(`UPDATE machines SET wattsBy = '1.0.0', watts = '{"full":1}'`);
  await second.close();
  const third = await open(folder);
  expect(await row(third)).toMatchObject({ togetherFullW: 1, wattsPending: true });
  await settled(third);
  expect(await row(third)).toMatchObject({ togetherFullW: before.togetherFullW, pending: 0 });
  expect((await third.machines.read(made.id)).revision).toBe(1);
  await third.close();
});

test('watts of a record that was written over meanwhile are not kept', async () => {
  let jobs = 0;
  const library: Library = await open(temporaryFolder(), async (job) => {
    const found = computeWatts(job);
    // the first time the record changes before its watts are written
    if (++jobs === 1) {
      const id = job.machines[0]!.id;
      const cooler = two();
      cooler.finStacks[0].blockedShare = 0.9;
      cooler.finStacks[1].blockedShare = 0.9;
      await library.machines.update(id, 1, cooler);
    }
    return found;
  });
  await library.list.load();
  await library.machines.create(two());
  await settled(library);
  const now = await row(library);
  const right = computeWatts({
    machines: [{ id: 'x', record: (await library.machines.read(now.id)).record, caps: capsOf() }],
    defaults: {},
  });
  expect(now.togetherFullW).toBeCloseTo(right['x']!['full']!.p50, 2);
  expect(now.revision).toBe(2);
  await library.close();
});

test('a machine that cannot be computed has no watts and holds up no other; one with gaps neither', async () => {
  const library = await open(temporaryFolder(), async (job) => {
    const bad = job.machines.find((m) => (m.record as { bad?: boolean }).bad);
    return computeWatts({
      ...job,
      machines: job.machines.map((m) => (m === bad ? { ...m, record: { broken: true } } : m)),
    });
  });
  await library.list.load();
  await library.machines.create({ ...two(), bad: true });
  await library.machines.create(two());
  const gap = two();
  delete gap.finStacks[0].depthMm;
  await library.machines.create(gap);
  await settled(library);
  const { items } = await library.list.list(listQuery.parse({ sort: '-togetherFullW' }));
  expect(items.map((m) => m['togetherFullW'] === null)).toEqual([false, true, true]);
  expect(items.map((m) => m.wattsPending)).toEqual([false, false, false]);
  await library.close();
});

test('a thread that fails is told of, and what is open stays open', async () => {
  const told: unknown[] = [];
  const library = await open(
    temporaryFolder(),
    async () => {
      throw new Error('the thread has ended');
    },
    (cause) => told.push(cause),
  );
  await library.list.load();
  await library.machines.create(two());
  await library.watts.settled().catch(() => undefined);
  expect(String(told[0])).toMatch(/has ended/);
  expect(await row(library)).toMatchObject({ pending: 1, togetherFullW: null });
  await library.close();
});

test('only what is missing is computed for a cap that somebody asks for', async () => {
  const asked: unknown[][] = [];
  const library = await open(temporaryFolder(), async (job) => {
    asked.push(...job.machines.map((m) => [...m.caps]));
    return computeWatts(job);
  });
  await library.list.load();
  await library.machines.create(two());
  await settled(library);
  await row(library, 'cap=33&wattsMin=1');
  await settled(library);
  expect(asked).toEqual([['off', 28, 32, 36, 40, 45, 'full'], [33]]);
  expect((await row(library, 'cap=33&wattsMin=1')).togetherAt33W).toBeGreaterThan(10);
  await library.close();
});
