import { openCase } from '@zugluft/core/case/openCase';
import { exampleRecord } from '@zugluft/core/test-support/exampleRecord';
import { ruledLimits } from './ruledLimits';

test('firmware and adapter of a setting as lines: the adapter’s ends use it up with rest and fans', () => {
  const record = structuredClone(exampleRecord('two-fan-shared-pipes'));
  record.power!.adapterW = 180;
  record.settings = [
    { id: 's', cpuSustainedW: 54, gpuSustainedW: 90, later: { afterS: 360, cpuSustainedW: 35 } },
  ];
  const lines = ruledLimits(openCase({ record, setting: 's' }));
  expect(lines.cpuW).toBe(35);
  expect(lines.gpuW).toBe(90);
  const [onGpu, onCpu] = lines.adapter!;
  const left = 180 - (record.power!.restW as number) - 2 * 2;
  // board watts hold their losses; package watts have 12 % on top
  expect(onGpu!.gpu).toBeCloseTo(left, 6);
  expect(onCpu!.cpu).toBeCloseTo(left / 1.12, 6);
});

test('on battery, or with one die, there is no adapter line', () => {
  const record = structuredClone(exampleRecord('two-fan-shared-pipes'));
  record.power!.source = 'battery';
  expect(ruledLimits(openCase({ record })).adapter).toBeNull();
  const one = ruledLimits(openCase({ record: exampleRecord('one-die'), setting: 'quiet' }));
  expect(one.adapter).toBeNull();
  expect(one.gpuW).toBeNull();
  expect(one.cpuW).toBe(12);
});
