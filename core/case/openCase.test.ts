import { caseCalibration } from '../calibration/caseCalibration';
import { fitMultipliers } from '../calibration/fitMultipliers';
import type { SteadyRun } from '../calibration/steadyRun';
import { exampleRecord } from '../test-support/exampleRecord';
import { simulateFirmware } from '../transient/simulateFirmware';
import { planDraws } from '../uncertainty/drawPlan';
import { COLUMNS, roomForDraws, runDraws } from '../uncertainty/draws';
import { estimateWithDraws } from '../uncertainty/estimateWithDraws';
import type { CaseCalibration } from './calibrated';
import { estimate } from './estimate';
import { explain } from './explain';
import { capsOf } from './laboratory';
import { openCase, UnknownSettingError } from './openCase';
import { readPoint } from './readPoint';
import { stripStates } from './stripStates';
import { sustainedTogether } from './sustainedTogether';

const two = exampleRecord('two-fan-shared-pipes');
const UA = 'finStacks.uaFactor';
const CAPS = [36] as const;

/** A fit that knows one figure exactly, and another within a few per cent. */
const taught: CaseCalibration = {
  paths: [UA, 'dies.hotSpotFactor'],
  values: [0.5, 1.5],
  rows: Float64Array.from([0.5, 1.45, 0.5, 1.5, 0.5, 1.55, 0.5, 1.48]),
  count: 4,
};
const byHand = new Map([
  [UA, 0.5],
  ['dies.hotSpotFactor', 1.5],
]);

/** Every computation of a case, as text. */
function everything(request: Parameters<typeof openCase>[0]) {
  const open = openCase(request);
  const { assumed: _, ...run } = simulateFirmware(open, { durationS: 60 });
  return {
    estimate: estimate(open, { caps: CAPS }).caps,
    together: sustainedTogether(open, CAPS),
    why: explain(open, 36, 'together'),
    point: readPoint(open, 36, 20, 20),
    strips: stripStates(open, 36),
    run,
  };
}

test('overrides and a calibration’s values are the same to every computation', () => {
  const strips = [{ id: 'strip-1', at: 'fins-left', coversShare: 0.2 }];
  const record = { ...two, strips };
  const overridden = everything({ record, overrides: byHand });
  expect(everything({ record, calibration: taught })).toEqual(overridden);
  const plain = everything({ record });
  for (const key of ['estimate', 'together', 'why', 'point', 'strips', 'run'] as const) {
    expect(overridden[key]).not.toEqual(plain[key]);
  }
});

test('an override stands over a calibration', () => {
  const open = openCase({ record: two, calibration: taught, overrides: new Map([[UA, 0.9]]) });
  expect(open.data.air.uaFactor).toBe(0.9);
  expect(openCase({ record: two, calibration: taught }).data.air.uaFactor).toBe(0.5);
});

describe('draws', () => {
  const watts = (request: Parameters<typeof openCase>[0]) => {
    const plan = planDraws(openCase(request), { caps: CAPS, draws: 60, seed: 4 });
    const drawn = roomForDraws(plan, plan.draws);
    runDraws(plan, 0, plan.draws, drawn);
    return { plan, together: drawn.watts.filter((_, i) => i % COLUMNS === 2) };
  };

  test('an overridden figure is as it is in every draw', () => {
    const low = watts({ record: two, overrides: new Map([[UA, 0.3]]) });
    const high = watts({ record: two, overrides: new Map([[UA, 1.2]]) });
    expect(low.plan.columns.map((c) => c.name)).not.toContain(UA);
    // the same rows otherwise: each draw carries more with more
    low.together.forEach((w, i) => expect(high.together[i]!).toBeGreaterThan(w));
    const middle = low.together.slice().sort()[30]!;
    const [central] = sustainedTogether(
      openCase({ record: two, overrides: new Map([[UA, 0.3]]) }),
      CAPS,
    );
    expect(Math.abs(middle / central! - 1)).toBeLessThan(0.3);
  });

  test('what all of a kind share is overridden by its name, for each kind', () => {
    const overrides = new Map([['heatPipes.limitFactor.sintered', 0.05]]);
    const weak = watts({ record: two, overrides });
    expect(weak.plan.columns.map((c) => c.name).join(' ')).not.toContain('limitFactor');
    const plain = watts({ record: two });
    expect(Math.max(...weak.together)).toBeLessThan(Math.min(...plain.together));
  });

  test('each draw takes one whole set of a calibration, every set as often', () => {
    const { plan } = watts({ record: two, calibration: taught });
    expect(plan.columns.map((c) => c.name)).not.toContain('dies.hotSpotFactor');
    const [ua, spot] = plan.calibrated;
    expect([...ua!.values].every((x) => x === 0.5)).toBe(true);
    const times = new Map<number, number>();
    for (const x of spot!.values) times.set(x, (times.get(x) ?? 0) + 1);
    expect([...times].sort()).toEqual([
      [1.45, 15],
      [1.48, 15],
      [1.5, 15],
      [1.55, 15],
    ]);
  });

  test('a calibration narrows the band, and what it taught is no longer to be measured', () => {
    const runs: SteadyRun[] = [40, 30, 20].map((cpuW, i) => ({
      id: `run-${i}`,
      ambientC: 23,
      rpm: { 'fan-left': 5000, 'fan-right': 5000 - 800 * i },
      cpuW,
      gpuW: 60 - 15 * i,
      junctionC: { cpu: 0, gpu: 0 },
      exhaustC: { 'fins-left': 0, 'fins-right': 0 },
      levelDbA: 44 - i,
    }));
    // readings of the machine as recorded
    const read = runs.map((run): SteadyRun => {
      const p = readPoint(openCase({ record: two }), 'full', run.cpuW, run.gpuW);
      return {
        ...run,
        rpm: { 'fan-left': 5000, 'fan-right': 5000 },
        junctionC: Object.fromEntries(p.junctions.map((j) => [j.id, j.temperatureC])),
        exhaustC: Object.fromEntries(p.exhaust.map((j) => [j.id, j.temperatureC])),
      };
    });
    const only = [UA, 'dies.hotSpotFactor', 'fans.psi', 'noise.reference'];
    const calibration = caseCalibration(fitMultipliers(openCase({ record: two }), read, { only }));
    const options = { caps: ['full'] as const, draws: 300, seed: 2 };
    const width = (request: Parameters<typeof openCase>[0]) => {
      const { estimate: e } = estimateWithDraws(openCase(request), options);
      const { p05, p95 } = e.caps[0]!.together;
      return p95! - p05!;
    };
    expect(width({ record: two, calibration })).toBeLessThan(0.9 * width({ record: two }));
  });
});

test('a setting that is not there is refused by name; the first one is meant where none is named', () => {
  expect(() => openCase({ record: two, setting: 'nope' })).toThrow(UnknownSettingError);
  expect(openCase({ record: two }).setting).toBe(two.settings![0]);
});

test('a laboratory’s caps from the quietest up, off and full beside them, each once', () => {
  expect(capsOf({ caps: [40, 30.5, 40] })).toEqual(['off', 30.5, 40, 'full']);
  expect(capsOf()).toEqual(['off', 28, 32, 36, 40, 45, 'full']);
  const lab = { caps: [33] };
  expect(estimate(openCase({ record: two, lab })).caps.map((c) => c.cap)).toEqual([
    'off',
    33,
    'full',
  ]);
});
