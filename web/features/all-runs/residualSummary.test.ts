import type { ResidualPage } from '../../api/runs';
import { residualSummary } from './residualSummary';

const run = (
  measuredW: number | null,
  inBand = true,
  held = false,
): ResidualPage['items'][number] => ({
  id: 'r',
  machineId: 'm',
  machine: '',
  name: '',
  on: 'both',
  use: 'fit',
  against:
    measuredW === null ? null : { cap: 36, measuredW, p05: 80, p50: 100, p95: 120, inBand, held },
  lacks: measuredW === null ? 'no log' : null,
});

test('runs inside, the middle of their ratios; those held by a setting and those without a log tell no ratio', () => {
  expect(
    residualSummary([run(90), run(130, false), run(100), run(50, true, true), run(null)]),
  ).toEqual({
    count: 4,
    inside: 3,
    held: 1,
    ratio: 1,
  });
  expect(residualSummary([run(90), run(110)]).ratio).toBeCloseTo(1);
  expect(residualSummary([run(null)])).toEqual({ count: 0, inside: 0, held: 0, ratio: null });
});
