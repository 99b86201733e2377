import fc from 'fast-check';
import { HttpProblem } from '../api/http';
import { createKeeper, type Kept, type KeeperOptions } from './keeper';

/** A server of one value that can be away, slow, or changed by somebody else. */
function server(start = 'a') {
  const state = { value: start, revision: 1, away: false, status: 0, slowMs: 0, writes: 0 };
  return {
    state,
    async send(base: number, value: string): Promise<number> {
      if (state.slowMs) await new Promise((r) => setTimeout(r, state.slowMs));
      if (state.away) throw new HttpProblem(0, 'the server does not answer');
      if (state.status) throw new HttpProblem(state.status, 'no');
      if (base !== state.revision) {
        throw new HttpProblem(412, 'changed', { current: { ...state } });
      }
      state.value = value;
      state.writes++;
      return ++state.revision;
    },
    other(value: string) {
      state.value = value;
      state.revision++;
    },
  };
}

function keeperOf(s: ReturnType<typeof server>, more: Partial<KeeperOptions<string, number>> = {}) {
  const box: { pending: Kept<string, number> | null } = { pending: null };
  const keeper = createKeeper<string, number>({
    server: { value: s.state.value, base: s.state.revision },
    pending: null,
    send: s.send,
    store: (pending) => {
      box.pending = pending;
    },
    theirs: ({ body }) => {
      const { value, revision } = body['current'] as { value: string; revision: number };
      return { value, base: revision };
    },
    same: (a, b) => a === b,
    saveAfterMs: 500,
    retryAfterMs: 3000,
    ...more,
  });
  return { keeper, box, kind: () => keeper.view().state.kind };
}
const type = (k: ReturnType<typeof keeperOf>, text: string) => k.keeper.change(() => text);
const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('kept at once, sent once after a pause, then nothing waits', async () => {
  const s = server();
  const k = keeperOf(s);
  for (const text of ['b', 'bc', 'bcd']) {
    type(k, text);
    await pass(100);
  }
  expect(k.box.pending).toEqual({ value: 'bcd', base: 1 });
  expect(k.kind()).toBe('saving');
  expect(s.state.writes).toBe(0);
  await pass(500);
  expect(s.state).toMatchObject({ value: 'bcd', writes: 1 });
  expect(k.box.pending).toBeNull();
  expect(k.kind()).toBe('saved');
});

test('what is typed while a version is on its way is sent after it, from the newer revision', async () => {
  const s = server();
  s.state.slowMs = 1000;
  const k = keeperOf(s);
  type(k, 'b');
  await pass(600);
  type(k, 'c');
  expect(k.box.pending).toEqual({ value: 'c', base: 1 });
  await pass(1000);
  expect(k.box.pending).toEqual({ value: 'c', base: 2 });
  await pass(2000);
  expect(s.state).toMatchObject({ value: 'c', writes: 2 });
  expect(k.kind()).toBe('saved');
});

test('while the server is away it is tried again, and what is typed meanwhile goes with it', async () => {
  const s = server();
  const k = keeperOf(s);
  s.state.away = true;
  type(k, 'b');
  await pass(600);
  expect(k.kind()).toBe('away');
  type(k, 'c');
  expect(k.kind()).toBe('away');
  expect(k.box.pending).toEqual({ value: 'c', base: 1 });
  await pass(3000);
  expect(k.kind()).toBe('away');
  s.state.away = false;
  await pass(3000);
  expect(s.state).toMatchObject({ value: 'c', writes: 1 });
  expect(k.kind()).toBe('saved');
});

test('a refused value is said and kept; the next one is sent', async () => {
  const s = server();
  const k = keeperOf(s);
  s.state.status = 400;
  type(k, 'b');
  await pass(600);
  expect(k.keeper.view().state).toEqual({ kind: 'refused', message: 'no' });
  expect(k.box.pending).not.toBeNull();
  s.state.status = 0;
  type(k, 'c');
  await pass(600);
  expect(s.state.value).toBe('c');
});

test('somebody else’s version is never written over unasked; both ways out', async () => {
  for (const mine of [true, false]) {
    const s = server();
    const k = keeperOf(s);
    s.other('theirs');
    type(k, 'mine');
    await pass(600);
    expect(k.keeper.view().state).toEqual({
      kind: 'conflict',
      theirs: { value: 'theirs', base: 2 },
    });
    // typed on in the conflict: kept, not sent
    type(k, 'mine too');
    await pass(5000);
    expect(s.state).toMatchObject({ value: 'theirs', writes: 0 });
    k.keeper.choose(mine);
    await pass(600);
    expect(s.state.value).toBe(mine ? 'mine too' : 'theirs');
    expect(k.keeper.view()).toMatchObject({
      value: mine ? 'mine too' : 'theirs',
      state: { kind: 'saved' },
      canUndo: mine,
    });
    expect(k.box.pending).toBeNull();
  }
});

test('a version that this window sent from a view that was left is nobody else’s', async () => {
  const s = server();
  s.state.slowMs = 1000;
  const sent: string[] = [];
  const first = keeperOf(s, { sent });
  type(first, 'b');
  void first.keeper.flush();
  // the view opens again before the answer is there, with what the server had
  const second = keeperOf(s, { sent });
  type(second, 'bc');
  await pass(4000);
  expect(second.kind()).toBe('saved');
  expect(s.state).toMatchObject({ value: 'bc', writes: 2 });
});

test('a view that was left never writes its older version over the one that opened since', async () => {
  for (const order of ['left first', 'opened first']) {
    const s = server();
    const sent: string[] = [];
    const left = keeperOf(s, { sent });
    s.state.away = true;
    type(left, 'b');
    await pass(600);
    left.keeper.leave();
    await pass(10);
    const opened = keeperOf(s, { sent, pending: left.box.pending });
    opened.keeper.enter();
    type(opened, 'bc');
    if (order === 'opened first') {
      s.state.away = false;
      await opened.keeper.flush();
      expect(s.state.value).toBe('bc');
    } else {
      await pass(2000);
      s.state.away = false;
    }
    await pass(20_000);
    expect(s.state.value).toBe('bc');
    expect(opened.kind()).toBe('saved');
  }
});

test('what a crash left is sent when the view opens, from the revision it was typed on', async () => {
  const s = server();
  const k = keeperOf(s, { pending: { value: 'left', base: 1 } });
  expect(k.keeper.view()).toMatchObject({ value: 'left', state: { kind: 'saving' } });
  expect(await k.keeper.flush()).toBe(true);
  expect(s.state.value).toBe('left');
  s.other('later');
  const late = keeperOf(s, { pending: { value: 'older', base: 2 } });
  expect(await late.keeper.flush()).toBe(false);
  expect(late.kind()).toBe('conflict');
});

test('what the server would not take is held until mended', async () => {
  const s = server();
  const k = keeperOf(s, { takes: (v) => v !== 'wrong' });
  type(k, 'wrong');
  await pass(5000);
  expect(k.kind()).toBe('held');
  expect(s.state.writes).toBe(0);
  expect(k.box.pending?.value).toBe('wrong');
  expect(await k.keeper.flush()).toBe(false);
  type(k, 'right');
  await pass(600);
  expect(k.kind()).toBe('saved');
  // wrong while a right one is on its way
  s.state.slowMs = 1000;
  type(k, 'fine');
  await pass(600);
  type(k, 'wrong');
  await pass(3000);
  expect(k.kind()).toBe('held');
  expect(s.state.value).toBe('fine');
  const opened = keeperOf(s, { takes: (v) => v !== 'wrong', pending: { value: 'wrong', base: 1 } });
  expect(opened.kind()).toBe('held');
});

test('undo and redo are typed too: kept and sent', async () => {
  const s = server();
  const k = keeperOf(s);
  type(k, 'b');
  type(k, 'c');
  k.keeper.undo();
  expect(k.keeper.view()).toMatchObject({ value: 'b', canUndo: true, canRedo: true });
  await pass(600);
  expect(s.state.value).toBe('b');
  k.keeper.redo();
  k.keeper.redo();
  expect(k.keeper.view()).toMatchObject({ value: 'c', canRedo: false });
  await pass(600);
  expect(s.state.value).toBe('c');
  k.keeper.undo();
  type(k, 'd');
  expect(k.keeper.view().canRedo).toBe(false);
  k.keeper.change((v) => v);
  expect(k.keeper.view()).toMatchObject({ value: 'd' });
});

test('flush waits for what is under way and sends the rest', async () => {
  const s = server();
  s.state.slowMs = 1000;
  const k = keeperOf(s);
  type(k, 'b');
  await pass(600);
  type(k, 'c');
  const done = k.keeper.flush();
  await pass(3000);
  expect(await done).toBe(true);
  expect(s.state.value).toBe('c');
});

test('whatever happens in whatever order, once the server is there it has what stands here', async () => {
  const event = fc.oneof(
    fc.constantFrom('x', 'y', 'z').map((v) => ({ kind: 'type' as const, v })),
    fc.constant({ kind: 'undo' as const }),
    fc.constant({ kind: 'redo' as const }),
    fc.boolean().map((away) => ({ kind: 'away' as const, away })),
    fc.constantFrom(0, 700).map((slowMs) => ({ kind: 'slow' as const, slowMs })),
    fc.constantFrom(50, 600, 3100).map((ms) => ({ kind: 'wait' as const, ms })),
    fc.constant({ kind: 'flush' as const }),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(event, { maxLength: 25 }), async (events) => {
      const s = server();
      const k = keeperOf(s);
      for (const e of events) {
        if (e.kind === 'type') type(k, e.v);
        else if (e.kind === 'undo') k.keeper.undo();
        else if (e.kind === 'redo') k.keeper.redo();
        else if (e.kind === 'away') s.state.away = e.away;
        else if (e.kind === 'slow') s.state.slowMs = e.slowMs;
        else if (e.kind === 'wait') await pass(e.ms);
        else void k.keeper.flush();
        // what the server does not have is kept here
        if (k.keeper.view().value !== s.state.value) expect(k.box.pending).not.toBeNull();
      }
      s.state.away = false;
      s.state.slowMs = 0;
      await pass(10_000);
      expect(s.state.value).toBe(k.keeper.view().value);
      expect(k.box.pending).toBeNull();
      expect(k.kind()).toBe('saved');
    }),
    { numRuns: 150, seed: 11 },
  );
});
