import { readRatio } from './readRatio';

test.each([
  ['45:60', 45, 60],
  ['45 : 60', 45, 60],
  ['45/60', 45, 60],
  ['45 to 60', 45, 60],
  ['45 60', 45, 60],
  ['1,5 : 2', 1.5, 2],
  ['45 W : 60 W', 45, 60],
])('“%s” is a ratio', (text, cpu, gpu) => {
  expect(readRatio(text)).toEqual({ cpu, gpu });
});

test.each(['', '45', '45:', '0:60', '45:0', '-1:2', '1:2:3', 'a:b', '1:5000', 'NaN:1'])(
  '“%s” is none',
  (text) => expect(readRatio(text)).toBeNull(),
);
