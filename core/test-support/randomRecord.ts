import fc from 'fast-check';
import type { CaseRecord } from '../record/recordSchema';
import { completeRecord } from './exampleRecord';

const between = (min: number, max: number) =>
  fc.double({ min, max, noNaN: true, noDefaultInfinity: true });

/** Random two-die machines, one or two fans, shared or separate pipes, all figures recorded. */
export const randomRecord: fc.Arbitrary<CaseRecord> = fc
  .record({
    shared: fc.boolean(),
    chamber: fc.boolean(),
    diameter: between(5, 9),
    pressed: between(0.35, 0.6),
    count: fc.integer({ min: 1, max: 3 }),
    fanDiameter: between(42, 70),
    blade: between(4, 10),
    rpm: between(3800, 6000),
    stackWidth: between(50, 80),
    stackHeight: between(5, 12),
    stackDepth: between(14, 30),
    pitch: between(0.8, 1.6),
    cpuSide: between(9, 14),
    gpuSide: between(12, 20),
    age: between(0, 4),
    open: between(0.3, 0.7),
    room: between(18, 30),
    rest: between(8, 25),
  })
  .map((x) => {
    const stack = (side: string) => ({
      id: `fins-${side}`,
      widthMm: x.stackWidth,
      heightMm: x.stackHeight,
      depthMm: x.stackDepth,
      finCount: Math.round(x.stackWidth / x.pitch),
      finThicknessMm: 0.15,
      material: 'copper',
      joined: 'one-side',
      fans: [`fan-${side}`],
    });
    const fan = (side: string) => ({
      id: `fan-${side}`,
      impellerDiameterMm: x.fanDiameter,
      bladeHeightMm: x.blade,
      minRpm: 1500,
      maxRpm: x.rpm,
    });
    const vents = (side: string) => [
      {
        id: `in-${side}`,
        flow: 'intake',
        side: 'base',
        widthMm: 70,
        lengthMm: 50,
        openShare: x.open,
        fans: [`fan-${side}`],
      },
      {
        id: `out-${side}`,
        flow: 'exhaust',
        side: 'rear',
        widthMm: x.stackWidth,
        lengthMm: x.stackHeight,
        openShare: x.open,
        finStacks: [`fins-${side}`],
      },
    ];
    const plates = x.chamber
      ? [
          {
            id: 'plate',
            kind: 'vapor-chamber',
            dies: ['cpu', 'gpu'],
            widthMm: 200,
            lengthMm: 70,
            thicknessMm: 2.5,
            covers: ['gpu-memory', 'cpu-regulators'],
          },
        ]
      : [
          {
            id: 'plate-cpu',
            kind: 'copper-plate',
            dies: ['cpu'],
            widthMm: 40,
            lengthMm: 40,
            thicknessMm: 1.5,
            covers: ['cpu-regulators'],
          },
          {
            id: 'plate-gpu',
            kind: 'copper-plate',
            dies: ['gpu'],
            widthMm: 46,
            lengthMm: 46,
            thicknessMm: 1.5,
            covers: ['gpu-memory'],
          },
        ];
    const cpuPlate = x.chamber ? 'plate' : 'plate-cpu';
    const gpuPlate = x.chamber ? 'plate' : 'plate-gpu';
    const pipe = (id: string, lengthMm: number, parts: string[]) => ({
      id,
      count: x.count,
      diameterMm: x.diameter,
      flattenedMm: x.diameter * x.pressed,
      lengthMm,
      wick: 'sintered',
      along: parts.map((part) => ({ part })),
    });
    const heatPipes =
      x.shared && !x.chamber
        ? [pipe('pipe', 320, ['fins-left', cpuPlate, gpuPlate, 'fins-right'])]
        : [
            pipe('pipe-l', 180, ['fins-left', cpuPlate]),
            pipe('pipe-r', 180, [gpuPlate, 'fins-right']),
          ];
    return completeRecord({
      format: 'zugluft-record',
      formatVersion: 1,
      shell: {
        widthMm: 355,
        depthMm: 245,
        material: 'aluminium',
        finish: 'painted',
        footHeightMm: 3,
        skinLimitC: 50,
      },
      power: { source: 'mains', restW: x.rest },
      dies: [
        {
          id: 'cpu',
          role: 'cpu',
          widthMm: x.cpuSide,
          lengthMm: x.cpuSide,
          maxJunctionC: 97,
          sensor: 'hotspot',
          powerMeaning: 'package',
          interface: { kind: 'paste', conductivityWmK: 5, bondLineUm: 45, ageYears: x.age },
        },
        {
          id: 'gpu',
          role: 'gpu',
          widthMm: x.gpuSide,
          lengthMm: x.gpuSide,
          maxJunctionC: 87,
          sensor: 'average',
          powerMeaning: 'board',
          interface: { kind: 'paste', conductivityWmK: 5, bondLineUm: 45, ageYears: x.age },
        },
      ],
      plates,
      heatPipes,
      finStacks: [stack('left'), stack('right')],
      fans: [fan('left'), fan('right')],
      vents: [...vents('left'), ...vents('right')],
      room: { temperatureC: x.room, altitudeM: 0, surface: 'desk', lid: 'open' },
    });
  });
