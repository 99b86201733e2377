import fc from 'fast-check';
import { splitList } from './splitList';

test('the elements of any list are those that reading it whole gives', () => {
  fc.assert(
    fc.property(
      fc.array(fc.jsonValue(), { maxLength: 8 }),
      fc.integer({ min: 0, max: 3 }),
      (list, space) => {
        const text = ` ${JSON.stringify(list, null, space)}\n`;
        expect(splitList(text)!.map((t) => JSON.parse(t) as unknown)).toEqual(JSON.parse(text));
      },
    ),
  );
});

test.each(['', '[', '[1', '[1,2', '{"a":1}', '[1}', '[1] and more', '["[', '[[]', '["a\\"]'])(
  '%s is no list that ends where the text does',
  (text) => expect(splitList(text)).toBeNull(),
);

test('what stands between two commas is told as it is, also where it is nothing', () => {
  expect(splitList('[1,,2 3,]')).toEqual(['1', '', '2 3', '']);
  expect(splitList('[ ]')).toEqual([]);
});
