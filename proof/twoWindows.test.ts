import { once } from 'node:events';
import fc from 'fast-check';
import { sameValue } from '@zugluft/core/family/diffRecords';
import { startProgram } from '../server/test-support/startProgram';
import { temporaryFolder } from '../server/test-support/temporaryFolder';
import { HttpProblem } from '../web/api/http';
import type { Draft } from '../web/documents/draftShelf';
import { createKeeper, type Keeper, type Version } from '../web/documents/keeper';

/** Fields that each window types into. */
const FIELDS = [
  ['a', 'b', 'c'],
  ['d', 'e', 'f'],
] as const;
const SAVE_AFTER_MS = 5;
const RETRY_AFTER_MS = 20;

type Extra = Record<string, number>;
type Doc = Record<string, unknown> & { extra: Extra };
type Answer = { revision: number; value: Doc };

/** What a hand and the world do, one after the other. */
const action = fc.oneof(
  {
    weight: 8,
    arbitrary: fc.record({
      do: fc.constant('type' as const),
      window: fc.nat(1),
      at: fc.nat(2),
      to: fc.integer({ min: 1, max: 1e6 }),
    }),
  },
  {
    weight: 4,
    arbitrary: fc.record({
      do: fc.constantFrom(
        'sent' as const,
        'look' as const,
        'reload' as const,
        'undo' as const,
        'redo' as const,
      ),
      window: fc.nat(1),
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      do: fc.constantFrom('cut' as const, 'away' as const, 'up' as const),
      window: fc.nat(1),
    }),
  },
);
type Action = typeof action extends fc.Arbitrary<infer A> ? A : never;

const folder = temporaryFolder();
let program: Awaited<ReturnType<typeof startProgram>>;
/** How the way to the server is: up, away, or so that answers are lost. */
let way: 'up' | 'away' | 'cut' = 'up';

beforeAll(async () => {
  program = await startProgram(folder);
});
afterAll(async () => {
  program.child.kill('SIGKILL');
  await once(program.child, 'exit');
});

async function call(
  path: string,
  method = 'GET',
  body?: unknown,
  more: Record<string, string> = {},
) {
  if (way === 'away') throw new HttpProblem(0, 'the server does not answer');
  let answer: Response;
  try {
    answer = await fetch(`${program.address}${path}`, {
      method,
      headers: { 'Content-Type': 'application/json', ...more },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
  } catch {
    throw new HttpProblem(0, 'the server does not answer');
  }
  const json = (await answer.json()) as Record<string, unknown>;
  if (!answer.ok) throw new HttpProblem(answer.status, String(json['detail']), json);
  return json;
}

/** A document in the library, and two windows on it, each with its own drawer. */
async function world(kind: string, id: string) {
  const at = `/api/documents/${kind}/${id}`;
  const read = async () => (await call(at)) as unknown as Answer;
  const acknowledged: Version<Doc>[] = [];
  const drafts: (Draft<Doc> | null)[] = [null, null];
  const windows: Keeper<Doc>[] = [];
  const open = async (window: number) => {
    const server = await read();
    const mine: Keeper<Doc> = createKeeper<Doc>({
      server: { ...server, at: null },
      draft: drafts[window]!,
      async send(seen, value, writeId) {
        // a window that was closed does nothing more
        if (windows[window] !== mine) return new Promise(() => undefined);
        const answer = (await call(
          at,
          'PUT',
          { value },
          {
            'If-Match': `"${seen}"`,
            'Idempotency-Key': writeId,
          },
        )) as unknown as Answer;
        if (way === 'cut') throw new HttpProblem(0, 'cut off');
        acknowledged.push({ revision: answer.revision, value: answer.value });
        return { revision: answer.revision, value: answer.value, at: null };
      },
      async keep(draft) {
        const text = JSON.stringify(draft);
        // a keeper that joins as it opens keeps before it is there
        await Promise.resolve();
        if (windows[window] === mine) drafts[window] = JSON.parse(text) as Draft<Doc>;
      },
      fit: (value) => value,
      describe: () => ({ label: 'a figure', place: '' }),
      saveAfterMs: SAVE_AFTER_MS,
      retryAfterMs: RETRY_AFTER_MS,
    });
    windows[window] = mine;
  };
  await open(0);
  await open(1);
  return { at, windows, read, reopen: open, acknowledged };
}
type World = Awaited<ReturnType<typeof world>>;

const tick = () => new Promise((resolve) => setTimeout(resolve, SAVE_AFTER_MS));

/** Until both windows have sent what they hold and seen what the other one sent. */
async function settle(w: World) {
  way = 'up';
  for (;;) {
    for (const k of w.windows) {
      if (k.view().state.kind === 'conflict') k.choose('mine');
      if (k.isDirty()) k.retry();
    }
    await tick();
    const now = await w.read();
    for (const k of w.windows) k.moved({ revision: now.revision, value: now.value });
    const done = w.windows.every(
      (k) =>
        !k.isDirty() &&
        k.view().state.kind === 'saved' &&
        k.view().kept === 'yes' &&
        sameValue(k.view().value, now.value),
    );
    if (done) return now;
  }
}

/** Until a window has nothing under way. */
async function sent(k: Keeper<Doc>) {
  while (k.isDirty() && ['saving', 'saved'].includes(k.view().state.kind)) await tick();
}

async function act(w: World, a: Action) {
  const k = w.windows[a.window]!;
  switch (a.do) {
    case 'type': {
      const field = FIELDS[a.window]![a.at]!;
      k.change((v) => ({ ...v, extra: { ...v.extra, [field]: a.to } }));
      break;
    }
    case 'undo':
      k.undo();
      break;
    case 'redo':
      k.redo();
      break;
    case 'sent':
      await sent(k);
      break;
    case 'look':
      if (way !== 'away') k.moved(await w.read());
      break;
    case 'reload':
      if (way !== 'away') await w.reopen(a.window);
      break;
    case 'cut':
    case 'away':
    case 'up':
      way = a.do;
      break;
  }
}

/** The program is killed where it is, and started anew on what lies on the disk. */
async function kill() {
  program.child.kill('SIGKILL');
  await once(program.child, 'exit');
  program = await startProgram(folder);
}

const record = {
  format: 'zugluft-record',
  formatVersion: 1,
  extra: { a: 0, b: 0, c: 0, d: 0, e: 0, f: 0 },
};
const FIRST: Record<string, Doc> = {
  record,
  log: { format: 'zugluft-openup', formatVersion: 1, extra: record.extra },
};

async function made(kind: string) {
  way = 'up';
  const { id } = (await call('/api/machines', 'POST', { record })) as { id: string };
  if (kind !== 'record') {
    const value = FIRST[kind];
    await call(`/api/documents/${kind}/${id}`, 'PUT', { value }, { 'If-Match': '"0"' });
  }
  return world(kind, id);
}

// the program is killed and started anew a dozen times, which on a busy machine takes minutes
jest.setTimeout(600_000);

describe.each(Object.keys(FIRST))('%s through the program itself', (kind) => {
  test('two windows, reloads, cuts, a server away and killed: what both typed stands there, nothing that was acknowledged is lost', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(action, { minLength: 4, maxLength: 16 }),
        fc.option(fc.nat(15), { freq: 2 }),
        async (actions, killAt) => {
          const w = await made(kind);
          const meant: Extra = { ...record.extra };
          let stepped = false;
          for (const [i, a] of actions.entries()) {
            await act(w, a);
            if (a.do === 'type') meant[FIELDS[a.window]![a.at]!] = a.to;
            if (a.do === 'undo' || a.do === 'redo') stepped = true;
            if (i === killAt) await kill();
          }
          const now = await settle(w);
          if (!stepped) expect(now.value.extra).toEqual(meant);
          // every version that was acknowledged is in the history as it was
          for (const { revision, value } of w.acknowledged) {
            const old = (await call(`${w.at}/revisions/${revision}`)) as unknown as Answer;
            expect(old.value).toEqual(value);
          }
        },
      ),
      { numRuns: 12, seed: 7 },
    );
  });
});
