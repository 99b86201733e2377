import fc from 'fast-check';
import { isLeaf, keyedById, sameValue } from '@zugluft/core/family/diffRecords';
import { keepablePart } from '@zugluft/core/documents/keepablePart';
import { applyPatch } from '@zugluft/core/documents/patch';
import { isObject } from '@zugluft/core/record/plainJson';
import { randomRecord } from '@zugluft/core/test-support/randomRecord';
import { HttpProblem } from '../api/http';
import type { Draft } from './draftShelf';
import { createKeeper, type Keeper, type Version } from './keeper';

type Path = (string | number)[];

/** Places of numbers in a value, each with the figure that a conflict would be asked for: a list without ids is one figure. */
function numbersIn(value: unknown, path: Path = [], figure: string | null = null) {
  const out: { path: Path; figure: string }[] = [];
  const name = figure ?? path.join('.');
  if (typeof value === 'number') out.push({ path, figure: name });
  else if (Array.isArray(value)) {
    const whole = keyedById(value) ? figure : name;
    value.forEach((x, i) => out.push(...numbersIn(x, [...path, i], whole)));
  } else if (isObject(value)) {
    const whole = isLeaf(value) && path.length ? name : figure;
    for (const [key, x] of Object.entries(value)) {
      out.push(...numbersIn(x, [...path, key], whole));
    }
  }
  return out;
}

/** Numbers of a document, every other figure for each of two windows. */
function sharedOut(value: unknown) {
  const numbers = numbersIn(value);
  const figures = [...new Set(numbers.map((n) => n.figure))];
  const places = [0, 1].map((w) =>
    numbers.filter((n) => figures.indexOf(n.figure) % 2 === w).map((n) => n.path),
  );
  return { numbers, places };
}

/** The same documents and hands each time; another seed in KEEPER_SEED tries others. */
const RUNS = { numRuns: 60, seed: Number(process.env['KEEPER_SEED'] ?? 11) };

const many = <T>(of: fc.Arbitrary<T>) => fc.array(of, { minLength: 1, maxLength: 4 });
const named = (prefix: string, list: object[]) =>
  list.map((x, i) => ({ id: `${prefix}-${i + 1}`, ...x }));
const whole = fc.integer({ min: 1, max: 40 });

/** Documents with many figures, of kinds that are typed at length. */
const documents: Record<string, fc.Arbitrary<unknown>> = {
  record: randomRecord,
  log: many(fc.record({ minutes: whole, layer: whole })).map((steps) => ({
    steps: named('step', steps),
    screws: named('screw', steps),
    score: { minutes: 4 },
  })),
  unit: fc.record({ hours: whole, openings: whole, paste: fc.record({ years: whole }) }),
  photo: fc.record({ turn: whole, boxes: fc.array(fc.record({ x: whole, y: whole })), at: whole }),
  settings: many(whole).map((levels) => ({
    caps: { levelsDbA: levels },
    rubric: { perScrew: 1, perTool: 2 },
  })),
  defaults: many(fc.record({ median: whole, min: whole, max: whole })).map((list) =>
    Object.fromEntries(list.map((x, i) => [`default.${i}`, x])),
  ),
};

/** What a hand and the world do, one after the other. */
const action = fc.oneof(
  {
    weight: 8,
    arbitrary: fc.record({
      do: fc.constant('type' as const),
      window: fc.nat(1),
      at: fc.nat(),
      to: fc.integer({ min: 100, max: 100_000 }),
    }),
  },
  {
    weight: 3,
    arbitrary: fc.record({
      do: fc.constantFrom('undo' as const, 'redo' as const, 'wait' as const, 'look' as const),
      window: fc.nat(1),
    }),
  },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('kill' as const), window: fc.nat(1) }) },
  {
    weight: 1,
    arbitrary: fc.record({
      do: fc.constant('server' as const),
      mode: fc.constantFrom('up' as const, 'away' as const, 'answer lost' as const),
      window: fc.nat(1),
    }),
  },
);
type Action = typeof action extends fc.Arbitrary<infer A> ? A : never;

const HALF = 'half typed';
const acceptNumbers = (value: unknown) => {
  const refused = textsIn(value).map((path) => ({ path: path.join('.'), message: 'no number' }));
  return refused.length ? { refused } : { value };
};

/** Places of what is half typed. */
function textsIn(value: unknown, path: Path = []): Path[] {
  if (value === HALF) return [path];
  if (Array.isArray(value)) return value.flatMap((x, i) => textsIn(x, [...path, i]));
  if (!isObject(value)) return [];
  return Object.entries(value).flatMap(([key, x]) => textsIn(x, [...path, key]));
}

/** A server with its lock, and two windows on it, each with its own drawer in the browser's database. */
function world(first: unknown) {
  const server = {
    mode: 'up' as 'up' | 'away' | 'answer lost',
    versions: [{ revision: 1, value: first, name: '' }],
  };
  const now = () => server.versions.at(-1)!;
  const drafts: (Draft<unknown> | null)[] = [null, null];
  const send = async (seen: number, value: unknown, name: string) => {
    await Promise.resolve();
    if (server.mode === 'away') throw new HttpProblem(0, 'the server does not answer');
    if (seen !== now().revision) {
      if (server.versions.find((v) => v.revision === seen + 1)?.name === name) {
        return { ...now(), at: null };
      }
      throw new HttpProblem(412, 'changed', { theirs: structuredClone(now()) });
    }
    server.versions.push({ revision: seen + 1, value: structuredClone(value), name });
    if (server.mode === 'answer lost') throw new HttpProblem(0, 'cut off');
    return { revision: seen + 1, value: structuredClone(value), at: null };
  };
  const windows: Keeper<unknown>[] = [];
  const open = (window: number): void => {
    const mine: Keeper<unknown> = createKeeper<unknown>({
      server: { revision: now().revision, value: structuredClone(now().value), at: null },
      draft: drafts[window]!,
      // a window that was killed does nothing more
      send: (seen, value, name) =>
        alive() ? send(seen, value, name) : new Promise(() => undefined),
      keep: async (draft) => {
        const text = JSON.stringify(draft);
        // a keeper that joins as it opens keeps before it is there
        await Promise.resolve();
        if (alive()) drafts[window] = JSON.parse(text) as Draft<unknown>;
      },
      fit: (value, base) => keepablePart(acceptNumbers, value, base),
      describe: () => ({ label: 'a figure', place: '' }),
    });
    windows[window] = mine;
    function alive(): boolean {
      return windows[window] === mine;
    }
  };
  open(0);
  open(1);
  return { server, now, windows, reopen: open };
}

const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);
beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

/** Until both windows have sent what they hold and seen what the other sent; asked figures are answered with mine. */
async function settle(w: ReturnType<typeof world>) {
  w.server.mode = 'up';
  for (let round = 0; round < 8; round++) {
    for (const k of w.windows) {
      if (k.view().state.kind === 'conflict') k.choose('mine');
      k.retry();
      await pass(700);
      const { revision, value } = structuredClone(w.now()) as Version<unknown>;
      k.moved({ revision, value });
    }
  }
}

async function act(w: ReturnType<typeof world>, a: Action, places: Path[][]) {
  const k = w.windows[a.window]!;
  if (a.do === 'type') {
    const own = places[a.window]!;
    const path = own[a.at % own.length]!;
    k.change((v) => applyPatch(v, [{ path, after: a.to }], 'forward'));
    return path;
  }
  if (a.do === 'undo') k.undo();
  if (a.do === 'redo') k.redo();
  if (a.do === 'wait') await pass(700);
  if (a.do === 'look') k.moved(structuredClone(w.now()));
  if (a.do === 'server') w.server.mode = a.mode;
  if (a.do === 'kill') w.reopen(a.window);
  return null;
}

const same = (a: Path, b: Path) => a.join('/') === b.join('/');
const at = (value: unknown, path: Path) =>
  path.reduce<unknown>((v, key) => (v as Record<string | number, unknown>)[key], value);

describe.each(Object.entries(documents))('%s, two windows', (_kind, document) => {
  test('each in figures of its own: through kills, cuts and a server away both stand there at the end', async () => {
    await fc.assert(
      fc.asyncProperty(document, fc.array(action, { maxLength: 24 }), async (first, actions) => {
        const { places } = sharedOut(first);
        fc.pre(places.every((p) => p.length > 0));
        const w = world(first);
        let meant = first;
        for (const a of actions) {
          if (a.do === 'undo' || a.do === 'redo') continue;
          const path = await act(w, a, places);
          if (path && a.do === 'type') {
            meant = applyPatch(meant, [{ path, after: a.to }], 'forward');
          }
          for (const k of w.windows) expect(k.view().state.kind).not.toBe('conflict');
        }
        await settle(w);
        expect(sameValue(w.now().value, meant)).toBe(true);
        for (const k of w.windows) {
          expect(k.view()).toMatchObject({ state: { kind: 'saved' }, kept: 'yes' });
          expect(sameValue(k.view().value, meant)).toBe(true);
        }
      }),
      RUNS,
    );
  });

  test('a figure half typed holds no other back, stays where it was typed, and is sent once it is whole', async () => {
    await fc.assert(
      fc.asyncProperty(document, fc.array(action, { maxLength: 24 }), async (first, actions) => {
        const { numbers, places } = sharedOut(first);
        fc.pre(places.every((p) => p.length > 0));
        const w = world(first);
        let meant = first;
        for (const a of actions) {
          if (a.do === 'undo' || a.do === 'redo') continue;
          if (a.do === 'type' && a.to % 3 === 0) {
            const own = places[a.window]!;
            const path = own[a.at % own.length]!;
            const half = [{ path, after: HALF }];
            w.windows[a.window]!.change((v) => applyPatch(v, half, 'forward'));
            meant = applyPatch(meant, half, 'forward');
            await pass(0);
            continue;
          }
          const path = await act(w, a, places);
          if (path && a.do === 'type') {
            meant = applyPatch(meant, [{ path, after: a.to }], 'forward');
          }
        }
        await settle(w);
        const halves = textsIn(meant);
        const held = halves.map((path) => numbers.find((n) => same(n.path, path))!.figure);
        for (const { value } of w.server.versions) expect(textsIn(value)).toEqual([]);
        for (const { path, figure } of numbers) {
          // a list without names is kept as one figure
          if (held.includes(figure)) continue;
          expect(at(w.now().value, path)).toEqual(at(meant, path));
        }
        w.windows.forEach((k, i) => {
          const mine = halves.filter((path) => places[i]!.some((p) => same(p, path)));
          expect(k.view().state).toMatchObject(
            mine.length ? { kind: 'held', rest: true } : { kind: 'saved' },
          );
          for (const path of mine) {
            expect(at(k.view().value, path)).toBe(HALF);
            k.change((v) => applyPatch(v, [{ path, after: 7 }], 'forward'));
          }
        });
        await settle(w);
        const whole = halves.reduce(
          (v, path) => applyPatch(v, [{ path, after: 7 }], 'forward'),
          meant,
        );
        expect(sameValue(w.now().value, whole)).toBe(true);
      }),
      RUNS,
    );
  });

  test('anywhere, with undo: what was typed last where the other did not type is never lost, and all windows agree', async () => {
    await fc.assert(
      fc.asyncProperty(document, fc.array(action, { maxLength: 24 }), async (first, actions) => {
        const all = numbersIn(first).map((n) => n.path);
        fc.pre(all.length > 1);
        const w = world(first);
        for (const a of actions) {
          const before = JSON.stringify(w.windows[a.window]!.view().value);
          await act(w, a, [all, all]);
          // a reload shows what stood there, or that joined with what the other window wrote
          if (a.do === 'kill' && w.now().revision === 1) {
            expect(JSON.stringify(w.windows[a.window]!.view().value)).toBe(before);
          }
        }
        await settle(w);
        for (const k of w.windows) {
          expect(k.view().state.kind).toBe('saved');
          expect(k.isDirty()).toBe(false);
          expect(sameValue(k.view().value, w.now().value)).toBe(true);
        }
        expect(w.server.versions.map((v) => v.revision)).toEqual(
          w.server.versions.map((_, i) => i + 1),
        );
        // what was typed and not taken back by hand or by choice stands in some version
        const last = actions.filter((a) => a.do === 'type').at(-1);
        if (last && actions.every((a) => a.do !== 'undo' && a.do !== 'redo')) {
          const path = all[last.at % all.length]!;
          expect(w.server.versions.map((v) => at(v.value, path))).toContain(last.to);
        }
      }),
      RUNS,
    );
  });

  test('one window: steps back lead to the beginning, reloads among them', async () => {
    await fc.assert(
      fc.asyncProperty(document, fc.array(action, { maxLength: 24 }), async (first, actions) => {
        const all = numbersIn(first).map((n) => n.path);
        fc.pre(all.length > 1);
        const w = world(first);
        for (const a of actions) await act(w, { ...a, window: 0 }, [all, all]);
        await settle(w);
        while (w.windows[0]!.undo());
        await settle(w);
        expect(w.now().value).toEqual(first);
        while (w.windows[0]!.redo());
        await settle(w);
        expect(w.windows[0]!.view().state.kind).toBe('saved');
      }),
      RUNS,
    );
  });
});
