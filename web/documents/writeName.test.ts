import fc from 'fast-check';
import { writeName } from './writeName';

test('the same value on the same revision has the same name; any other has another', () => {
  expect(writeName(3, { a: 1 })).toBe(writeName(3, JSON.parse('{"a":1}')));
  expect(writeName(3, { a: 1 })).not.toBe(writeName(4, { a: 1 }));
  fc.assert(
    fc.property(fc.jsonValue(), fc.jsonValue(), (a, b) => {
      if (JSON.stringify(a) !== JSON.stringify(b))
        expect(writeName(1, a)).not.toBe(writeName(1, b));
    }),
  );
});

test('it is one that the server takes', () => {
  for (const value of [undefined, {}, 'ä'.repeat(9000)]) {
    expect(writeName(999_999_999, value)).toMatch(/^[\w-]{8,60}$/);
  }
});
