import { balanceWords } from './balanceWords';
import { openUpLog } from './openUpLog';
import { screwBalance } from './screwBalance';

const words = (...screws: object[]) => {
  const log = openUpLog.parse({
    format: 'zugluft-openup',
    formatVersion: 1,
    groups: [
      { id: 'a', letter: 'A' },
      { id: 'b', letter: 'B' },
    ],
    screws: screws.map((s, i) => ({ id: `s${i + 1}`, layer: 'base', xMm: i, yMm: 0, ...s })),
  });
  return balanceWords(log, screwBalance(log));
};

test.each([
  ['nothing is open', [{ group: 'a', out: true, back: 'own' }], 'Every hole is as it was found.'],
  [
    'what was missing before is nothing new',
    [{ group: 'a', onArrival: 'missing' }],
    'Every hole is as it was found.',
  ],
  ['one on the bench', [{ group: 'a', out: true }], 'A: 1 on the bench; A: open s1'],
  ['one lost', [{ group: 'a', out: true, back: 'lost' }], 'A: open s1; A: 1 lost'],
  [
    'one elsewhere, its own hole open',
    [
      { group: 'a', out: true },
      { group: 'b', out: true, back: 's1' },
    ],
    'A: 1 on the bench; s1 holds a screw of B. B: open s2',
  ],
  [
    'two in one hole',
    [
      { group: 'a', out: true, back: 'own' },
      { group: 'a', out: true, back: 's1' },
    ],
    'A: open s2. s1 is said to hold two screws',
  ],
])('%s', (_, screws, expected) => {
  expect(words(...screws)).toBe(expected);
});
