import type {
  DieRecord,
  FanRecord,
  FinStackRecord,
  HeatPipeRecord,
  PlateRecord,
  VentRecord,
} from '@zugluft/core/record/partSchema';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';

/**
 * The notebooks that Feldstille, a travelling recording co-operative, picked for its shortlist: may they run beside
 * microphones in small concert halls while rendering live picture? Makers, models and figures are invented. Each variant
 * tells one story.
 */

const ROOM = { temperatureC: 23, altitudeM: 0, surface: 'desk', lid: 'open' } as const;

const measured = (value: number, plusMinus: number) => ({
  value,
  plusMinus,
  origin: 'measured' as const,
});
const photo = (value: number) => ({ value, origin: 'photo' as const });
const label = (value: number) => ({ value, origin: 'label' as const });

function cpu(widthMm: number, lengthMm: number, more: Partial<DieRecord> = {}): DieRecord {
  return {
    id: 'cpu',
    role: 'cpu',
    widthMm: photo(widthMm),
    lengthMm: photo(lengthMm),
    maxJunctionC: label(97),
    sensor: 'hotspot',
    powerMeaning: 'package',
    interface: { kind: 'paste', ageYears: 0.5 },
    ...more,
  };
}

function gpu(widthMm: number, lengthMm: number, more: Partial<DieRecord> = {}): DieRecord {
  return {
    id: 'gpu',
    role: 'gpu',
    widthMm: photo(widthMm),
    lengthMm: photo(lengthMm),
    maxJunctionC: label(87),
    sensor: 'average',
    powerMeaning: 'board',
    interface: { kind: 'paste', ageYears: 0.5 },
    ...more,
  };
}

function plate(id: 'cpu' | 'gpu', side: number, covers: string[]): PlateRecord {
  return {
    id: `plate-${id}`,
    kind: 'copper-plate',
    dies: [id],
    widthMm: measured(side, 0.2),
    lengthMm: measured(side, 0.2),
    thicknessMm: measured(1.5, 0.1),
    covers,
  };
}

function pipe(
  id: string,
  [diameterMm, flattenedMm, lengthMm]: [number, number, number],
  parts: string[],
  more: Partial<HeatPipeRecord> = {},
): HeatPipeRecord {
  return {
    id,
    count: 1,
    diameterMm,
    flattenedMm: measured(flattenedMm, 0.1),
    lengthMm: measured(lengthMm, 2),
    wick: 'sintered',
    along: parts.map((part) => ({ part })),
    ...more,
  };
}

function stack(
  id: string,
  [widthMm, heightMm, depthMm, finCount]: [number, number, number, number],
  fans: string[],
  more: Partial<FinStackRecord> = {},
): FinStackRecord {
  return {
    id,
    widthMm: measured(widthMm, 0.2),
    heightMm: measured(heightMm, 0.1),
    depthMm: measured(depthMm, 0.2),
    finCount,
    finThicknessMm: measured(0.15, 0.02),
    material: 'copper',
    joined: 'one-side',
    fans,
    ...more,
  };
}

function fan(
  id: string,
  [impellerDiameterMm, bladeHeightMm, minRpm, maxRpm]: [number, number, number, number],
  more: Partial<FanRecord> = {},
): FanRecord {
  return {
    id,
    impellerDiameterMm: measured(impellerDiameterMm, 0.2),
    bladeHeightMm: measured(bladeHeightMm, 0.1),
    minRpm,
    maxRpm,
    control: 'shared',
    ...more,
  };
}

function intake(
  id: string,
  [widthMm, lengthMm, openShare]: [number, number, number],
  fans: string[],
  more: Partial<VentRecord> = {},
): VentRecord {
  return {
    id,
    flow: 'intake',
    side: 'base',
    widthMm,
    lengthMm,
    openShare: photo(openShare),
    mesh: true,
    fans,
    ...more,
  };
}

function exhaust(
  id: string,
  side: VentRecord['side'],
  [widthMm, lengthMm, openShare]: [number, number, number],
  finStacks: string[],
): VentRecord {
  return { id, flow: 'exhaust', side, widthMm, lengthMm, openShare: photo(openShare), finStacks };
}

type Parts = Omit<CaseRecord, 'format' | 'formatVersion'>;

function record(parts: Parts): CaseRecord {
  return { format: 'zugluft-record', formatVersion: 1, room: ROOM, ...parts };
}

const HERON_SHELL = {
  widthMm: 355,
  depthMm: 245,
  thicknessMm: 19.9,
  massKg: 2.1,
  material: 'aluminium',
  finish: 'painted',
  footHeightMm: 3,
  skinLimitC: 48,
} as const;

const HERON_FANS = [fan('fan-left', [58, 8, 1800, 5000]), fan('fan-right', [58, 8, 1800, 5000])];
const HERON_STACKS = [
  stack('fins-left', [70, 8.5, 24, 64], ['fan-left']),
  stack('fins-right', [70, 8.5, 24, 64], ['fan-right']),
];
const HERON_VENTS = [
  intake('base-left', [80, 60, 0.45], ['fan-left']),
  intake('base-right', [80, 60, 0.45], ['fan-right']),
  exhaust('rear-left', 'rear', [74, 10, 0.65], ['fins-left']),
  exhaust('rear-right', 'rear', [74, 10, 0.65], ['fins-right']),
];
const SHARED_PIPES = [
  pipe('pipe-1', [8, 3, 300], ['fins-left', 'plate-cpu', 'plate-gpu', 'fins-right'], { bends: 2 }),
  pipe('pipe-2', [8, 3, 296], ['fins-left', 'plate-cpu', 'plate-gpu', 'fins-right'], { bends: 2 }),
];
const HERON_PLATES = [
  plate('cpu', 40, ['cpu-regulators']),
  plate('gpu', 46, ['gpu-memory', 'gpu-regulators']),
];

export const DEMO_MACHINES: readonly CaseRecord[] = [
  record({
    identity: {
      maker: 'Brackenfold',
      model: 'Heron 16',
      modelCode: 'BH16-S2',
      variant: 'Studio, 8-core 45 W and 90 W graphics',
      firmware: '1.04',
      year: 2026,
    },
    shell: HERON_SHELL,
    power: { source: 'mains', adapterW: 230, restW: 22, adjustable: ['preset'] },
    settings: [
      {
        id: 'stage',
        preset: 'Stage',
        fanMode: 'auto',
        cpuSustainedW: 54,
        cpuShortW: 95,
        cpuShortWindowS: 28,
        gpuSustainedW: 90,
      },
    ],
    dies: [cpu(12, 12.5), gpu(16, 17.8)],
    plates: HERON_PLATES,
    heatPipes: SHARED_PIPES,
    finStacks: HERON_STACKS,
    fans: HERON_FANS,
    vents: HERON_VENTS,
  }),
  record({
    identity: {
      maker: 'Brackenfold',
      model: 'Heron 16',
      modelCode: 'BH16-S4',
      variant: 'Stage, vapor chamber, 8-core 55 W and 120 W graphics',
      firmware: '1.04',
      year: 2026,
    },
    shell: HERON_SHELL,
    power: { source: 'mains', adapterW: 280, restW: 22, adjustable: ['preset'] },
    settings: [
      {
        id: 'stage',
        preset: 'Stage',
        fanMode: 'auto',
        cpuSustainedW: 65,
        cpuShortW: 110,
        cpuShortWindowS: 28,
        gpuSustainedW: 120,
      },
    ],
    dies: [
      cpu(12, 12.5, { interface: { kind: 'liquid-metal', ageYears: 0.5 } }),
      gpu(18, 20, { interface: { kind: 'phase-change', ageYears: 0.5 } }),
    ],
    plates: [
      {
        id: 'chamber',
        kind: 'vapor-chamber',
        dies: ['cpu', 'gpu'],
        widthMm: measured(290, 1),
        lengthMm: measured(78, 0.5),
        thicknessMm: measured(2.2, 0.1),
        covers: ['cpu-regulators', 'gpu-memory', 'gpu-regulators'],
      },
    ],
    finStacks: HERON_STACKS.map((s) => ({ ...s, plates: ['chamber'] })),
    fans: HERON_FANS,
    vents: HERON_VENTS,
  }),
  record({
    identity: {
      maker: 'Brackenfold',
      model: 'Heron 16',
      modelCode: 'BH16-S2',
      variant: 'Studio, first firmware',
      firmware: '1.01',
      year: 2026,
    },
    shell: HERON_SHELL,
    power: { source: 'mains', adapterW: 230, restW: 22, adjustable: ['preset'] },
    settings: [
      {
        id: 'stage',
        preset: 'Stage',
        fanMode: 'auto',
        cpuSustainedW: 54,
        cpuShortW: 95,
        cpuShortWindowS: 28,
        gpuSustainedW: 90,
        later: { afterS: 360, cpuSustainedW: 30 },
      },
    ],
    dies: [cpu(12, 12.5), gpu(16, 17.8)],
    plates: HERON_PLATES,
    heatPipes: SHARED_PIPES,
    finStacks: HERON_STACKS,
    fans: HERON_FANS,
    vents: HERON_VENTS,
  }),
  record({
    identity: {
      maker: 'Brackenfold',
      model: 'Heron 16',
      modelCode: 'BH16-O1',
      variant: 'Office, 8-core 45 W, graphics site empty',
      firmware: '1.04',
      year: 2026,
    },
    shell: { ...HERON_SHELL, massKg: 1.85 },
    power: { source: 'mains', adapterW: 130, restW: 18, adjustable: ['preset'] },
    settings: [
      {
        id: 'stage',
        preset: 'Stage',
        fanMode: 'auto',
        cpuSustainedW: 54,
        cpuShortW: 95,
        cpuShortWindowS: 28,
      },
    ],
    dies: [cpu(12, 12.5)],
    plates: [plate('cpu', 40, ['cpu-regulators'])],
    heatPipes: [pipe('pipe-1', [8, 3, 170], ['fins-left', 'plate-cpu'], { bends: 1 })],
    finStacks: [HERON_STACKS[0]!],
    fans: [HERON_FANS[0]!],
    vents: [HERON_VENTS[0]!, HERON_VENTS[2]!],
  }),
  record({
    identity: {
      maker: 'Velmara',
      model: 'Quill 14',
      modelCode: 'VQ14-A',
      variant: '8-core 15 W, one thin fan',
      firmware: '0.98',
      year: 2025,
    },
    shell: {
      widthMm: 312,
      depthMm: 221,
      thicknessMm: 15.6,
      massKg: 1.28,
      material: 'aluminium',
      finish: 'coated',
      footHeightMm: 1.8,
      skinLimitC: 46,
    },
    power: { source: 'mains', adapterW: 65, restW: 9, adjustable: ['preset'] },
    settings: [
      {
        id: 'balanced',
        preset: 'Balanced',
        fanMode: 'auto',
        cpuSustainedW: 17,
        cpuShortW: 35,
        cpuShortWindowS: 28,
      },
      {
        id: 'quiet',
        preset: 'Quiet',
        fanMode: 'auto',
        cpuSustainedW: 12,
        cpuShortW: 25,
        cpuShortWindowS: 28,
      },
    ],
    dies: [
      cpu(9.8, 14.5, { maxJunctionC: label(98), interface: { kind: 'paste', ageYears: 1.2 } }),
    ],
    plates: [{ ...plate('cpu', 35, ['cpu-regulators']), thicknessMm: measured(1, 0.1) }],
    heatPipes: [pipe('pipe-1', [6, 1.6, 145], ['plate-cpu', 'fins'], { bends: 2 })],
    finStacks: [stack('fins', [52, 5.2, 18, 46], ['fan'])],
    fans: [fan('fan', [45, 4.6, 2100, 5600])],
    vents: [
      intake('base', [58, 34, 0.4], ['fan']),
      exhaust('rear', 'rear', [54, 6, 0.6], ['fins']),
    ],
  }),
  record({
    identity: {
      maker: 'Velmara',
      model: 'Quill 15 Duo',
      modelCode: 'VQ15-D',
      variant: '6-core 45 W and 60 W graphics, separate loops',
      firmware: '1.12',
      year: 2025,
    },
    shell: {
      widthMm: 344,
      depthMm: 236,
      thicknessMm: 17.2,
      massKg: 1.75,
      material: 'magnesium',
      finish: 'painted',
      footHeightMm: 2.4,
      skinLimitC: 47,
    },
    power: { source: 'mains', adapterW: 150, restW: 16, adjustable: ['preset', 'power-limits'] },
    settings: [
      {
        id: 'balanced',
        preset: 'Balanced',
        fanMode: 'auto',
        cpuSustainedW: 40,
        cpuShortW: 70,
        cpuShortWindowS: 28,
        gpuSustainedW: 60,
      },
    ],
    dies: [cpu(11, 13.4), gpu(12.5, 15.8)],
    plates: [
      plate('cpu', 38, ['cpu-regulators']),
      plate('gpu', 40, ['gpu-memory', 'gpu-regulators']),
    ],
    heatPipes: [
      pipe('pipe-cpu', [8, 2.6, 150], ['fins-left', 'plate-cpu']),
      pipe('pipe-gpu-1', [6, 2.4, 150], ['plate-gpu', 'fins-right']),
      pipe('pipe-gpu-2', [6, 2.4, 165], ['plate-gpu', 'fins-right']),
    ],
    finStacks: [
      stack('fins-left', [62, 7.5, 21, 56], ['fan-left']),
      stack('fins-right', [62, 7.5, 21, 56], ['fan-right']),
    ],
    fans: [fan('fan-left', [52, 6.8, 1900, 5300]), fan('fan-right', [52, 6.8, 1900, 5300])],
    vents: [
      intake('base-left', [70, 48, 0.42], ['fan-left']),
      intake('base-right', [70, 48, 0.42], ['fan-right']),
      exhaust('rear-left', 'rear', [64, 9, 0.62], ['fins-left']),
      exhaust('rear-right', 'rear', [64, 9, 0.62], ['fins-right']),
    ],
  }),
  record({
    identity: {
      maker: 'Oslund',
      model: 'Drift 17',
      modelCode: 'OD17-X',
      variant: 'Expedition, 16-core 85 W and 150 W graphics, four fans',
      firmware: '2.11',
      year: 2026,
    },
    shell: {
      widthMm: 395,
      depthMm: 285,
      thicknessMm: 27,
      massKg: 3.1,
      material: 'magnesium',
      finish: 'painted',
      footHeightMm: 4.5,
      skinLimitC: 50,
    },
    power: {
      source: 'mains',
      adapterW: 330,
      restW: 28,
      adjustable: ['preset', 'power-limits', 'fan-speed'],
    },
    settings: [
      {
        id: 'tour',
        preset: 'Tour',
        fanMode: 'auto',
        cpuSustainedW: 85,
        cpuShortW: 140,
        cpuShortWindowS: 28,
        gpuSustainedW: 150,
      },
    ],
    dies: [
      cpu(11.5, 22, { maxJunctionC: label(100), interface: { kind: 'liquid-metal', ageYears: 1 } }),
      gpu(18, 20.5, { interface: { kind: 'phase-change', ageYears: 1 } }),
    ],
    plates: [
      plate('cpu', 56, ['cpu-regulators']),
      plate('gpu', 62, ['gpu-memory', 'gpu-regulators']),
    ],
    heatPipes: [
      pipe(
        'pipe-1',
        [8, 3.2, 330],
        ['fins-rear-left', 'plate-cpu', 'plate-gpu', 'fins-rear-right'],
        { count: 2 },
      ),
      pipe('pipe-2', [8, 3, 165], ['fins-rear-left', 'plate-cpu']),
      pipe('pipe-3', [6, 2.5, 170], ['fins-left', 'plate-cpu']),
      pipe('pipe-4', [8, 3, 182], ['plate-gpu', 'fins-rear-right'], { count: 2 }),
      pipe('pipe-5', [6, 2.5, 190], ['plate-gpu', 'fins-right']),
      pipe('pipe-6', [8, 3.2, 360], ['fins-left', 'plate-cpu', 'plate-gpu', 'fins-right']),
    ],
    finStacks: [
      stack('fins-rear-left', [78, 11, 26, 70], ['fan-left']),
      stack('fins-left', [56, 9, 20, 50], ['fan-left', 'fan-front-left'], {
        material: 'aluminium',
      }),
      stack('fins-rear-right', [78, 11, 26, 70], ['fan-right']),
      stack('fins-right', [56, 9, 20, 50], ['fan-right', 'fan-front-right'], {
        material: 'aluminium',
      }),
    ],
    fans: [
      fan('fan-left', [66, 9.5, 1700, 4600]),
      fan('fan-front-left', [48, 7, 1900, 5200]),
      fan('fan-right', [66, 9.5, 1700, 4600]),
      fan('fan-front-right', [48, 7, 1900, 5200]),
    ],
    vents: [
      intake('base-left', [120, 62, 0.42], ['fan-left', 'fan-front-left']),
      intake('base-right', [120, 62, 0.42], ['fan-right', 'fan-front-right']),
      exhaust('rear-left', 'rear', [82, 13, 0.66], ['fins-rear-left']),
      exhaust('rear-right', 'rear', [82, 13, 0.66], ['fins-rear-right']),
      exhaust('side-left', 'left', [58, 10, 0.62], ['fins-left']),
      exhaust('side-right', 'right', [58, 10, 0.62], ['fins-right']),
    ],
  }),
  record({
    identity: {
      maker: 'Oslund',
      model: 'Drift 15',
      modelCode: 'OD15-B',
      variant: '8-core 45 W and 70 W graphics, intake behind the drive bay',
      firmware: '1.30',
      year: 2024,
    },
    shell: {
      widthMm: 359,
      depthMm: 254,
      thicknessMm: 23.5,
      massKg: 2.35,
      material: 'plastic',
      finish: 'painted',
      footHeightMm: 3,
      skinLimitC: 50,
    },
    power: { source: 'mains', adapterW: 180, restW: 20, adjustable: ['preset'] },
    settings: [
      {
        id: 'play',
        preset: 'Play',
        fanMode: 'auto',
        cpuSustainedW: 45,
        cpuShortW: 80,
        cpuShortWindowS: 28,
        gpuSustainedW: 70,
      },
    ],
    dies: [
      cpu(11, 13.4, { interface: { kind: 'paste', ageYears: 2 } }),
      gpu(14, 16.2, { interface: { kind: 'paste', ageYears: 2 } }),
    ],
    plates: [
      plate('cpu', 38, ['cpu-regulators']),
      plate('gpu', 44, ['gpu-memory', 'gpu-regulators']),
    ],
    heatPipes: [
      pipe('pipe-1', [8, 3, 290], ['fins-left', 'plate-cpu', 'plate-gpu', 'fins-right']),
      pipe('pipe-2', [6, 2.5, 150], ['plate-gpu', 'fins-right']),
    ],
    finStacks: [
      stack('fins-left', [64, 9, 20, 52], ['fan-left']),
      stack('fins-right', [64, 9, 20, 52], ['fan-right']),
    ],
    fans: [fan('fan-left', [55, 8.5, 1800, 5000]), fan('fan-right', [55, 8.5, 1800, 5000])],
    vents: [
      intake('base-left', [72, 52, 0.4], ['fan-left']),
      intake('base-right', [72, 52, 0.4], ['fan-right'], { blockedShare: 0.85 }),
      exhaust('rear-left', 'rear', [66, 10, 0.6], ['fins-left']),
      exhaust('rear-right', 'rear', [66, 10, 0.6], ['fins-right']),
    ],
    strips: [
      {
        id: 'foam',
        kind: 'foam',
        at: 'fins-right',
        coversShare: 0.15,
        purpose: 'unknown',
        state: 'present',
      },
    ],
  }),
  record({
    identity: {
      maker: 'Tarnwick',
      model: 'Ledger 15',
      modelCode: 'TL15-Q',
      variant: '8-core 45 W and 80 W graphics, thick and quiet',
      firmware: '3.02',
      year: 2026,
    },
    shell: {
      widthMm: 362,
      depthMm: 262,
      thicknessMm: 29.5,
      massKg: 2.9,
      material: 'mixed',
      finish: 'painted',
      footHeightMm: 5,
      skinLimitC: 50,
    },
    power: {
      source: 'mains',
      adapterW: 230,
      restW: 20,
      adjustable: ['preset', 'power-limits', 'fan-speed'],
    },
    settings: [
      {
        id: 'hush',
        preset: 'Hush',
        fanMode: 'auto',
        cpuSustainedW: 45,
        cpuShortW: 65,
        cpuShortWindowS: 28,
        gpuSustainedW: 80,
      },
    ],
    dies: [
      cpu(12, 12.5, { interface: { kind: 'phase-change', ageYears: 0.3 } }),
      gpu(16, 17.8, { interface: { kind: 'phase-change', ageYears: 0.3 } }),
    ],
    plates: [
      plate('cpu', 46, ['cpu-regulators']),
      plate('gpu', 52, ['gpu-memory', 'gpu-regulators']),
    ],
    heatPipes: [
      pipe('pipe-1', [8, 3.6, 320], ['fins-left', 'plate-cpu', 'plate-gpu', 'fins-right'], {
        count: 3,
      }),
    ],
    finStacks: [
      stack('fins-left', [82, 15, 30, 60], ['fan-left']),
      stack('fins-right', [82, 15, 30, 60], ['fan-right']),
    ],
    fans: [fan('fan-left', [72, 13, 1100, 3600]), fan('fan-right', [72, 13, 1100, 3600])],
    vents: [
      intake('base-left', [92, 72, 0.5], ['fan-left']),
      intake('base-right', [92, 72, 0.5], ['fan-right']),
      exhaust('rear-left', 'rear', [86, 17, 0.7], ['fins-left']),
      exhaust('rear-right', 'rear', [86, 17, 0.7], ['fins-right']),
    ],
  }),
  record({
    identity: {
      maker: 'Tarnwick',
      model: 'Ledger 14',
      modelCode: 'TL14-E',
      variant: '6-core 28 W and 35 W graphics, five-year-old paste',
      firmware: '1.22',
      year: 2021,
    },
    shell: {
      widthMm: 324,
      depthMm: 228,
      thicknessMm: 18.9,
      massKg: 1.62,
      material: 'mixed',
      finish: 'painted',
      footHeightMm: 2.5,
      skinLimitC: 50,
    },
    power: { source: 'mains', adapterW: 100, restW: 12, adjustable: ['preset'] },
    settings: [
      {
        id: 'work',
        preset: 'Work',
        fanMode: 'auto',
        cpuSustainedW: 28,
        cpuShortW: 45,
        cpuShortWindowS: 28,
        gpuSustainedW: 35,
      },
    ],
    dies: [
      cpu(10.5, 13, {
        interface: {
          kind: 'paste',
          ageYears: {
            value: 5,
            plusMinus: 1,
            origin: 'estimated',
            note: 'from the board’s date code',
          },
        },
      }),
      gpu(11, 12.4, {
        interface: {
          kind: 'paste',
          ageYears: {
            value: 5,
            plusMinus: 1,
            origin: 'estimated',
            note: 'from the board’s date code',
          },
        },
      }),
    ],
    plates: [plate('cpu', 34, []), plate('gpu', 36, ['gpu-memory', 'gpu-regulators'])],
    heatPipes: [pipe('pipe-1', [6, 2.2, 220], ['plate-gpu', 'plate-cpu', 'fins'], { count: 2 })],
    finStacks: [stack('fins', [66, 7.5, 22, 58], ['fan'])],
    fans: [fan('fan', [56, 7, 1900, 4900])],
    vents: [
      intake('base', [72, 46, 0.4], ['fan']),
      exhaust('left', 'left', [68, 9, 0.6], ['fins']),
    ],
  }),
];
