import { openCase } from '../case/openCase';
import { sampleRankCorrelation } from 'simple-statistics';
import { estimate } from '../case/estimate';
import { figureValue } from '../record/figure';
import type { CaseRecord } from '../record/recordSchema';
import { exampleRecord } from '../test-support/exampleRecord';
import { planDraws } from './drawPlan';
import { COLUMNS, roomForDraws, runDraws } from './draws';
import { estimateWithDraws } from './estimateWithDraws';
import { normalQuantile } from './normal';
import { quantileOfSorted, standardRanks } from './quantile';
import { latinHypercube, randomStream } from './random';
import { rankInputs, rankShares } from './rankRegression';
import { recordedDeviation, spreadOf } from './spread';

// eslint-disable-next-line @typescript-eslint/no-require-imports
const { jStat } = require('jstat') as {
  jStat: {
    normal: { inv(p: number, mean: number, sd: number): number };
    quantiles(data: number[], at: number[], alphap: number, betap: number): number[];
  };
};

const two = exampleRecord('two-fan-shared-pipes');

describe('distributions against jstat (reference package)', () => {
  test.each([0.0001, 0.01, 0.05, 0.3, 0.5, 0.8, 0.95, 0.999])('normal quantile at %f', (p) => {
    expect(normalQuantile(p)).toBeCloseTo(jStat.normal.inv(p, 0, 1), 5);
  });

  test('sample quantiles, type 7', () => {
    const next = randomStream(3);
    const data = Array.from({ length: 101 }, () => next() ** 2).sort((a, b) => a - b);
    for (const p of [0.05, 0.33, 0.5, 0.95]) {
      expect(quantileOfSorted(data, p)).toBeCloseTo(jStat.quantiles(data, [p], 1, 1)[0]!, 12);
    }
  });
});

describe('Latin hypercube', () => {
  test('every slice of every column once, the same for the same seed', () => {
    const n = 50;
    const u = latinHypercube(n, 4, 9);
    for (let c = 0; c < 4; c++) {
      const slices = Array.from(u.subarray(c * n, (c + 1) * n), (x) => Math.floor(x * n)).sort(
        (a, b) => a - b,
      );
      expect(slices).toEqual(Array.from({ length: n }, (_, i) => i));
    }
    expect(latinHypercube(n, 4, 9)).toEqual(u);
    expect(latinHypercube(n, 4, 10)).not.toEqual(u);
  });
});

describe('rank regression', () => {
  const n = 400;
  const u = latinHypercube(n, 3, 5);
  const column = (c: number) => u.subarray(c * n, (c + 1) * n);

  test('a lone monotone cause explains all; its rank correlation is simple-statistics’ (reference package)', () => {
    const y = Array.from(column(0), (x) => Math.exp(3 * x));
    const { shares, r2 } = rankShares(rankInputs([column(0), column(1)]), y);
    expect(r2).toBeCloseTo(1, 6);
    expect(shares[0]).toBeCloseTo(1, 6);
    expect(sampleRankCorrelation(Array.from(column(0)), y)).toBeCloseTo(1, 9);
  });

  test('shares follow squared weights, add up to R², and the rest is named', () => {
    const y = Array.from(column(0), (x, i) => 3 * x + column(1)[i]!);
    const { shares, r2, unexplained } = rankShares(
      rankInputs([column(0), column(1), column(2)]),
      y,
    );
    expect(shares[0]).toBeCloseTo(0.9, 1);
    expect(shares[1]).toBeCloseTo(0.1, 1);
    expect(Math.abs(shares[2]!)).toBeLessThan(0.01);
    expect(shares.reduce((a, b) => a + b, 0)).toBeCloseTo(r2, 9);
    expect(r2 + unexplained).toBeCloseTo(1, 12);
    const parabola = Array.from(column(0), (x) => (x - 0.5) ** 2);
    expect(rankShares(rankInputs([column(0)]), parabola).unexplained).toBeGreaterThan(0.95);
  });

  test('ranks of ties are their mean', () => {
    const r = standardRanks([5, 1, 5, 9]);
    expect(r[0]).toBe(r[2]);
    expect(r[1]).toBeLessThan(r[0]!);
    expect(standardRanks([2, 2, 2])).toEqual(new Float64Array(3));
  });
});

describe('± by origin', () => {
  test.each<[string, number, number | object, number]>([
    ['finStacks.a.depthMm', 24, 24, 0.24],
    ['finStacks.a.heightMm', 6, 6, 0.1],
    ['finStacks.a.finThicknessMm', 0.15, 0.15, 0.0075],
    ['fans.a.maxRpm', 5000, { value: 5000, origin: 'label' }, 100],
    ['shell.widthMm', 350, { value: 350, origin: 'photo' }, 14],
    ['dies.a.interface.ageYears', 5, { value: 5, origin: 'estimated' }, 1],
    ['power.restW', 20, { value: 20, plusMinus: 4 }, 4],
    ['finStacks.a.finCount', 64, 64, 0],
    ['finStacks.a.finCount', 64, { value: 64, origin: 'estimated' }, 12.8],
    ['dies.a.maxJunctionC', 97, { value: 97, origin: 'label' }, 1],
    ['noise.sweep.0.dbA', 34, { value: 34, plusMinus: 0.5 }, 0.5],
  ])('%s = %f', (path, value, figure, sd) => {
    expect(recordedDeviation(path, value, figure as never)).toBeCloseTo(sd, 9);
  });

  test.each<[string, object, number]>([
    ['narrow', { value: 0.05, plusMinus: 0.005 }, 0.0082],
    ['wide', { value: 0.05, plusMinus: 0.04 }, 0.066],
    ['wider than it is', { value: 0.3, plusMinus: 0.4 }, Infinity],
    ['near 1', { value: 0.95, plusMinus: 0.02 }, 0.033],
  ])(
    'a recorded share, %s: its median is what was recorded, no draw leaves 0 to 1',
    (_, figure, reach) => {
      const { value } = figure as { value: number };
      const s = spreadOf({
        path: 'vents.a.openShare',
        value,
        recorded: figure as never,
        key: null,
      })!;
      expect(s.at(normalQuantile(0.5))).toBeCloseTo(value, 9);
      expect(s.at(normalQuantile(1e-6))).toBeGreaterThan(0);
      expect(s.at(normalQuantile(1 - 1e-6))).toBeLessThan(1);
      expect(s.at(normalQuantile(0.95))).toBeGreaterThan(value);
      if (Number.isFinite(reach) && value + reach < 1) {
        expect(s.at(normalQuantile(0.95)) - value).toBeCloseTo(reach, 3);
      }
    },
  );

  test.each([0, 1])('a share of %d is drawn on its own side alone', (value) => {
    const figure = { value, plusMinus: 0.05 };
    const s = spreadOf({ path: 'vents.a.blockedShare', value, recorded: figure, key: null })!;
    const at = [0.02, 0.5, 0.98].map((p) => s.at(normalQuantile(p)));
    expect(at[1]).toBeCloseTo(value, 9);
    for (const x of at) expect(x >= 0 && x <= 1).toBe(true);
  });

  test('a lab’s own share is its median, also on a narrow range', () => {
    const lab = { 'finStacks.uaFactor': { value: 0.66, low: 0.64, high: 0.69 } };
    const input = {
      path: 'finStacks.uaFactor',
      value: 0.66,
      recorded: null,
      key: 'finStacks.uaFactor',
      low: 0.64,
      high: 0.69,
    } as const;
    const s = spreadOf(input, lab)!;
    expect([0.05, 0.5, 0.95].map((p) => s.at(normalQuantile(p)))).toEqual([
      expect.closeTo(0.64, 9),
      expect.closeTo(0.66, 9),
      expect.closeTo(0.69, 9),
    ]);
  });

  test('lengths off one photo share its scale', () => {
    const at = (path: string) =>
      spreadOf({ path, value: 40, recorded: { value: 40, origin: 'photo' }, key: null })!;
    expect(at('plates.a.widthMm').group).toBe(at('fans.b.impellerDiameterMm').group);
    expect(at('plates.a.widthMm').at(normalQuantile(0.95)) / 40).toBeCloseTo(
      Math.exp(1.6449 * Math.log(1.04)),
      3,
    );
  });

  test('a default meets its median and both ends of its range', () => {
    const s = spreadOf({
      path: 'power.restW',
      value: 20,
      recorded: null,
      key: 'power.restW',
      low: 10,
      high: 35,
    })!;
    expect([0.05, 0.5, 0.95].map((p) => s.at(normalQuantile(p)))).toEqual([
      expect.closeTo(10, 6),
      expect.closeTo(20, 9),
      expect.closeTo(35, 6),
    ]);
  });
});

describe('bands', () => {
  const options = { draws: 400, seed: 2, caps: [36, 'full'] as const, envelopes: false };
  const { estimate: e, summary } = estimateWithDraws(openCase({ record: two }), options);

  test('each holds its central watts; the same seed gives the same band', () => {
    for (const c of e.caps) {
      for (const r of [c.cpuAlone!, c.gpuAlone!, c.together]) {
        expect(r.p05!).toBeLessThan(r.watts);
        expect(r.p95!).toBeGreaterThan(r.watts);
      }
    }
    expect(estimateWithDraws(openCase({ record: two }), options).summary).toEqual(summary);
  });

  test('central watts are those of the plain estimate', () => {
    const plain = estimate(openCase({ record: two }), { caps: options.caps });
    // solved from another start: the same but for rounding
    e.caps.forEach((c, i) =>
      expect(c.together.watts).toBeCloseTo(plain.caps[i]!.together.watts, 9),
    );
  });

  test('a draw is the plain estimate at the drawn values, to 0.3 %', () => {
    const plan = planDraws(openCase({ record: two }), options);
    const { watts, ...held } = roomForDraws(plan, plan.draws);
    runDraws(plan, 0, 12, { watts, ...held });
    let compared = 0;
    for (let row = 0; row < 12; row++) {
      const overrides = new Map<string, number>();
      plan.columns.forEach((c, k) =>
        c.inputs.forEach((i) =>
          overrides.set(i.path, i.valueAt(normalQuantile(plan.u[k * plan.draws + row]!))),
        ),
      );
      const plain = estimate(openCase({ record: two, overrides }), {
        caps: options.caps,
        envelopes: false,
      });
      plain.caps.forEach((c, k) => {
        const at = (row * plan.caps.length + k) * COLUMNS;
        expect(Math.abs(watts[at + 2]! / c.together.watts - 1)).toBeLessThan(0.003);
        compared++;
      });
    }
    expect(compared).toBeGreaterThan(8);
  });

  test('the full-load fact of the trade (common practice, no source): 105 W not above the 95 % value, the band narrower than ±25 %', () => {
    const record = structuredClone(two);
    record.settings = [{ id: 'fact', cpuSustainedW: 45, gpuSustainedW: 60 }];
    const { estimate: fact } = estimateWithDraws(openCase({ record }), {
      ...options,
      draws: 800,
      caps: ['full'],
    });
    const { p05, p95, watts } = fact.caps[0]!.together;
    expect(105).toBeLessThanOrEqual(p95!);
    expect((p95! - p05!) / 2 / watts).toBeLessThan(0.25);
  });

  test('configured bands stop at the firmware’s limit', () => {
    const record = structuredClone(two);
    record.settings = [{ id: 's', cpuSustainedW: 20, gpuSustainedW: 20 }];
    const c = estimateWithDraws(openCase({ record }), { ...options, draws: 60 }).estimate.caps[1]!;
    expect(c.configured.cpuAlone!.p95).toBe(20);
    expect(c.cpuAlone!.p95!).toBeGreaterThan(60);
  });
});

test('the ± of curve points, of a sweep, of the background and of counts is in the band', () => {
  const width = (record: CaseRecord) => {
    const { p05, p95 } = estimateWithDraws(openCase({ record }), {
      draws: 300,
      seed: 3,
      caps: [36],
    }).estimate.caps[0]!.together;
    return p95! - p05!;
  };
  const measured = structuredClone(two);
  for (const f of measured.fans!) {
    f.curve = [
      { rpm: 5000, flowLps: 0, pressurePa: 110 },
      { rpm: 5000, flowLps: 1, pressurePa: 80 },
      { rpm: 5000, flowLps: 2, pressurePa: 0 },
    ];
  }
  const rpm = (x: unknown) => ({ 'fan-left': x, 'fan-right': x });
  measured.noise = {
    backgroundDbA: { value: 24, plusMinus: 0.1 },
    sweep: [
      { rpm: rpm(2500), dbA: { value: 32, plusMinus: 0.1 } },
      { rpm: rpm(4500), dbA: { value: 44, plusMinus: 0.1 } },
    ] as never,
  };
  const sure = width(measured);
  const vague = (change: (r: CaseRecord) => void) => {
    const record = structuredClone(measured);
    change(record);
    return width(record) / sure;
  };
  expect(
    vague((r) => {
      for (const f of r.fans!) {
        for (const p of f.curve!) p.pressurePa = { value: p.pressurePa as number, plusMinus: 30 };
      }
    }),
  ).toBeGreaterThan(1.03);
  expect(
    vague((r) => {
      for (const s of r.noise!.sweep!) (s.dbA as { plusMinus: number }).plusMinus = 3;
    }),
  ).toBeGreaterThan(1.05);
  expect(
    vague((r) => {
      for (const s of r.noise!.sweep!)
        s.rpm = rpm({ value: s.rpm['fan-left'], plusMinus: 500 }) as never;
    }),
  ).toBeGreaterThan(1.05);
  // the more of a level is background, the quieter the machine itself: row by row, since it is only part of a band
  const together = (record: CaseRecord) => {
    const plan = planDraws(openCase({ record }), { draws: 100, seed: 3, caps: [32] });
    const out = roomForDraws(plan, 100);
    runDraws(plan, 0, 100, out);
    return { plan, watts: Array.from({ length: 100 }, (_, k) => out.watts[k * COLUMNS + 2]!) };
  };
  const unsure = structuredClone(measured);
  unsure.noise!.backgroundDbA = { value: 24, plusMinus: 3 };
  const { plan: drawn, watts } = together(unsure);
  const column = drawn.columns.findIndex((c) => c.name === 'noise.backgroundDbA');
  const more = together(measured).watts.map((w, k) => watts[k]! - w);
  const background = more.map((_, k) => drawn.u[column * 100 + k]!);
  expect(sampleRankCorrelation(background, more)).toBeGreaterThan(0.8);
  // a pipe that may be there or not
  const plan = planDraws(
    openCase({
      record: {
        ...two,
        heatPipes: two.heatPipes!.map((p) => ({ ...p, count: { value: 2, origin: 'estimated' } })),
      } as CaseRecord,
    }),
    { draws: 10 },
  );
  expect(plan.columns.map((c) => c.name)).toContain('heatPipes.pipe.count');
});

test('points of one curve share their instrument', () => {
  const at = (path: string, value: number) =>
    spreadOf({ path, value, recorded: { value, plusMinus: 1 }, key: null })!.group;
  expect(at('fans.a.curve.0.flowLps', 1)).toBe(at('fans.a.curve.3.flowLps', 2));
  expect(at('fans.a.curve.0.flowLps', 1)).not.toBe(at('fans.b.curve.0.flowLps', 1));
  expect(at('fans.a.curve.0.flowLps', 1)).not.toBe(at('fans.a.curve.0.pressurePa', 1));
  expect(at('noise.sweep.0.dbA', 34)).toBe(at('noise.sweep.4.dbA', 44));
});

/** Sets a figure by its path of keys. */
function withFigure(record: CaseRecord, path: readonly (string | number)[], value: unknown) {
  const copy = structuredClone(record);
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  let at = copy as any;
  for (const key of path.slice(0, -1)) at = at[key] ??= {};
  const last = path[path.length - 1]!;
  if (value === undefined) delete at[last];
  else at[last] = value;
  return copy;
}

test.each<[string, (string | number)[], number]>([
  ['fin thickness', ['finStacks', 0, 'finThicknessMm'], 0.15],
  ['plate thickness', ['plates', 1, 'thicknessMm'], 1.5],
  ['interface conductivity', ['dies', 1, 'interface', 'conductivityWmK'], 5],
  ['rest of the machine', ['power', 'restW'], 20],
])(
  'law: replacing a recorded %s by a default of equal median never narrows the relative band by more than 2 %%',
  (_, path, median) => {
    const band = (record: CaseRecord) => {
      const { p05, p95, watts } = estimateWithDraws(openCase({ record }), {
        draws: 600,
        seed: 3,
        caps: [40],
      }).estimate.caps[0]!.together;
      return (p95! - p05!) / watts;
    };
    const recorded = band(withFigure(two, path, median));
    expect(band(withFigure(two, path, undefined))).toBeGreaterThanOrEqual(recorded * 0.98);
  },
);

test('what is named to be measured next narrows the band as foretold', () => {
  const vague = withFigure(two, ['finStacks', 0, 'depthMm'], {
    value: figureValue(two.finStacks![0]!.depthMm)!,
    plusMinus: 9,
  });
  vague.finStacks![1]!.depthMm = { value: 24, plusMinus: 0.2 };
  const options = { draws: 1500, seed: 4, caps: [36] };
  const now = estimateWithDraws(openCase({ record: vague }), options);
  const item = now.summary.next
    .find((x) => x.readout === 'together')!
    .items.find((i) => i.inputs[0] === 'finStacks.fins-left.depthMm')!;
  expect(item.thenW).toBeLessThan(item.nowW);
  const sure = withFigure(vague, ['finStacks', 0, 'depthMm'], { value: 24, plusMinus: 0.48 });
  const { p05, p95 } = estimateWithDraws(openCase({ record: sure }), options).estimate.caps[0]!
    .together;
  expect((p95! - p05!) / 2 / item.thenW).toBeGreaterThan(0.85);
  expect((p95! - p05!) / 2 / item.thenW).toBeLessThan(1.15);
});

test('an equation outside its range is said, and the band is widened', () => {
  const cold = structuredClone(two);
  cold.room!.temperatureC = -9;
  // nearly all kelvins lie in the interface, so that the pipe stays cold
  for (const d of cold.dies!) d.interface!.bondLineUm = 4500;
  const e = estimate(openCase({ record: cold }), { caps: ['full'] });
  expect(e.notes[0]!.path).toBe('heatPipes.pipe');
  expect(e.notes[0]!.message).toMatch(/range of the water equations/);
  expect(planDraws(openCase({ record: cold }), { draws: 10, caps: ['full'] }).outOfRange).toBe(
    true,
  );
  expect(planDraws(openCase({ record: two }), { draws: 10, caps: ['full'] }).outOfRange).toBe(
    false,
  );
  // the same draws without the widening give a narrower band
  const plan = planDraws(openCase({ record: cold }), { draws: 300, caps: ['full'] });
  const spread = (p: typeof plan) => {
    const drawn = roomForDraws(p, p.draws);
    runDraws(p, 0, p.draws, drawn);
    const together = Array.from({ length: p.draws }, (_, i) => drawn.watts[i * COLUMNS + 2]!).sort(
      (a, b) => a - b,
    );
    return quantileOfSorted(together, 0.95) - quantileOfSorted(together, 0.05);
  };
  const last = plan.columns.length - 1;
  expect(spread(plan)).toBeGreaterThan(spread({ ...plan, columns: plan.columns.slice(0, last) }));
});

test('the bench’s means are named too: a noise sweep settles the level, and the band shrinks as foretold', () => {
  const options = { draws: 1200, seed: 6, caps: [36] };
  const now = estimateWithDraws(openCase({ record: two }), options);
  const items = now.summary.next.find((x) => x.readout === 'together')!.items;
  const sweep = items.find((i) => i.means === 'noise-sweep')!;
  expect(items.map((i) => i.means)).toEqual(
    expect.arrayContaining(['noise-sweep', 'fan-curve', 'run-under-load']),
  );
  // a lab that knows its reference level to half a decibel
  const lab = { 'noise.referenceDbA': { value: 45, low: 44.18, high: 45.82 } };
  const { p05, p95 } = estimateWithDraws(openCase({ record: two, lab: { defaults: lab } }), {
    ...options,
  }).estimate.caps[0]!.together;
  expect((p95! - p05!) / 2 / sweep.thenW).toBeGreaterThan(0.9);
  expect((p95! - p05!) / 2 / sweep.thenW).toBeLessThan(1.1);
});

test('a row is the same whatever rows are made with it: slices may be shared out', () => {
  const plan = planDraws(openCase({ record: two }), { draws: 60, seed: 8, caps: [32, 'full'] });
  const whole = roomForDraws(plan, plan.draws);
  runDraws(plan, 0, 60, whole);
  const sliced = roomForDraws(plan, plan.draws);
  for (const [from, to] of [
    [37, 60],
    [0, 11],
    [11, 37],
  ] as const) {
    runDraws(plan, from, to, sliced);
  }
  expect(sliced).toEqual(whole);
});

test('a machine with one die has bands for it alone', () => {
  const { estimate: e, summary } = estimateWithDraws(
    openCase({ record: exampleRecord('one-die') }),
    { draws: 350, caps: ['full'] },
  );
  const [c] = e.caps;
  expect(c!.gpuAlone).toBeNull();
  expect(c!.together.p05).toBe(c!.cpuAlone!.p05);
  expect(summary.bands[0]!.gpuAlone).toBeNull();
  expect(summary.fits.map((f) => f.readout)).toEqual(['cpuAlone']);
  // a wick's permeability is no figure that anyone can read off a pipe
  for (const i of summary.next[0]!.items) {
    if (i.means === 'figure') expect(i.inputs[0]).not.toMatch(/permeability|poreUm/);
  }
});
