import { openCase } from '../case/openCase';
import { sustainedTogether } from '../case/sustainedTogether';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { applyChanges } from './applyChanges';
import { DESIGN_FIGURES, designChange, designSearch, sizesAbout } from './designSearch';

jest.setTimeout(120_000);
const record = completeRecord(exampleRecord('two-fan-shared-pipes'));
const four = completeRecord(exampleRecord('four-fan-eight-pipes'));
const NEED = { cpuW: 30, gpuW: 45 };

test.each(DESIGN_FIGURES)(
  '%s: the least is that of trying each size for itself, and what is smaller does not do',
  (figure) => {
    const found = designSearch({ record }, figure, 36, NEED)!;
    const ratio = { cpu: NEED.cpuW, gpu: NEED.gpuW };
    const solved = (size: number) => {
      const changed = applyChanges(record, designChange(record, figure, size));
      return sustainedTogether(openCase({ ...changed, ratio }), [36])[0]!;
    };
    const toMedian = found.today.watts / solved(found.today.size);
    for (const p of found.curve) expect(p.watts).toBeCloseTo(solved(p.size) * toMedian, 3);
    const enough = found.curve.filter((p) => p.watts >= NEED.cpuW + NEED.gpuW);
    expect(found.least!.size).toBe(Math.min(...enough.map((p) => p.size)));
    // today's own size is among them, with today's watts
    const own = found.curve.find((p) => p.size === found.today.size)!;
    expect(own.change).toEqual([]);
    expect(own.watts).toBeCloseTo(found.today.watts, 3);
  },
);

test('a record changed to the least carries what is needed, re-inserted', () => {
  const { least, today } = designSearch({ record }, 'stacks', 36, NEED)!;
  const changed = applyChanges(record, least!.change);
  const ratio = { cpu: NEED.cpuW, gpu: NEED.gpuW };
  const [central] = sustainedTogether(openCase({ record, ratio }), [36]);
  const [after] = sustainedTogether(openCase({ ...changed, ratio }), [36]);
  expect((after! * today.watts) / central!).toBeGreaterThanOrEqual(NEED.cpuW + NEED.gpuW);
});

test('more than any size gives has no least; without watts there is nothing to look for', () => {
  expect(designSearch({ record }, 'pipes', 28, { cpuW: 500, gpuW: 500 })!.least).toBeNull();
  expect(() => designSearch({ record }, 'pipes', 28, { cpuW: 0, gpuW: 0 })).toThrow(/above 0/);
});

test('it tells each size and can be given up', () => {
  let told = 0;
  const found = designSearch({ record }, 'pipes', 36, NEED, () => ++told < 2)!;
  expect(found.curve).toHaveLength(2);
});

test('pipes are shared out as they are, none is left out, and their sum is what was asked for', () => {
  const kinds = four.heatPipes!.length;
  const total = four.heatPipes!.reduce((n, p) => n + Number(p.count ?? 1), 0);
  for (const size of sizesAbout('pipes', total, kinds)) {
    const { record: other } = applyChanges(four, designChange(four, 'pipes', size));
    const counts = other.heatPipes!.map((p) => Number(p.count ?? 1));
    expect(counts.reduce((a, b) => a + b, 0)).toBe(size);
    expect(Math.min(...counts)).toBeGreaterThanOrEqual(1);
  }
});

test('a thinner machine loses as much height of fans and fins, and a size that cannot be is passed over', () => {
  const thickness = Number(record.shell!.thicknessMm);
  const change = designChange(record, 'machine', thickness - 2);
  const { record: thin } = applyChanges(record, change);
  record.finStacks!.forEach((s, i) => {
    expect(Number(thin.finStacks![i]!.heightMm)).toBeCloseTo(Number(s.heightMm) - 2, 6);
  });
  const found = designSearch({ record }, 'machine', 36, NEED)!;
  expect(found.curve.length).toBeLessThan(sizesAbout('machine', thickness).length);
});
