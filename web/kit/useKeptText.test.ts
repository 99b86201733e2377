import { keepTexts, readTexts } from './useKeptText';

const store = new Map<string, string>();
beforeEach(() => {
  store.clear();
  global.localStorage = {
    getItem: (k: string) => store.get(k) ?? null,
    setItem: (k: string, v: string) => void store.set(k, v),
    removeItem: (k: string) => void store.delete(k),
  } as Storage;
});

test('what was typed is there again, gaps too; empty fields leave nothing behind', () => {
  const texts: string[] = [];
  texts[1] = '4800';
  keepTexts('row', texts);
  expect(readTexts('row')).toEqual(['', '4800']);
  keepTexts('row', ['', '']);
  expect(store.size).toBe(0);
  expect(readTexts('row')).toEqual([]);
});

test.each(['{', '{"a":1}', '[1,null,"x"]'])('%s in the storage breaks nothing', (kept) => {
  store.set('row', kept);
  expect(readTexts('row').every((t) => typeof t === 'string')).toBe(true);
});

test('without storage the page goes on', () => {
  global.localStorage = {
    getItem: () => {
      throw new Error('denied');
    },
    setItem: () => {
      throw new Error('denied');
    },
  } as never;
  expect(readTexts('row')).toEqual([]);
  expect(() => keepTexts('row', ['a'])).not.toThrow();
});
