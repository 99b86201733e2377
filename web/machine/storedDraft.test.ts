import { dropDraft, keepDraft, readDraft } from './storedDraft';

const draft = { baseRevision: 4, record: { identity: { maker: '9,5 mm?' } }, keptAt: '2026-11-25' };

function storage(): Storage {
  const items = new Map<string, string>();
  return {
    getItem: (k: string) => items.get(k) ?? null,
    setItem: (k: string, v: string) => void items.set(k, v),
    removeItem: (k: string) => void items.delete(k),
  } as Storage;
}

beforeEach(() => {
  global.localStorage = storage();
});

test('what was typed is kept by machine, raw text too, and dropped when it is saved', () => {
  expect(keepDraft('a', draft)).toBe(true);
  expect(readDraft('a')).toEqual(draft);
  expect(readDraft('b')).toBeNull();
  dropDraft('a');
  expect(readDraft('a')).toBeNull();
});

test('a full or switched-off storage is told, not thrown', () => {
  const refuse = () => {
    throw new DOMException('full', 'QuotaExceededError');
  };
  global.localStorage = { getItem: refuse, setItem: refuse, removeItem: refuse } as never;
  expect(keepDraft('a', draft)).toBe(false);
  expect(readDraft('a')).toBeNull();
  expect(() => dropDraft('a')).not.toThrow();
});

test('a broken entry is no draft', () => {
  localStorage.setItem('zugluft.draft.a', '{"baseRev');
  expect(readDraft('a')).toBeNull();
});
