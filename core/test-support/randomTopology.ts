import fc from 'fast-check';
import type { CaseRecord } from '../record/recordSchema';
import { parseRecord } from '../record/parseRecord';

const between = (min: number, max: number) =>
  fc.double({ min, max, noNaN: true, noDefaultInfinity: true });
const pick = <T>(...values: T[]) => fc.constantFrom(...values);

/**
 * Random machines of any connection the format can express: one to three dies on plates of their own, shared plates, chambers
 * or bare; one to four stacks, each with one or two fans; pipes from plates to stacks, some over several of each; vents, pads,
 * strips, lint, closed lids and soft ground. Every one is complete.
 */
export const randomTopology: fc.Arbitrary<CaseRecord> = fc
  .record({
    dieCount: fc.integer({ min: 1, max: 3 }),
    stackCount: fc.integer({ min: 1, max: 4 }),
    grouped: fc.boolean(),
    kinds: fc.array(pick('copper-plate', 'aluminium-plate', 'vapor-chamber', 'none'), {
      minLength: 3,
      maxLength: 3,
    }),
    sides: fc.array(between(8, 18), { minLength: 3, maxLength: 3 }),
    sensors: fc.array(pick('hotspot', 'average'), { minLength: 3, maxLength: 3 }),
    interfaces: fc.array(pick('paste', 'phase-change', 'graphite', 'liquid-metal', 'pad'), {
      minLength: 3,
      maxLength: 3,
    }),
    wicks: fc.array(pick('sintered', 'grooved', 'mesh'), { minLength: 6, maxLength: 6 }),
    diameters: fc.array(between(4, 9), { minLength: 6, maxLength: 6 }),
    pressed: fc.array(between(0.3, 1), { minLength: 6, maxLength: 6 }),
    extraPipe: fc.boolean(),
    through: fc.boolean(),
    stackDepth: between(12, 34),
    stackHeight: between(4, 12),
    pitch: between(0.7, 1.8),
    twoFansPerStack: fc.boolean(),
    sharedFan: fc.boolean(),
    fanDiameter: between(35, 75),
    minRpm: fc.integer({ min: 900, max: 3000 }),
    maxRpm: fc.integer({ min: 3200, max: 7000 }),
    own: fc.boolean(),
    vents: fc.boolean(),
    open: between(0.2, 0.8),
    mesh: fc.boolean(),
    lint: between(0, 0.6),
    lid: pick('open', 'closed'),
    surface: pick('desk', 'soft', 'stand'),
    material: pick('aluminium', 'magnesium', 'plastic', 'mixed'),
    finish: pick('painted', 'bare', 'coated'),
    room: between(-5, 38),
    altitude: between(0, 3500),
    padTo: pick('base-cover', 'first plate'),
    source: pick('storage', 'wireless', 'memory'),
    strip: pick('present', 'removed'),
  })
  .map((x) => {
    const dies = Array.from({ length: x.dieCount }, (_, i) => ({
      id: `die-${i}`,
      role: i === 0 ? 'cpu' : 'gpu',
      widthMm: x.sides[i],
      lengthMm: x.sides[i]! * 1.2,
      sensor: x.sensors[i],
      interface: { kind: x.interfaces[i] },
    }));
    // pipes cannot lie on several bare dies at once
    const plates = x.grouped
      ? [
          {
            id: 'plate-0',
            kind: x.kinds[0] === 'none' ? 'copper-plate' : x.kinds[0],
            dies: dies.map((d) => d.id),
            widthMm: 120,
            lengthMm: 60,
          },
        ]
      : dies.map((d, i) => ({ id: `plate-${i}`, kind: x.kinds[i], dies: [d.id], covers: [] }));
    const fanCount = x.sharedFan ? 1 : x.stackCount * (x.twoFansPerStack ? 2 : 1);
    const fans = Array.from({ length: fanCount }, (_, i) => ({
      id: `fan-${i}`,
      impellerDiameterMm: x.fanDiameter,
      minRpm: x.minRpm,
      maxRpm: x.maxRpm,
      control: x.own && i === 0 ? 'own' : 'shared',
    }));
    const fansOf = (stack: number) => {
      if (x.sharedFan) return ['fan-0'];
      return x.twoFansPerStack ? [`fan-${2 * stack}`, `fan-${2 * stack + 1}`] : [`fan-${stack}`];
    };
    const finStacks = Array.from({ length: x.stackCount }, (_, i) => ({
      id: `fins-${i}`,
      widthMm: 60,
      heightMm: x.stackHeight,
      depthMm: x.stackDepth,
      finCount: Math.round(60 / x.pitch),
      fans: fansOf(i),
      lintShare: x.lint,
    }));
    const pipe = (n: number, parts: string[]) => ({
      id: `pipe-${n}`,
      diameterMm: x.diameters[n % 6],
      flattenedMm: x.diameters[n % 6]! * x.pressed[n % 6]!,
      wick: x.wicks[n % 6],
      along: parts.map((part) => ({ part })),
    });
    // each stack is reached from some plate, each plate reaches some stack
    const heatPipes = finStacks.map((s, i) => pipe(i, [plates[i % plates.length]!.id, s.id]));
    plates.forEach((p, i) => {
      if (i >= finStacks.length) heatPipes.push(pipe(heatPipes.length, [p.id, 'fins-0']));
    });
    if (x.extraPipe && x.stackCount > 1) {
      heatPipes.push(pipe(heatPipes.length, ['fins-0', plates[0]!.id, 'fins-1']));
    }
    if (x.through && plates.length > 1) {
      heatPipes.push(pipe(heatPipes.length, [...plates.map((p) => p.id), 'fins-0']));
    }
    const record = {
      format: 'zugluft-record',
      formatVersion: 1,
      shell: { material: x.material, finish: x.finish },
      dies,
      plates,
      heatPipes,
      finStacks,
      fans,
      vents: x.vents
        ? fans.map((f) => ({
            id: `in-${f.id}`,
            flow: 'intake',
            side: 'base',
            widthMm: 60,
            lengthMm: 50,
            openShare: x.open,
            mesh: x.mesh,
            lintShare: x.lint,
            fans: [f.id],
          }))
        : [],
      pads: [
        { id: 'pad', from: x.source, to: x.padTo === 'base-cover' ? 'base-cover' : 'plate-0' },
      ],
      strips: [
        { id: 'strip', at: 'fins-0', coversShare: 0.2, purpose: 'duct-seal', state: x.strip },
      ],
      room: { temperatureC: x.room, altitudeM: x.altitude, surface: x.surface, lid: x.lid },
    };
    const { record: parsed, complete, issues } = parseRecord(record);
    if (!parsed || !complete) throw new Error(JSON.stringify(issues));
    return parsed;
  });
