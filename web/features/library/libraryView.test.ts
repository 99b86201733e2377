import { capOf, filtersSet, listParams, readBound } from './libraryView';

const CAPS = ['off', 30, 40, 50, 'full'] as const;
const view = (text: string) => new URLSearchParams(text);

test('a view becomes the server’s query; filters that are no numbers are left out', () => {
  const params = new URLSearchParams(
    listParams(
      view('q=heron&sort=-massKg&massMax=2,5&fansMin=many&cap=32&chamber=1&tag=stage'),
      CAPS,
      3,
    ),
  );
  expect(Object.fromEntries(params)).toEqual({
    q: 'heron',
    sort: '-massKg',
    page: '3',
    pageSize: '100',
    putAside: '0',
    cap: '32',
    massMax: '2.5',
    chamber: '1',
    tag: 'stage',
  });
});

test('a cap from the address: one of the laboratory’s or any other level; nonsense is the middle one', () => {
  expect(capOf(view('cap=full'), CAPS)).toBe('full');
  expect(capOf(view('cap=off'), CAPS)).toBe('off');
  expect(capOf(view('cap=37,5'), CAPS)).toBe(37.5);
  for (const bad of ['cap=loud', 'cap=14.9', 'cap=70.1', 'cap=1e1', 'cap=', '']) {
    expect(capOf(view(bad), CAPS)).toBe(40);
  }
  expect(capOf(view(''), ['off', 'full'])).toBe('full');
});

test('bounds and what lies just outside them', () => {
  expect([readBound('0'), readBound('1000000'), readBound(' 2,5 ')]).toEqual([0, 1e6, 2.5]);
  expect([
    readBound('-1'),
    readBound('1000001'),
    readBound('x'),
    readBound(''),
    readBound(null),
  ]).toEqual(Array.from({ length: 5 }, () => undefined));
});

test('filters are counted, words and order are none', () => {
  expect(filtersSet(view('q=a&sort=fans&massMax=2&tag=x'))).toBe(2);
});
