import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { excludeEachOther, pulledTogether } from './lever';
import { leversOf } from './leversOf';

const levers = leversOf(completeRecord(exampleRecord('two-fan-shared-pipes')));
const of = (id: string) => levers.find((l) => l.id === id)!;

test('what changes the same figure excludes each other, what changes others does not', () => {
  expect(excludeEachOther(of('liquid-metal'), of('premium-interface'))).toBe(true);
  expect(excludeEachOther(of('renew-interface'), of('liquid-metal'))).toBe(true);
  expect(excludeEachOther(of('renew-interface'), of('cooler-room'))).toBe(false);
  expect(excludeEachOther(of('raise-rear'), of('raise-all'))).toBe(false);
});

test('pulled together they change all, and the setting as soon as one moves that', () => {
  const both = pulledTogether([of('renew-interface'), of('cooler-room')]);
  expect(both.change).toEqual([...of('renew-interface').change, ...of('cooler-room').change]);
  expect(both.moves).toBe('cooling');
  expect(pulledTogether([of('cooler-room'), of('limits')]).moves).toBe('setting');
});
