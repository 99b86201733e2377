import { exchangeAsked, oldLibraryAddress, quietestFor, WITH_EXCHANGE } from './places';

test('an address of the library as it was before still leads to its view', () => {
  expect(oldLibraryAddress('?q=heron&sort=-massKg')).toBe('/library?q=heron&sort=-massKg');
  expect(oldLibraryAddress('?')).toBeNull();
  expect(oldLibraryAddress('')).toBeNull();
});

test('the quietest for some watts is the library, sorted', () => {
  expect(quietestFor(62.5)).toBe('/library?needW=62.5&sort=quietFor62.5W');
});

test('import and export stand open only where they were asked for', () => {
  expect(exchangeAsked(WITH_EXCHANGE.state)).toBe(true);
  for (const other of [null, undefined, {}, { fresh: true }, { exchange: 'yes' }, 'exchange']) {
    expect(exchangeAsked(other)).toBe(false);
  }
});
