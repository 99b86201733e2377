import { figureValue } from '../record/figure';
import type { CaseRecord } from '../record/recordSchema';
import type { CautionId } from '../service/cautions';
import type { Change, Lever } from './lever';

/** What levers put in place of what is there (common practice, no source). */
export const LEVER_FIGURES = {
  premium: { conductivityWmK: 12, bondLineUm: 25 },
  liquidMetal: { conductivityWmK: 40, bondLineUm: 20 },
  raisedMm: 10,
  coolerK: 5,
  fan: { larger: 1.1, faster: 1.1 },
  fins: { more: 1.15, deeper: 1.2 },
  pipe: { thicker: 1.15 },
  chamberThicknessMm: 1.5,
} as const;

const v = figureValue;
const SINK: readonly CautionId[] = ['battery', 'hot', 'bent-pipe', 'alcohol', 'seal'];
const OPENED: readonly CautionId[] = ['battery', 'static', 'seal'];
/** What only whoever builds the machine can choose. */
const BUILT_IN = 'it is soldered and shaped into the machine: the maker’s choice';
const ONE_DECIMAL = (x: number) => Math.round(10 * x) / 10;

type Made = Omit<Lever, 'possible' | 'whyNot' | 'reversible' | 'cautions' | 'goal' | 'moves'> &
  Partial<Lever>;

const lever = (made: Made): Lever => ({
  possible: (made.whyNot ?? null) === null,
  whyNot: null,
  reversible: true,
  cautions: [],
  goal: null,
  moves: 'cooling',
  ...made,
});

/**
 * Every lever that a machine has, each a change of its record; those that its owner cannot pull say why, and keep their change where
 * one can be written down.
 *
 * @param record complete
 * @param setting that applies; the first by default
 */
export function leversOf(record: CaseRecord, setting?: string): Lever[] {
  return [
    ...interfaceLevers(record),
    padsLever(record),
    cleanLever(record),
    ...stripLevers(record),
    ...ventLevers(record),
    ...standLevers(record),
    ...fanLevers(record),
    ...builtInLevers(record),
    ...settingLevers(record, setting ?? record.settings?.[0]?.id),
  ];
}

function interfaceLevers(record: CaseRecord): Lever[] {
  const dies = record.dies ?? [];
  const each = (fields: (id: string) => [string, unknown][]): Change[] =>
    dies.flatMap((d) =>
      fields(d.id).map(([field, to]) => ({ path: `dies.${d.id}.interface.${field}`, to })),
    );
  const fresh = dies.every((d) => v(d.interface?.ageYears) === 0);
  const onAluminium = (record.plates ?? []).find(
    (p) => p.kind === 'aluminium-plate' && (p.dies ?? []).length > 0,
  );
  const isMetal = dies.every((d) => d.interface?.kind === 'liquid-metal');
  const { premium, liquidMetal } = LEVER_FIGURES;
  return [
    lever({
      id: 'renew-interface',
      name: 'Renew the interface material',
      change: each(() => [['ageYears', 0]]),
      ...(fresh ? { possible: false, whyNot: 'it was renewed already' } : {}),
      cautions: SINK,
      goal: 'renew-interface',
    }),
    lever({
      id: 'premium-interface',
      name: 'Renew with premium paste',
      change: each(() => [
        ['kind', 'paste'],
        ['conductivityWmK', premium.conductivityWmK],
        ['bondLineUm', premium.bondLineUm],
        ['ageYears', 0],
      ]),
      cautions: SINK,
      goal: 'renew-interface',
    }),
    lever({
      id: 'liquid-metal',
      name: 'Liquid metal',
      change: each(() => [
        ['kind', 'liquid-metal'],
        ['conductivityWmK', liquidMetal.conductivityWmK],
        ['bondLineUm', liquidMetal.bondLineUm],
        ['ageYears', 0],
      ]),
      ...(onAluminium
        ? {
            possible: false,
            whyNot: `${onAluminium.id} is of aluminium, which liquid metal attacks`,
          }
        : isMetal
          ? { possible: false, whyNot: 'it is there already' }
          : {}),
      reversible: false,
      cautions: ['liquid-metal', ...SINK],
      goal: 'renew-interface',
    }),
  ];
}

function padsLever({ pads = [] }: CaseRecord): Lever {
  const missing = pads.filter((p) => /^\s*missing\b/i.test(p.state ?? ''));
  return lever({
    id: 'new-pads',
    name: missing.length > 0 ? 'Fit the missing pads' : 'New pads',
    change: missing.map((p) => ({ path: `pads.${p.id}.state`, to: 'new' })),
    ...(missing.length === 0 ? { possible: false, whyNot: 'no pad is missing' } : {}),
    cautions: ['alcohol', ...OPENED],
    goal: 'renew-interface',
  });
}

function cleanLever({ finStacks = [], vents = [] }: CaseRecord): Lever {
  const change = [
    ...finStacks.filter((s) => (v(s.lintShare) ?? 0) > 0).map((s) => `finStacks.${s.id}.lintShare`),
    ...vents.filter((x) => (v(x.lintShare) ?? 0) > 0).map((x) => `vents.${x.id}.lintShare`),
  ].map((path) => ({ path, to: 0 }));
  return lever({
    id: 'clean',
    name: 'Clean fins, fans and mesh',
    change,
    ...(change.length === 0 ? { possible: false, whyNot: 'no lint is recorded' } : {}),
    cautions: ['compressed-air', 'edges', ...OPENED],
    goal: 'clean-fans',
  });
}

function stripLevers({ strips = [] }: CaseRecord): Lever[] {
  return strips.map((s) => {
    const there = s.state !== 'removed';
    return lever({
      id: `${there ? 'remove' : 'fit'}-strip.${s.id}`,
      name: there ? `Remove strip ${s.id}` : `Fit strip ${s.id}`,
      change: [{ path: `strips.${s.id}.state`, to: there ? 'removed' : 'present' }],
      ...(there && (s.purpose === undefined || s.purpose === 'unknown')
        ? { possible: false, whyNot: 'nobody knows yet what it is for' }
        : {}),
      cautions: ['strip', ...OPENED],
      goal: 'clean-fans',
    });
  });
}

function ventLevers({ vents = [] }: CaseRecord): Lever[] {
  return vents
    .filter((x) => (v(x.blockedShare) ?? 0) > 0)
    .map((x) =>
      lever({
        id: `open-vent.${x.id}`,
        name: `Open vent ${x.id}`,
        change: [{ path: `vents.${x.id}.blockedShare`, to: 0 }],
        ...(x.coveredBy && /bay|drive|board|cage/i.test(x.coveredBy)
          ? { possible: false, whyNot: `${x.coveredBy} stands behind it` }
          : {}),
        cautions: OPENED,
        goal: 'clean-fans',
      }),
    );
}

function standLevers({ shell, room }: CaseRecord): Lever[] {
  const feet = v(shell?.footHeightMm);
  const { raisedMm, coolerK } = LEVER_FIGURES;
  const roomC = v(room?.temperatureC);
  const surface = room?.surface ?? 'desk';
  return [
    lever({
      id: 'raise-rear',
      name: 'Raise the rear edge',
      // the gap grows from nothing in front: by half as much on the whole
      change: [{ path: 'shell.footHeightMm', to: ONE_DECIMAL((feet ?? 2.5) + raisedMm / 2) }],
      ...(surface === 'stand' ? { possible: false, whyNot: 'it stands free already' } : {}),
    }),
    lever({
      id: 'raise-all',
      name: 'Stand it on an open stand',
      change: [{ path: 'room.surface', to: 'stand' }],
      ...(surface === 'stand' ? { possible: false, whyNot: 'it stands on one already' } : {}),
    }),
    lever({
      id: 'lid',
      name: 'Open the lid',
      change: room?.lid === 'closed' ? [{ path: 'room.lid', to: 'open' }] : [],
      ...(room?.lid === 'closed' ? {} : { possible: false, whyNot: 'the lid is open' }),
    }),
    lever({
      id: 'ground',
      name: 'Hard ground',
      change: surface === 'soft' ? [{ path: 'room.surface', to: 'desk' }] : [],
      ...(surface === 'soft' ? {} : { possible: false, whyNot: 'it stands on no soft ground' }),
    }),
    lever({
      id: 'cooler-room',
      name: `A room ${coolerK} K cooler`,
      change: [{ path: 'room.temperatureC', to: ONE_DECIMAL((roomC ?? 23) - coolerK) }],
    }),
  ];
}

function fanLevers({ fans = [] }: CaseRecord): Lever[] {
  const { larger } = LEVER_FIGURES.fan;
  return fans.flatMap((f) => {
    const across = v(f.impellerDiameterMm);
    if (across === undefined) return [];
    return [
      lever({
        id: `fan.${f.id}`,
        name: `A fan of ${ONE_DECIMAL(larger * across)} mm in place of ${f.id}`,
        change: [
          { path: `fans.${f.id}.impellerDiameterMm`, to: ONE_DECIMAL(larger * across) },
          // a curve belongs to the fan that it was measured of
          ...(f.curve?.length ? [{ path: `fans.${f.id}.curve`, to: null }] : []),
        ],
        possible: false,
        whyNot: 'a larger one does not fit its housing',
        cautions: ['edges', 'wires-pulled', ...OPENED],
        goal: 'clean-fans',
      }),
    ];
  });
}

function builtInLevers(record: CaseRecord): Lever[] {
  const { heatPipes = [], finStacks = [], plates = [] } = record;
  const { fins, pipe, chamberThicknessMm } = LEVER_FIGURES;
  const builtIn = (made: Pick<Lever, 'id' | 'name' | 'change'>) =>
    lever({ ...made, possible: false, whyNot: BUILT_IN, reversible: false });
  const onDies = plates.filter((p) => (p.dies ?? []).length > 0 && p.kind !== 'none');
  const isChamber = onDies.every((p) => p.kind === 'vapor-chamber');
  return [
    ...(heatPipes.length > 0
      ? [
          builtIn({
            id: 'pipes',
            name: 'One more pipe of each',
            change: heatPipes.flatMap((p) => {
              const count = v(p.count) ?? 1;
              return count < 12 ? [{ path: `heatPipes.${p.id}.count`, to: count + 1 }] : [];
            }),
          }),
          builtIn({
            id: 'pipes-thicker',
            name: 'Thicker pipes',
            change: heatPipes.flatMap((p) => {
              const round = v(p.diameterMm);
              const flat = v(p.flattenedMm);
              if (round === undefined) return [];
              return [
                { path: `heatPipes.${p.id}.diameterMm`, to: ONE_DECIMAL(pipe.thicker * round) },
                ...(flat === undefined
                  ? []
                  : [
                      {
                        path: `heatPipes.${p.id}.flattenedMm`,
                        to: ONE_DECIMAL(pipe.thicker * flat),
                      },
                    ]),
              ];
            }),
          }),
        ]
      : []),
    ...(finStacks.length > 0
      ? [
          builtIn({
            id: 'fins',
            name: 'More fins',
            change: finStacks.flatMap((s) => {
              const count = v(s.finCount);
              return count === undefined
                ? []
                : [{ path: `finStacks.${s.id}.finCount`, to: Math.round(fins.more * count) }];
            }),
          }),
          builtIn({
            id: 'fins-deeper',
            name: 'Deeper fins',
            change: finStacks.flatMap((s) => {
              const depth = v(s.depthMm);
              return depth === undefined
                ? []
                : [{ path: `finStacks.${s.id}.depthMm`, to: ONE_DECIMAL(fins.deeper * depth) }];
            }),
          }),
        ]
      : []),
    ...(onDies.length > 0
      ? [
          lever({
            id: 'chamber',
            name: 'A vapor chamber in place of plates',
            change: onDies
              .filter((p) => p.kind !== 'vapor-chamber')
              .flatMap((p) => [
                { path: `plates.${p.id}.kind`, to: 'vapor-chamber' },
                { path: `plates.${p.id}.thicknessMm`, to: chamberThicknessMm },
              ]),
            possible: false,
            whyNot: isChamber ? 'it has one' : BUILT_IN,
            reversible: false,
          }),
        ]
      : []),
    separateLoops(record),
  ];
}

/** Each die with pipes of its own: what they share is shared out. */
function separateLoops({ dies = [], plates = [], heatPipes = [] }: CaseRecord): Lever {
  const plateOf = new Map(plates.flatMap((p) => (p.dies ?? []).map((d) => [p.id, d] as const)));
  const shared = heatPipes.filter((p) => {
    const own = new Set((p.along ?? []).flatMap((a) => plateOf.get(a.part) ?? []));
    return own.size > 1;
  });
  const splittable = shared.filter((p) => (v(p.count) ?? 1) >= dies.length);
  const change = splittable.flatMap((p): Change[] => {
    const count = v(p.count) ?? 1;
    const { id: _, ...rest } = p;
    const without = (die: string) => ({
      ...rest,
      along: (p.along ?? []).filter((a) => {
        const of = plateOf.get(a.part);
        return of === undefined || of === die;
      }),
    });
    const [first, ...others] = dies;
    const each = Math.floor(count / dies.length);
    return [
      {
        path: `heatPipes.${p.id}`,
        to: { ...without(first!.id), count: count - each * others.length },
      },
      ...others.map((d) => ({
        path: `heatPipes.${p.id}-${d.id}`,
        to: { ...without(d.id), count: each },
      })),
    ];
  });
  return lever({
    id: 'separate-loops',
    name: 'Separate in place of shared loops',
    change,
    possible: false,
    whyNot:
      shared.length === 0
        ? 'its loops are separate'
        : change.length === 0
          ? 'one pipe cannot be shared out'
          : BUILT_IN,
    reversible: false,
  });
}

function settingLevers({ settings = [], power }: CaseRecord, now: string | undefined): Lever[] {
  const may = (what: string) =>
    power?.adjustable === undefined || (power.adjustable as readonly string[]).includes(what);
  const applies = settings.find((s) => s.id === now);
  const limits = applies
    ? (['cpuSustainedW', 'gpuSustainedW'] as const).filter((k) => applies[k] !== undefined)
    : [];
  return [
    ...settings
      .filter((s) => s.id !== now)
      .map((s) =>
        lever({
          id: `setting.${s.id}`,
          name: `Setting ${s.preset ?? s.id}`,
          change: [{ path: 'setting', to: s.id }],
          ...(may('preset') ? {} : { possible: false, whyNot: 'the owner cannot choose a preset' }),
          moves: 'setting' as const,
        }),
      ),
    lever({
      id: 'limits',
      name: 'Power limits as high as the cooling carries',
      change: limits.map((k) => ({ path: `settings.${now!}.${k}`, to: null })),
      ...(limits.length === 0
        ? { possible: false, whyNot: 'no power limit is recorded' }
        : may('power-limits')
          ? {}
          : { possible: false, whyNot: 'the owner cannot set power limits here' }),
      cautions: ['limits'],
      moves: 'setting',
    }),
  ];
}
