import { openCase } from '../case/openCase';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { coolsDownInS, settledAfterS } from './runTimes';

const open = openCase({ record: completeRecord(exampleRecord('two-fan-shared-pipes')) });

test('a load settles within minutes, and the machine is cool again within some more', () => {
  const settles = settledAfterS(open, 'both', 'full');
  expect(settles).toBeGreaterThan(60);
  expect(settles).toBeLessThan(1800);
  const cools = coolsDownInS(open, 'both', 'full');
  expect(cools).toBeGreaterThan(30);
  expect(cools).toBeLessThan(2400);
});

test('with the fans held low it takes longer to cool down; what idles has nothing to cool', () => {
  expect(coolsDownInS(open, 'both', 28)).toBeGreaterThan(coolsDownInS(open, 'both', 'full'));
  expect(coolsDownInS(open, 'none', 'full')).toBe(0);
});
