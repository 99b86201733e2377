import { backTogether } from '@zugluft/core/service/backTogether';
import { takeOne } from '@zugluft/core/service/benchEdits';
import { addStep } from '@zugluft/core/service/logEdits';
import { EMPTY_LOG } from '@zugluft/core/service/openUpLog';
import { groupKeys, letterOf } from './groupKeys';

test('a digit means a group by its place in the alphabet', () => {
  expect(['1', '5', '9'].map(letterOf)).toEqual(['A', 'E', 'I']);
});

test('while opening: what is known and one new group; on the way back those of the step alone', () => {
  expect(groupKeys(EMPTY_LOG, 'open').map((k) => k.words)).toEqual(['new A']);
  let log = addStep(addStep(EMPTY_LOG, 'Base cover off'), 'Heat sink lifted');
  log = takeOne(log, 'step1', 'A', 'base', null);
  log = takeOne(log, 'step2', 'C', 'base', null);
  log = takeOne(log, 'step2', 'Z', 'base', null);
  expect(groupKeys(log, 'open')).toEqual([
    { key: '1', letter: 'A', words: 'A' },
    { key: '2', letter: 'B', words: 'new B' },
    { key: '3', letter: 'C', words: 'C' },
  ]);
  expect(groupKeys(log, backTogether(log)[0]!).map((k) => k.letter)).toEqual(['C']);
});
