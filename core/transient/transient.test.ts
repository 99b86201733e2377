import { openCase } from '../case/openCase';
import fc from 'fast-check';
import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { estimate } from '../case/estimate';
import { fanState } from '../envelope/fanStates';
import { pointReadout } from '../envelope/pointReadout';
import { buildModel } from '../network/machineModel';
import { outletOf, solveInto } from '../network/steadyState';
import { resolveCase } from '../record/resolveCase';
import type { CaseRecord } from '../record/recordSchema';
import { exampleRecord } from '../test-support/exampleRecord';
import { randomRecord } from '../test-support/randomRecord';
import { heatCapacities, VOLUMETRIC_JM3K } from './heatCapacities';
import { matrixExponential } from './matrixExponential';
import { dynamicsAt, propagatorOf, step, type Dynamics } from './propagator';
import { roomInAverage, runningAverage } from './runningAverage';
import { simulateFirmware, type Simulation } from './simulateFirmware';

interface Odex {
  absoluteTolerance: number;
  relativeTolerance: number;
  solve(
    rate: (t: number, x: number[]) => number[],
    from: number,
    x: number[],
    to: number,
  ): { y: number[] };
}
// the package ships sources in place of types, which a strict check cannot read
const { Solver } = jest.requireActual<{ Solver: new (n: number) => Odex }>('odex');

const two = exampleRecord('two-fan-shared-pipes');
const changed = (change: (record: CaseRecord) => void): CaseRecord => {
  const record = structuredClone(two);
  change(record);
  return record;
};

describe('matrix exponential', () => {
  test('of symmetric matrices agrees with ml-matrix’s eigenvalues', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 8 }).chain((n) =>
          fc.tuple(
            fc.constant(n),
            fc.array(fc.integer({ min: -400, max: 400 }), {
              minLength: n * n,
              maxLength: n * n,
            }),
          ),
        ),
        ([n, entries]) => {
          const m = new Matrix(n, n);
          for (let i = 0; i < n; i++) {
            for (let j = 0; j <= i; j++) {
              m.set(i, j, entries[i * n + j]! / 100);
              m.set(j, i, entries[i * n + j]! / 100);
            }
          }
          const e = new EigenvalueDecomposition(m, { assumeSymmetric: true });
          const v = e.eigenvectorMatrix;
          const expected = v.mmul(Matrix.diag(e.realEigenvalues.map(Math.exp))).mmul(v.transpose());
          const scale = expected.norm();
          const found = matrixExponential(m.to1DArray(), n);
          expected.to1DArray().forEach((x, i) => {
            expect(Math.abs(found[i]! - x)).toBeLessThan(1e-9 * scale);
          });
        },
      ),
      { numRuns: 40, endOnFailure: true },
    );
  });

  test('closed forms: a turn, a nilpotent matrix, nothing', () => {
    const turn = matrixExponential([0, -7, 7, 0], 2);
    expect(turn[0]).toBeCloseTo(Math.cos(7), 10);
    expect(turn[2]).toBeCloseTo(Math.sin(7), 10);
    expect([...matrixExponential([0, 3, 0, 0], 2)]).toEqual([1, 3, 0, 1]);
    expect([...matrixExponential([0, 0, 0, 0], 2)]).toEqual([1, 0, 0, 1]);
  });

  test('needs row exchange and large norms, refuses what is not finite', () => {
    // a stiff pair: one part in a thousandth of a second, one in an hour
    const e = matrixExponential([-1000, 1000, 0.001, -0.0015], 2);
    expect(e.every((x) => Number.isFinite(x) && x >= -1e-12)).toBe(true);
    expect(() => matrixExponential([NaN], 1)).toThrow(/finite/);
  });
});

describe('heat capacities', () => {
  test('follow volumes: a copper plate, and the mass of the shell', () => {
    const open = openCase({ record: two });
    const { model } = open;
    const { nodeJPerK } = heatCapacities(open);
    const { widthMm, lengthMm, thicknessMm } = two.plates![0]! as Record<string, number>;
    const plate = widthMm! * lengthMm! * thicknessMm! * 1e-9 * 8933 * 385;
    const d = two.dies![0]! as unknown as Record<string, number>;
    const die = d['widthMm']! * d['lengthMm']! * 0.78 * 1e-9 * 2330 * 712;
    expect(nodeJPerK[model.plateNode[0]!]).toBeCloseTo(plate + die, 9);
    expect(nodeJPerK[model.intakeNode]).toBe(0);
    nodeJPerK.forEach((c, i) => {
      if (i !== model.intakeNode) expect(c).toBeGreaterThan(0);
    });
    const heavy = heatCapacities(
      openCase({ record: changed((r) => (r.shell!.massKg = 4.2)) }),
    ).nodeJPerK;
    const light = heatCapacities(
      openCase({ record: changed((r) => (r.shell!.massKg = 2.1)) }),
    ).nodeJPerK;
    expect(heavy[model.shellNode]! - light[model.shellNode]!).toBeCloseTo(2.1 * 0.5 * 800, 6);
  });

  test('handbook products', () => {
    // Incropera et al., table A.1: copper 8933 kg/m³ × 385 J/kgK; from memory
    expect(VOLUMETRIC_JM3K.copper / 3.44e6).toBeCloseTo(1, 2);
    expect(VOLUMETRIC_JM3K.aluminium / 2.44e6).toBeCloseTo(1, 2);
  });

  test('a fin stack weighs what its fins weigh, whatever blocks it', () => {
    const model = buildModel(resolveCase(two));
    const blocked = buildModel(resolveCase(changed((r) => (r.finStacks![0]!.blockedShare = 0.5))));
    const sum = (m: typeof model) =>
      m.segments[0]!.reduce(
        (s, g) => s + heatCapacities({ ...openCase({ record: two }), model: m }).nodeJPerK[g.node]!,
        0,
      );
    expect(sum(blocked)).toBeCloseTo(sum(model), 9);
    expect(sum(model)).toBeCloseTo(64 * 0.15e-3 * 8.5e-3 * 24e-3 * 8933 * 385, 6);
  });
});

describe('running average', () => {
  test('the short-term limit lasts −τ ln(1 − L/S)', () => {
    const keep = Math.exp(-0.5 / 28);
    let average = 0;
    let steps = 0;
    while (roomInAverage(average, 54, keep) >= 95) {
      average = runningAverage(average, 95, keep);
      steps++;
    }
    expect(steps * 0.5).toBeCloseTo(-28 * Math.log(1 - 54 / 95), 0);
    // from there on the average stays at the limit
    average = runningAverage(average, roomInAverage(average, 54, keep), keep);
    expect(average).toBeCloseTo(54, 9);
    expect(roomInAverage(average, 54, keep)).toBeCloseTo(54, 9);
    expect(() => roomInAverage(0, 1, 1)).toThrow(RangeError);
  });
});

/** The same equations integrated by odex from sample to sample under the watts and duties of a run. */
function integrate(d: Dynamics, from: number[], cpuW: number, gpuW: number, seconds: number) {
  const solver = new Solver(d.n);
  solver.absoluteTolerance = 1e-8;
  solver.relativeTolerance = 1e-8;
  const rates = (_: number, x: number[]) =>
    x.map((_x, i) => {
      let rate = d.heating[i * 3]! + cpuW * d.heating[i * 3 + 1]! + gpuW * d.heating[i * 3 + 2]!;
      for (let j = 0; j < d.n; j++) rate -= d.rates[i * d.n + j]! * x[j]!;
      return rate;
    });
  return solver.solve(rates, 0, from, seconds).y;
}

test('five minutes agree with odex within 0.1 K under the same held watts and duties', () => {
  const run = simulateFirmware(openCase({ record: two }), {
    durationS: 300,
    cpuLoadW: 70,
    gpuLoadW: 60,
  });
  const model = buildModel(resolveCase(two));
  const { nodeJPerK } = heatCapacities({ ...openCase({ record: two }), model });
  const ambientC = model.data.room.temperatureC;
  const byDuty = new Map<number, Dynamics>();
  const usual = [Math.min(70, 54), Math.min(60, 90)] as const;
  const at = (duty: number) => {
    let d = byDuty.get(duty);
    if (!d) {
      d = dynamicsAt(model, nodeJPerK, fanState(model.data, duty).rpms, ...usual);
      byDuty.set(duty, d);
    }
    return d;
  };
  const first = at(run.duty[0]!);
  const idle = pointReadout(model, fanState(model.data, run.duty[0]!), 0, 0);
  let x = [...first.nodes].map((node) => idle.nodes[node]!.temperatureC - ambientC);
  let furthest = 0;
  for (let k = 0; k < run.steps; k++) {
    model.dieNode.forEach((node, i) => {
      const here = x[first.nodes.indexOf(node)]!;
      const junction =
        ambientC +
        here +
        run.cpuW[k]! * model.dieBeyondCpuKPerW[i]! +
        run.gpuW[k]! * model.dieBeyondGpuKPerW[i]!;
      furthest = Math.max(furthest, Math.abs(junction - run.junctionC[i]!.temperatureC[k]!));
    });
    x = integrate(at(run.duty[k]!), x, run.cpuW[k]!, run.gpuW[k]!, run.stepS);
  }
  expect(byDuty.size).toBeGreaterThan(5);
  expect(furthest).toBeLessThan(0.1);
});

test('heat put in is stored, carried off by the air or lost by the shell', () => {
  const data = resolveCase(two, new Map([['fans.recirculation', 0]]));
  const model = buildModel(data);
  const { nodeJPerK } = heatCapacities({ ...openCase({ record: two }), model });
  const { rpms } = fanState(data, 0.8);
  const d = dynamicsAt(model, nodeJPerK, rpms, 40, 50);
  const state = d.at;
  solveInto(model, rpms, state);
  const move = propagatorOf(d, 1e-3);
  const x = Float64Array.from(d.nodes, () => 0);
  const next = new Float64Array(d.n);
  const SHORT = 1e-3;
  let stored = 0;
  for (let k = 0; k < 50; k++) {
    step(move, x, 40, 50, next);
    x.set(next);
  }
  const before = x.slice();
  step(move, x, 40, 50, next);
  const all = new Float64Array(model.nodeCount);
  d.nodes.forEach((node, i) => {
    stored += (nodeJPerK[node]! * (next[i]! - before[i]!)) / SHORT;
    all[node] = 0.5 * (next[i]! + before[i]!);
  });
  all[model.intakeNode] =
    d.intakeHeat[0]! +
    40 * d.intakeHeat[1]! +
    50 * d.intakeHeat[2]! -
    d.intakeOf.reduce((sum, g, j) => sum + g * all[d.nodes[j]!]!, 0);
  let air = 0;
  let through = 0;
  data.stacks.forEach((_, s) => {
    air += state.capacityWPerK[s]! * outletOf(model, state, s, all);
    through += state.capacityWPerK[s]!;
  });
  air += (state.totalCapacityWPerK - through) * all[model.intakeNode]!;
  const shell = state.shellWPerK * all[model.shellNode]!;
  const put =
    40 * model.drawPerCpuW +
    50 * model.drawPerGpuW +
    data.power.restW * (1 - data.power.restLidShare) +
    state.fanPowerW;
  expect((stored + air + shell) / put).toBeCloseTo(1, 6);
});

describe('firmware', () => {
  const held = (s: Simulation) =>
    Math.max(...s.junctionC.flatMap((j) => [...j.temperatureC].map((c) => c - j.limitC)));

  test('the short-term limit ends where the running average meets the sustained one', () => {
    const cool = changed((r) => (r.room!.temperatureC = 5));
    const s = simulateFirmware(openCase({ record: cool }), { gpuLoadW: 0 });
    const ends = s.events.find((e) => e.kind === 'short-limit-ends')!;
    // common practice, no source: about 28 s
    expect(ends.atS).toBeCloseTo(-28 * Math.log(1 - 54 / 95), 0);
    expect(s.cpuW[0]).toBe(95);
    expect(s.cpuW[s.steps - 1]).toBeCloseTo(54, 9);
  });

  test('a later limit cuts in when it is due', () => {
    const record = changed((r) => {
      r.settings![0]!.later = { afterS: 360, cpuSustainedW: 30 };
    });
    const s = simulateFirmware(openCase({ record }));
    expect(s.events.find((e) => e.kind === 'later-limit')!.atS).toBe(360);
    expect(s.cpuW[719]).toBeGreaterThan(40);
    expect(s.cpuW[720]).toBeCloseTo(30, 9);
    expect(s.sustained.cpuW).toBeCloseTo(30, 6);
    expect(s.sustained.gpuW).toBeGreaterThan(
      simulateFirmware(openCase({ record: two })).sustained.gpuW,
    );
  });

  test('junctions are held at their limits, and the end is the steady answer', () => {
    const record = changed((r) => (r.settings = []));
    record.settings = [{ id: 'open', gpuSustainedW: 200, cpuSustainedW: 30 }];
    const s = simulateFirmware(openCase({ record }), { durationS: 4 * 3600 });
    expect(held(s)).toBeLessThan(1);
    const model = buildModel(resolveCase(record));
    const steady = pointReadout(
      model,
      fanState(model.data, s.duty[s.steps - 1]!),
      s.cpuW[s.steps - 1]!,
      s.gpuW[s.steps - 1]!,
    );
    steady.junctions.forEach((j, i) => {
      expect(Math.abs(j.temperatureC - s.junctionC[i]!.temperatureC[s.steps - 1]!)).toBeLessThan(
        0.5,
      );
    });
    const together = estimate(openCase({ record }), { caps: ['full'], envelopes: false }).caps[0]!;
    expect(together.gpuAlone!.watts).toBeGreaterThan(s.sustained.gpuW);
  });

  test('under a cap the fans stay quiet and the watts fall', () => {
    const quiet = simulateFirmware(openCase({ record: two }), { cap: 32 });
    expect(Math.max(...quiet.levelDbA)).toBeLessThanOrEqual(32 + 1e-6);
    expect(quiet.sustained.cpuW + quiet.sustained.gpuW).toBeLessThan(
      simulateFirmware(openCase({ record: two })).sustained.cpuW +
        simulateFirmware(openCase({ record: two })).sustained.gpuW,
    );
    const off = simulateFirmware(openCase({ record: two }), { cap: 'off' });
    expect(Math.max(...off.duty)).toBe(0);
    expect(off.sustained.levelDbA).toBeNull();
  });

  test('a measured ramp keeps the fans at their least below its start', () => {
    const record = changed((r) => {
      r.settings![0]!.fanRamp = { startC: 90, fullC: 95, hysteresisK: 5 };
    });
    const s = simulateFirmware(openCase({ record }), { cpuLoadW: 15, gpuLoadW: 0 });
    expect(new Set(s.duty).size).toBe(1);
    expect(s.assumed.map((a) => a.path)).not.toContain('settings.fanFullBelowLimitK');
    expect(simulateFirmware(openCase({ record: two })).assumed.map((a) => a.path)).toContain(
      'shell.specificHeatJkgK',
    );
  });

  test('a weak adapter cuts both', () => {
    const s = simulateFirmware(openCase({ record: changed((r) => (r.power!.adapterW = 100)) }));
    expect(s.events.map((e) => e.kind)).toContain('adapter');
    expect(s.sustained.cpuW + s.sustained.gpuW).toBeLessThan(80);
  });

  test('bad spans and unknown settings are refused', () => {
    expect(() => simulateFirmware(openCase({ record: two }), { stepS: 0 })).toThrow(RangeError);
    expect(() => simulateFirmware(openCase({ record: two }), { durationS: 0 })).toThrow(RangeError);
    expect(() => simulateFirmware(openCase({ record: two }), { durationS: 1e9 })).toThrow(/steps/);
    expect(() => simulateFirmware(openCase({ record: two, setting: 'none' }))).toThrow(
      /no setting/,
    );
  });

  test('random machines: nothing colder than the room, nothing above its limits', () => {
    fc.assert(
      fc.property(randomRecord, (record) => {
        const s = simulateFirmware(openCase({ record }), {
          durationS: 240,
          cpuLoadW: 60,
          gpuLoadW: 90,
        });
        const ambientC = buildModel(resolveCase(record)).data.room.temperatureC;
        for (const j of s.junctionC) {
          for (const c of j.temperatureC) {
            expect(c).toBeGreaterThanOrEqual(ambientC - 1e-6);
            expect(c).toBeLessThan(j.limitC + 3);
          }
        }
        for (const w of s.cpuW) expect(w).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 25, endOnFailure: true },
    );
  });
});

describe('firmware that holds the skin', () => {
  const run = (skinHeld: boolean, hours = 3) => {
    const record = changed((r) => {
      r.shell!.skinLimitC = 40;
      r.settings = [
        {
          id: 's',
          cpuSustainedW: 50,
          gpuSustainedW: 80,
          skinHeld,
          fanRamp: { startC: 40, fullC: 60 },
        },
      ];
    });
    const open = openCase({ record });
    return { open, found: simulateFirmware(open, { durationS: hours * 3600, stepS: 2 }) };
  };

  test('cuts both dies until the skin stands at its limit: the watts of the steady answer', () => {
    const { open, found } = run(true);
    const end = found.skinC[found.steps - 1]!;
    expect(end).toBeCloseTo(40, 1);
    expect(Math.max(...found.skinC)).toBeLessThan(42);
    expect(found.events.map((e) => e.kind)).toContain('skin');
    const { cpuW, gpuW, levelDbA } = found.sustained;
    expect(cpuW / gpuW).toBeCloseTo(50 / 80, 2);
    const [steady] = estimate(open, { caps: [levelDbA!], envelopes: false }).caps;
    expect(steady!.together.binding.limit).toBe('skin');
    expect((cpuW + gpuW) / steady!.together.watts).toBeGreaterThan(0.97);
    expect((cpuW + gpuW) / steady!.together.watts).toBeLessThan(1.03);
  });

  test('where the setting does not say so the skin passes its limit and nothing is cut for it', () => {
    const { found } = run(false);
    expect(found.skin).toEqual({ limitC: 40, held: false });
    expect(found.skinC[found.steps - 1]!).toBeGreaterThan(42);
    expect(found.events.map((e) => e.kind)).not.toContain('skin');
  });
});
