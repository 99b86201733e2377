import fc from 'fast-check';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { applyChanges, ImpossibleChange } from './applyChanges';

const record = completeRecord(exampleRecord('two-fan-shared-pipes'));
const four = completeRecord(exampleRecord('four-fan-eight-pipes'));

test('figures are set by the ids of their parts, parts are removed and added, all else stays', () => {
  const next = applyChanges(record, [
    { path: 'dies.cpu.interface.ageYears', to: 0 },
    { path: 'shell.footHeightMm', to: 8 },
    { path: 'room.surface', to: 'stand' },
  ]).record;
  expect(next.dies!.find((d) => d.id === 'cpu')!.interface!.ageYears).toBe(0);
  expect(next.dies!.find((d) => d.id === 'gpu')).toEqual(record.dies!.find((d) => d.id === 'gpu'));
  expect(next.shell).toEqual({ ...record.shell, footHeightMm: 8 });
  expect(next.room!.surface).toBe('stand');
  expect(next.heatPipes).toEqual(record.heatPipes);
  const pipe = four.heatPipes![0]!;
  const fewer = applyChanges(four, [{ path: `heatPipes.${pipe.id}`, to: null }]).record;
  expect(fewer.heatPipes!.map((p) => p.id)).not.toContain(pipe.id);
  const { id: _, ...like } = pipe;
  const more = applyChanges(four, [{ path: 'heatPipes.extra', to: like }]).record;
  expect(more.heatPipes).toEqual([...four.heatPipes!, { ...pipe, id: 'extra' }]);
  const without = applyChanges(record, [{ path: 'settings.full.cpuShortW', to: null }]).record;
  expect(without.settings![0]).not.toHaveProperty('cpuShortW');
});

test('a setting is chosen, and nothing else changes', () => {
  const one = completeRecord(exampleRecord('one-die'));
  expect(applyChanges(one, [{ path: 'setting', to: 'full' }], 'quiet')).toEqual({
    record: one,
    setting: 'full',
  });
  expect(applyChanges(one, [], 'quiet').setting).toBe('quiet');
});

test.each([
  [[{ path: 'fans.none.maxRpm', to: 4000 }], /no part called “none”/],
  [[{ path: 'fans.none', to: null }], /no part called “none”/],
  [[{ path: 'fans.new', to: 4 }], /as an object/],
  [[{ path: 'setting', to: 'none' }], /no setting called “none”/],
  [[{ path: 'fans..maxRpm', to: 4 }], /no place of a record/],
  [[{ path: 'dies.cpu.widthMm', to: -3 }], /widthMm/],
  [[{ path: 'shell.widthMm.value.deep', to: 3 }], /nothing below|value/],
])('%j is refused in words', (changes, words) => {
  expect(() => applyChanges(record, changes)).toThrow(ImpossibleChange);
  expect(() => applyChanges(record, changes)).toThrow(words);
});

test('changes to different places may come in any order', () => {
  const changes = [
    { path: 'dies.cpu.interface.ageYears', to: 0 },
    { path: 'dies.gpu.interface.ageYears', to: 1 },
    { path: 'finStacks.fins-left.depthMm', to: 30 },
    { path: 'shell.footHeightMm', to: 7 },
    { path: 'room.temperatureC', to: 19 },
  ];
  const straight = applyChanges(record, changes).record;
  fc.assert(
    fc.property(fc.shuffledSubarray(changes, { minLength: changes.length }), (shuffled) => {
      expect(applyChanges(record, shuffled).record).toEqual(straight);
    }),
  );
});
