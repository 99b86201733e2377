import { benchSteps, lastStep, nextStep, withChecked } from './benchChecklist';
import { parseRun, type RunDocument } from './runDocument';

const steps = benchSteps({ load: 'both dies', setting: 'stage', fans: '36 dB(A)', settleMin: 7 });
const run: RunDocument = { format: 'zugluft-run', formatVersion: 1, id: 'r' };
const AT = '2026-02-03T04:05:06.000Z';

test('steps go from conditions to putting away, the load between two checks of the meter', () => {
  const ids = steps.map((s) => s.id);
  expect(ids.indexOf('check-before')).toBeLessThan(ids.indexOf('load'));
  expect(ids.indexOf('background')).toBeLessThan(ids.indexOf('load'));
  expect(ids.indexOf('load')).toBeLessThan(ids.indexOf('check-after'));
  expect(new Set(ids).size).toBe(ids.length);
  expect(steps.find((s) => s.id === 'settled')!.words).toContain('about 7 min');
  expect(benchSteps({ load: '', setting: '', fans: '', settleMin: null })[9]!.words).not.toContain(
    'min',
  );
});

test('one after the other is done, and taken back', () => {
  expect(nextStep(steps, undefined)!.id).toBe('quiet');
  expect(lastStep(steps, undefined)).toBeNull();
  const first = withChecked(run, 'quiet', AT);
  expect(nextStep(steps, first.checked)!.id).toBe('clocks');
  expect(lastStep(steps, first.checked)!.id).toBe('quiet');
  expect(withChecked(first, 'quiet', null).checked).toEqual({});
  const all = steps.reduce((r, s) => withChecked(r, s.id, AT), run);
  expect(nextStep(steps, all.checked)).toBeNull();
  expect(parseRun(JSON.parse(JSON.stringify(all)))).toEqual({ run: all });
});
