import { HttpProblem } from '../api/http';
import type { Draft } from './draftShelf';
import { createKeeper, type KeeperOptions, type Version } from './keeper';

interface Doc {
  a?: number | string;
  b?: number;
  list?: { id: string; n: number }[];
}

/** A server with one document, its lock and what can go wrong on the way. */
function serverWith(value: Doc) {
  const server = {
    now: { revision: 1, value } as Version<Doc>,
    versions: [{ revision: 1, value }] as Version<Doc>[],
    mode: 'up' as 'up' | 'away' | 'broken' | 'answer lost' | 'bug',
    calls: 0,
    names: new Map<number, string>(),
    /** Another window writes. */
    elsewhere(next: Doc) {
      server.put(next, 'another');
    },
    put(next: Doc, name: string) {
      server.now = { revision: server.now.revision + 1, value: next };
      server.versions.push(server.now);
      server.names.set(server.now.revision, name);
    },
    async send(seen: number, next: Doc, name: string) {
      server.calls++;
      await Promise.resolve();
      if (server.mode === 'bug') throw new TypeError('x is not a function');
      if (server.mode === 'away') throw new HttpProblem(0, 'the server does not answer');
      if (server.mode === 'broken') throw new HttpProblem(500, 'something failed here');
      if (seen !== server.now.revision) {
        if (server.names.get(seen + 1) === name) return { ...server.now, at: null };
        throw new HttpProblem(412, 'changed', { theirs: server.now });
      }
      server.put(structuredClone(next), name);
      if (server.mode === 'answer lost') throw new HttpProblem(0, 'cut off');
      return { ...server.now, at: new Date(0) };
    },
  };
  return server;
}

function open(
  server: ReturnType<typeof serverWith>,
  more: Partial<KeeperOptions<Doc>> & { shelf?: { draft: Draft<Doc> | null; full?: boolean } } = {},
) {
  const shelf = more.shelf ?? { draft: null };
  const keeper = createKeeper<Doc>({
    server: { ...server.now, at: null },
    draft: shelf.draft,
    send: server.send,
    keep: async (draft) => {
      await Promise.resolve();
      if (shelf.full) throw new Error('QuotaExceededError');
      // as a database keeps it
      shelf.draft = JSON.parse(JSON.stringify(draft)) as Draft<Doc>;
    },
    fit: (v, base) => {
      if (v.b === -1) return null;
      return typeof v.a === 'string' ? { ...v, a: base.a! } : v;
    },
    describe: () => ({ label: 'a', place: 'a' }),
    ...more,
  });
  return { keeper, shelf };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());
const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);

test('what is typed is kept at once and sent after a pause, as one write', async () => {
  const server = serverWith({ a: 1 });
  const { keeper, shelf } = open(server);
  keeper.change((v) => ({ ...v, a: 2 }));
  keeper.change((v) => ({ ...v, a: 3 }));
  expect(keeper.view()).toMatchObject({ value: { a: 3 }, state: { kind: 'saving' } });
  await pass(10);
  expect(shelf.draft).toMatchObject({ value: { a: 3 }, dirty: true, base: { revision: 1 } });
  expect(server.calls).toBe(0);
  await pass(600);
  expect(server.now).toEqual({ revision: 2, value: { a: 3 } });
  expect(keeper.view().state).toMatchObject({ kind: 'saved', revision: 2 });
  expect(shelf.draft).toMatchObject({ dirty: false });
});

test('typed on after an answer was lost: what was stored is known as one’s own, also after a reload, and not asked about', async () => {
  for (const reload of [false, true]) {
    const server = serverWith({ a: 1 });
    const first = open(server);
    server.mode = 'answer lost';
    first.keeper.change((v) => ({ ...v, a: 2 }));
    await pass(600);
    expect(server.now).toEqual({ revision: 2, value: { a: 2 } });
    expect(first.keeper.view().state.kind).toBe('offline');
    server.mode = 'up';
    first.keeper.change((v) => ({ ...v, a: 3 }));
    await pass(0);
    const { keeper } = reload ? open(server, { shelf: first.shelf }) : first;
    expect(keeper.view()).toMatchObject({ value: { a: 3 }, state: expect.anything() });
    expect(keeper.view().state.kind).not.toBe('conflict');
    keeper.retry();
    await pass(600);
    expect(keeper.view().state).toMatchObject({ kind: 'saved', revision: 3 });
    expect(server.now).toEqual({ revision: 3, value: { a: 3 } });
  }
});

test('taken back after an answer was lost: it is taken back there too', async () => {
  const server = serverWith({ a: 1 });
  const { keeper } = open(server);
  server.mode = 'answer lost';
  keeper.change((v) => ({ ...v, a: 2 }));
  await pass(600);
  server.mode = 'up';
  keeper.undo();
  expect(keeper.isDirty()).toBe(true);
  keeper.retry();
  await pass(600);
  expect(server.now.value).toEqual({ a: 1 });
  expect(keeper.view()).toMatchObject({ value: { a: 1 }, state: { kind: 'saved' } });
});

test('another window wrote after the write whose answer was lost: only the figure that both changed is asked about', async () => {
  const server = serverWith({ a: 1, b: 1 });
  const { keeper } = open(server);
  server.mode = 'answer lost';
  keeper.change((v) => ({ ...v, a: 2, b: 2 }));
  await pass(600);
  server.mode = 'up';
  server.elsewhere({ a: 5, b: 7 });
  keeper.change((v) => ({ ...v, a: 3 }));
  keeper.retry();
  await pass(600);
  const { state } = keeper.view();
  expect(state.kind === 'conflict' && state.conflicts.map((c) => c.path)).toEqual(['a']);
  // seen again meanwhile it is still asked about
  keeper.moved(structuredClone(server.now));
  expect(keeper.view().state.kind).toBe('conflict');
  expect(keeper.isDirty()).toBe(true);
  keeper.choose('mine');
  await pass(600);
  expect(server.now.value).toEqual({ a: 3, b: 7 });
});

test('a refused write does not stand before what mends it', async () => {
  const server = serverWith({ a: 1 });
  const { keeper } = open(server);
  server.mode = 'broken';
  keeper.change((v) => ({ ...v, a: 2 }));
  await pass(200_000);
  expect(keeper.view().state.kind).toBe('failed');
  server.mode = 'up';
  keeper.change((v) => ({ ...v, a: 3 }));
  keeper.retry();
  await pass(600);
  expect(server.versions.map((v) => v.value)).toEqual([{ a: 1 }, { a: 3 }]);
});

test('what is typed while a write is under way follows it', async () => {
  const server = serverWith({ a: 1 });
  const { keeper } = open(server);
  keeper.change((v) => ({ ...v, a: 2 }));
  const going = keeper.flush();
  keeper.change((v) => ({ ...v, b: 5 }));
  await going;
  await pass(600);
  expect(server.versions.map((v) => v.value)).toEqual([{ a: 1 }, { a: 2 }, { a: 2, b: 5 }]);
});

test('one refused figure holds no other back, and is there after a reload', async () => {
  const server = serverWith({ a: 1, b: 1 });
  const first = open(server);
  first.keeper.change((v) => ({ ...v, a: 'half' }));
  first.keeper.change((v) => ({ ...v, b: 2 }));
  await pass(600);
  expect(server.now).toEqual({ revision: 2, value: { a: 1, b: 2 } });
  expect(first.keeper.view()).toMatchObject({
    value: { a: 'half', b: 2 },
    state: { kind: 'held', rest: true },
    kept: 'yes',
  });
  const { keeper } = open(server, { shelf: first.shelf });
  expect(keeper.view()).toMatchObject({ value: { a: 'half', b: 2 }, state: { kind: 'held' } });
  keeper.change((v) => ({ ...v, b: 3 }));
  await pass(600);
  expect(server.now.value).toEqual({ a: 1, b: 3 });
  // another window changes what is refused here: asked about, and one's own is still only here
  server.elsewhere({ a: 4, b: 3 });
  keeper.change((v) => ({ ...v, b: 5 }));
  await pass(600);
  expect(keeper.view().state).toMatchObject({ kind: 'conflict', conflicts: [{ path: 'a' }] });
  keeper.choose('mine');
  await pass(600);
  expect(server.now.value).toEqual({ a: 4, b: 5 });
  expect(keeper.view()).toMatchObject({ value: { a: 'half', b: 5 }, state: { kind: 'held' } });
  keeper.undo();
  keeper.change((v) => ({ ...v, a: 6 }));
  await pass(600);
  expect(server.now.value).toMatchObject({ a: 6 });
  expect(keeper.view().state.kind).toBe('saved');
});

test('a write whose answer was lost is sent again though a figure is half typed since', async () => {
  const server = serverWith({ a: 1 });
  const { keeper } = open(server);
  server.mode = 'answer lost';
  keeper.change((v) => ({ ...v, a: 2 }));
  await pass(600);
  server.mode = 'up';
  keeper.change((v) => ({ ...v, a: 'half' }));
  expect(keeper.view().state.kind).toBe('offline');
  await pass(60_000);
  expect(keeper.view()).toMatchObject({ state: { kind: 'held' }, revision: 2 });
  expect(server.versions).toHaveLength(2);
});

test('where not even the rest can be kept, nothing is sent until it is mended', async () => {
  const server = serverWith({ a: 1 });
  const { keeper } = open(server);
  keeper.change((v) => ({ ...v, a: 2, b: -1 }));
  await pass(60_000);
  expect(server.calls).toBe(0);
  expect(keeper.view()).toMatchObject({ state: { kind: 'held', rest: false }, kept: 'yes' });
  keeper.change((v) => ({ ...v, b: 1 }));
  await pass(600);
  expect(server.now.value).toEqual({ a: 2, b: 1 });
});

test('what the server would not take is held here, and nothing is sent until it is mended', async () => {
  const server = serverWith({ a: 1 });
  const { keeper, shelf } = open(server);
  keeper.change((v) => ({ ...v, a: 'half' }));
  await pass(60_000);
  expect(server.calls).toBe(0);
  expect(keeper.view()).toMatchObject({ state: { kind: 'held' }, kept: 'yes' });
  expect(shelf.draft).toMatchObject({ value: { a: 'half' } });
  keeper.change((v) => ({ ...v, a: 7 }));
  await pass(600);
  expect(server.now.value).toEqual({ a: 7 });
  // typed back to what the server has
  keeper.change((v) => ({ ...v, a: 'x' }));
  keeper.change((v) => ({ ...v, a: 7 }));
  await pass(600);
  expect(server.calls).toBe(1);
  expect(keeper.view().state.kind).toBe('saved');
});

test('a draft that contradicts what was written meanwhile asks for that figure, and takes the others as they are now', async () => {
  const server = serverWith({ a: 1, b: 1 });
  const shelf = {
    draft: {
      base: { revision: 1, value: { a: 1, b: 1 } },
      value: { a: 5, b: 1 },
      dirty: true,
      past: [],
      future: [],
    } as Draft<Doc>,
  };
  server.elsewhere({ a: 2, b: 2 });
  const { keeper } = open(server, { shelf });
  expect(keeper.view().state).toMatchObject({
    kind: 'conflict',
    revision: 2,
    conflicts: [{ path: 'a', base: 1, mine: 5, theirs: 2 }],
  });
  await pass(60_000);
  expect(server.calls).toBe(0);
  keeper.choose('mine', 'a');
  await pass(600);
  expect(server.now.value).toEqual({ a: 5, b: 2 });
});

describe('the server away', () => {
  test('it is tried less and less often, and at once when somebody asks', async () => {
    const server = serverWith({ a: 1 });
    server.mode = 'away';
    const { keeper } = open(server);
    keeper.change((v) => ({ ...v, a: 2 }));
    await pass(600);
    expect(keeper.view().state.kind).toBe('offline');
    await pass(10_000);
    const early = server.calls;
    expect(early).toBeGreaterThan(3);
    await pass(300_000);
    // half a minute apart
    expect(server.calls - early).toBeLessThanOrEqual(12);
    server.mode = 'up';
    keeper.retry();
    await pass(10);
    expect(server.now.value).toEqual({ a: 2 });
  });

  test('errors of the server itself are tried a few times, then wait for somebody', async () => {
    const server = serverWith({ a: 1 });
    server.mode = 'broken';
    const { keeper } = open(server);
    keeper.change((v) => ({ ...v, a: 2 }));
    await pass(600_000);
    expect(server.calls).toBe(6);
    expect(keeper.view().state).toEqual({ kind: 'failed', message: 'something failed here' });
    server.mode = 'up';
    keeper.retry();
    await pass(10);
    expect(keeper.view().state.kind).toBe('saved');
  });

  test('a fault of the program is shown and not repeated for ever', async () => {
    const server = serverWith({ a: 1 });
    server.mode = 'bug';
    const { keeper, shelf } = open(server);
    keeper.change((v) => ({ ...v, a: 2 }));
    await pass(600_000);
    expect(server.calls).toBe(1);
    expect(keeper.view().state).toMatchObject({ kind: 'failed', message: /x is not a function/ });
    expect(shelf.draft).toMatchObject({ value: { a: 2 }, dirty: true });
  });

  test('an answer that was lost is known as one’s own write', async () => {
    const server = serverWith({ a: 1 });
    const { keeper } = open(server);
    server.mode = 'answer lost';
    keeper.change((v) => ({ ...v, a: 2 }));
    await pass(600);
    expect(server.now.revision).toBe(2);
    server.mode = 'up';
    await pass(5000);
    expect(keeper.view().state).toMatchObject({ kind: 'saved', revision: 2 });
    expect(server.versions).toHaveLength(2);
  });

  test('lost answer, typed on, and another window wrote on top: all of it is there', async () => {
    const server = serverWith({ a: 1 });
    const { keeper } = open(server);
    server.mode = 'answer lost';
    keeper.change((v) => ({ ...v, a: 2 }));
    await pass(600);
    server.mode = 'up';
    server.elsewhere({ a: 2, b: 9 });
    keeper.change((v) => ({ ...v, list: [{ id: 'x', n: 1 }] }));
    await pass(10_000);
    expect(server.now.value).toEqual({ a: 2, b: 9, list: [{ id: 'x', n: 1 }] });
    expect(keeper.view().state.kind).toBe('saved');
  });
});

describe('another window', () => {
  test('what does not touch is joined without asking, and undo says whose it was', async () => {
    const server = serverWith({ a: 1, b: 1 });
    const { keeper } = open(server);
    server.elsewhere({ a: 1, b: 2 });
    keeper.change((v) => ({ ...v, a: 5 }));
    await pass(600);
    expect(server.now.value).toEqual({ a: 5, b: 2 });
    expect(keeper.view()).toMatchObject({ value: { a: 5, b: 2 }, state: { kind: 'saved' } });
    expect(keeper.view().undo!.label).toBe('changed in another window');
  });

  test('what both changed is asked figure by figure; nothing is written until it is answered', async () => {
    const server = serverWith({ a: 1, b: 1 });
    const { keeper } = open(server);
    server.elsewhere({ a: 2, b: 2 });
    keeper.change((v) => ({ ...v, a: 5, b: 6 }));
    await pass(600);
    const { state } = keeper.view();
    expect(state).toMatchObject({
      kind: 'conflict',
      conflicts: [
        { path: 'a', base: 1, mine: 5, theirs: 2 },
        { path: 'b', base: 1, mine: 6, theirs: 2 },
      ],
    });
    keeper.choose('theirs', 'a');
    await pass(600);
    expect(server.now.revision).toBe(2);
    expect(keeper.view().state).toMatchObject({ conflicts: [{ path: 'b' }] });
    keeper.choose('mine', 'b');
    await pass(600);
    expect(server.now.value).toEqual({ a: 2, b: 6 });
  });

  test('all of the other window: nothing is left to send', async () => {
    const server = serverWith({ a: 1 });
    const { keeper } = open(server);
    server.elsewhere({ a: 2 });
    keeper.change((v) => ({ ...v, a: 5 }));
    await pass(600);
    keeper.choose('theirs');
    await pass(600);
    expect(server.versions).toHaveLength(2);
    expect(keeper.view()).toMatchObject({ value: { a: 2 }, state: { kind: 'saved', revision: 2 } });
    // and what stood here can be had back
    keeper.undo();
    expect(keeper.view().value).toEqual({ a: 5 });
  });

  test('typing on in a conflict is kept and changes what is asked', async () => {
    const server = serverWith({ a: 1, b: 1 });
    const { keeper, shelf } = open(server);
    server.elsewhere({ a: 2, b: 1 });
    keeper.change((v) => ({ ...v, a: 5 }));
    await pass(600);
    keeper.change((v) => ({ ...v, b: 7 }));
    await pass(10);
    expect(shelf.draft).toMatchObject({ value: { a: 5, b: 7 }, dirty: true });
    keeper.choose('mine');
    await pass(600);
    expect(server.now.value).toEqual({ a: 5, b: 7 });
  });

  test('put aside or renamed by this page itself: the lock moves on', async () => {
    const server = serverWith({ a: 1 });
    const { keeper } = open(server);
    server.put({ a: 1 }, 'put aside');
    keeper.moved(server.now);
    expect(keeper.view().state).toMatchObject({ kind: 'saved', revision: 2 });
    keeper.change((v) => ({ ...v, a: 2 }));
    await pass(600);
    expect(server.now).toEqual({ revision: 3, value: { a: 2 } });
  });
});

describe('undo', () => {
  test('quick changes to one field are one step; redo; a new change forgets what was undone', async () => {
    const { keeper } = open(serverWith({ a: 1 }));
    keeper.change((v) => ({ ...v, a: 12 }), 'a');
    keeper.change((v) => ({ ...v, a: 123 }), 'a');
    keeper.change((v) => ({ ...v, b: 4 }), 'b');
    await pass(3000);
    keeper.change((v) => ({ ...v, b: 5 }), 'b');
    keeper.undo();
    expect(keeper.view().value).toEqual({ a: 123, b: 4 });
    keeper.undo();
    keeper.undo();
    expect(keeper.view()).toMatchObject({ value: { a: 1 }, undo: null });
    keeper.redo();
    expect(keeper.view().value).toEqual({ a: 123 });
    keeper.change((v) => ({ ...v, b: 9 }));
    expect(keeper.view().redo).toBeNull();
    expect(keeper.undo()).toMatchObject({ label: 'a', place: 'a' });
    expect(keeper.undo()).not.toBeNull();
    expect(keeper.undo()).toBeNull();
  });

  test('the last hundred steps are there after a reload, also when all was sent', async () => {
    const server = serverWith({ a: 0 });
    const first = open(server);
    for (let n = 1; n <= 120; n++) first.keeper.change((v) => ({ ...v, a: n }));
    await pass(600);
    expect(server.now.value).toEqual({ a: 120 });
    const second = open(server, { shelf: first.shelf });
    for (let n = 0; n < 130; n++) second.keeper.undo();
    expect(second.keeper.view().value).toEqual({ a: 20 });
    await pass(600);
    expect(server.now.value).toEqual({ a: 20 });
    const third = open(server, { shelf: second.shelf });
    for (let n = 0; n < 130; n++) third.keeper.redo();
    expect(third.keeper.view().value).toEqual({ a: 120 });
  });

  test('what another window wrote meanwhile is one step of its own', async () => {
    const server = serverWith({ a: 1 });
    const first = open(server);
    first.keeper.change((v) => ({ ...v, a: 2 }));
    await pass(600);
    server.elsewhere({ a: 2, b: 3 });
    const { keeper } = open(server, { shelf: first.shelf });
    expect(keeper.view()).toMatchObject({ value: { a: 2, b: 3 }, state: { kind: 'saved' } });
    expect(keeper.undo()!.label).toBe('changed in another window');
    keeper.undo();
    expect(keeper.view().value).toEqual({ a: 1 });
  });
});

describe('what this browser kept', () => {
  test('a page that was closed with something unsent goes on with it', async () => {
    const server = serverWith({ a: 1, b: 1 });
    server.mode = 'away';
    const first = open(server);
    first.keeper.change((v) => ({ ...v, a: 2 }));
    await pass(10);
    server.mode = 'up';
    server.elsewhere({ a: 1, b: 8 });
    const { keeper } = open(server, { shelf: first.shelf });
    void keeper.flush();
    await pass(600);
    expect(server.now.value).toEqual({ a: 2, b: 8 });
  });

  test('kept is said only when it is there; a full store says so', async () => {
    const server = serverWith({ a: 1 });
    server.mode = 'away';
    const { keeper, shelf } = open(server, { shelf: { draft: null, full: true } });
    keeper.change((v) => ({ ...v, a: 2 }));
    expect(keeper.view().kept).toBe('pending');
    await pass(10);
    expect(keeper.view().kept).toBe('refused');
    shelf.full = false;
    keeper.change((v) => ({ ...v, a: 3 }));
    await pass(10);
    expect(keeper.view().kept).toBe('yes');
    expect(keeper.isDirty()).toBe(true);
  });

  test('a draft is no longer unsent only where it is the very value that was sent', async () => {
    const server = serverWith({ a: 1 });
    const { keeper, shelf } = open(server);
    keeper.change((v) => ({ ...v, a: 2 }));
    const going = keeper.flush();
    keeper.change((v) => ({ ...v, a: 'half' }));
    await going;
    await pass(600);
    expect(server.now.value).toEqual({ a: 2 });
    expect(shelf.draft).toMatchObject({ value: { a: 'half' }, dirty: true, base: { revision: 2 } });
    expect(keeper.view().state.kind).toBe('held');
  });

  test('an old answer kept from before is not taken for the server’s word', async () => {
    const server = serverWith({ a: 1 });
    const first = open(server);
    first.keeper.change((v) => ({ ...v, a: 2 }));
    await pass(600);
    first.keeper.change((v) => ({ ...v, a: 3 }));
    await pass(10);
    // revision 1 is what an offline page would be told
    const { keeper } = open(server, {
      shelf: first.shelf,
      server: { ...server.versions[0]!, at: null },
    });
    void keeper.flush();
    await pass(600);
    expect(server.now.value).toEqual({ a: 3 });
  });
});

test('a value that the server keeps in another form is shown in that form', async () => {
  const server = serverWith({ a: 1 });
  const { keeper } = open(server, {
    send: async (seen, next) => ({ revision: seen + 1, value: { ...next, a: 40 }, at: null }),
  });
  keeper.change((v) => ({ ...v, a: 39.999 }));
  await pass(600);
  expect(keeper.view()).toMatchObject({ value: { a: 40 }, state: { kind: 'saved', revision: 2 } });
});
