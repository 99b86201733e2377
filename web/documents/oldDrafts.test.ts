import { takeOldDraft } from './oldDrafts';

const store = new Map<string, string>();
beforeEach(() => {
  store.clear();
  globalThis.localStorage = {
    getItem: (k: string) => store.get(k) ?? null,
    removeItem: (k: string) => void store.delete(k),
  } as Storage;
});
const server = { revision: 3, value: { format: 'zugluft-record', formatVersion: 1 } };

test.each([
  ['record', { record: { format: 'zugluft-record', dies: 'half' }, baseRevision: 3 }],
  ['record', { value: { format: 'zugluft-record', dies: 'half' }, base: 3 }],
  ['record', { value: { format: 'zugluft-record', dies: 'half' }, revision: 3 }],
] as const)(
  'what an earlier program kept of a %s is taken with all that was typed',
  (kind, kept) => {
    store.set('zugluft.draft.m', JSON.stringify(kept));
    const old = takeOldDraft(kind, 'm', server)!;
    expect(old.draft).toEqual({
      base: { revision: 3, value: server.value },
      value: { format: 'zugluft-record', dies: 'half' },
      dirty: true,
      past: [],
      future: [],
    });
    // it stays where it is until it is kept elsewhere
    expect(store.size).toBe(1);
    old.drop();
    expect(store.size).toBe(0);
  },
);

test('made from another revision, everything that differs will be asked about', () => {
  store.set('zugluft.draft.m', JSON.stringify({ value: { format: 'zugluft-record' }, base: 2 }));
  expect(takeOldDraft('record', 'm', server)!.draft.base).toEqual({ revision: 2, value: {} });
});

test('a log and facts of a unit lie under names of their own', () => {
  const log = { format: 'zugluft-openup', formatVersion: 1, steps: [] };
  store.set('zugluft.log.m', JSON.stringify({ log, base: 1 }));
  store.set('zugluft.unit.u', JSON.stringify({ facts: { serial: 'A7' }, base: 1 }));
  const blank = { revision: 1, value: {} };
  expect(takeOldDraft('log', 'm', blank)!.draft.value).toMatchObject({ steps: [] });
  expect(takeOldDraft('unit', 'u', blank)!.draft.value).toMatchObject({ serial: 'A7' });
});

test.each([
  ['nothing', null],
  ['half a text', '{"value":'],
  ['no revision', JSON.stringify({ value: {} })],
  ['no value', JSON.stringify({ base: 3 })],
  ['a list', '[1]'],
])('%s is no draft', (_, text) => {
  if (text !== null) store.set('zugluft.draft.m', text);
  expect(takeOldDraft('record', 'm', server)).toBeNull();
});

test('a log that is none is left where it is; kinds that were never kept there have none', () => {
  store.set('zugluft.log.m', JSON.stringify({ log: 'x', base: 1 }));
  expect(takeOldDraft('log', 'm', server)).toBeNull();
  expect(store.size).toBe(1);
  expect(takeOldDraft('photo', 'm', server)).toBeNull();
});
