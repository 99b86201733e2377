import { standardAtmosphere } from '../fluids/standardAtmosphere';
import { interfaceResistance } from '../conduction/interfaceMaterial';
import { correctForBackground } from '../sound/background';
import { layAlong } from '../pipes/pipeLayout';
import { pipeSection } from '../pipes/pipeSection';
import type {
  CaseData,
  DieData,
  FanData,
  PadData,
  PipeData,
  PlateData,
  StackData,
  VentData,
  WickData,
} from './caseData';
import { DEFAULTS, type DefaultKey } from './defaults';
import { figureValue, type Figure } from './figure';
import type { CaseRecord } from './recordSchema';
import { createResolver, type LabDefaults, type Overrides, type Resolver } from './resolver';

const v = figureValue;
const MM = 1e-3;
const LEAST_CONTACT_M = 1e-4;

/**
 * Resolves a complete record into SI numbers, filling every absent figure from the defaults.
 *
 * @param record a record without issues
 * @param overrides values for recorded figures and defaults alike, by path or in order
 * @param options a lab's own defaults; `silent` keeps no account of what was used
 * @returns the case and the list of defaults used
 */
export function resolveCase(
  record: CaseRecord,
  overrides?: Overrides,
  options: { lab?: LabDefaults | undefined; silent?: boolean } = {},
): CaseData {
  const r = createResolver(overrides, options.lab, options.silent);
  const dies = record.dies ?? [];
  const plates = (record.plates ?? []).map((_, i) => resolvePlate(record, i, r));
  const pipes = (record.heatPipes ?? []).map((_, i) => resolvePipe(record, i, plates, r));
  return {
    room: {
      temperatureC: r.figure('room.temperatureC', record.room?.temperatureC, 'room.temperatureC'),
      pressurePa: standardAtmosphere(
        r.figure('room.altitudeM', record.room?.altitudeM, 'room.altitudeM'),
      ).pressurePa,
      surface: record.room?.surface ?? 'desk',
      lid: record.room?.lid ?? 'open',
      lidClosedDeckVentShare:
        record.room?.lid === 'closed' ? r.factor('room.lidClosedDeckVentShare') : 1,
    },
    shell: resolveShell(record, r),
    power: {
      restW: r.figure('power.restW', record.power?.restW, 'power.restW'),
      restLidShare: record.room?.lid === 'closed' ? 0 : r.factor('power.restLidShare'),
      restAirShare: r.factor('power.restAirShare'),
      fanW: r.factor('power.fanW'),
      adapterW:
        record.power?.source === 'battery' || record.power?.adapterW === undefined
          ? null
          : r.known('power.adapterW', record.power.adapterW),
    },
    evaporatorMarginM: pipes.length ? r.factor('heatPipes.evaporatorMarginMm') * MM : 0,
    dies: dies.map((_, i) => resolveDie(record, i, r)),
    plates,
    pipes,
    stacks: (record.finStacks ?? []).map((_, i) => resolveStack(record, i, pipes, r)),
    fans: (record.fans ?? []).map((_, i) => resolveFan(record, i, r)),
    vents: resolveVents(record, r),
    air: {
      leakage: r.factor('fans.leakage'),
      recirculation: r.factor('fans.recirculation'),
      nusseltFactor: r.factor('finStacks.nusseltFactor'),
      uaFactor: r.factor('finStacks.uaFactor'),
    },
    noise: resolveNoise(record, r),
    pads: resolvePads(record, r),
    assumed: r.assumed,
    inputs: r.inputs,
    order: r.order,
  };
}

function resolveShell(record: CaseRecord, r: Resolver): CaseData['shell'] {
  const s = record.shell ?? {};
  const material = s.material ?? 'mixed';
  const surface = record.room?.surface ?? 'desk';
  const widthM = r.figure('shell.widthMm', s.widthMm, 'shell.widthMm') * MM;
  const depthM = r.figure('shell.depthMm', s.depthMm, 'shell.depthMm') * MM;
  const foot = r.figure('shell.footHeightMm', s.footHeightMm, 'shell.footHeightMm') * MM;
  const open = surface === 'soft' ? r.factor('room.softGapShare') : surface === 'stand' ? 8 : 1;
  return {
    widthM,
    depthM,
    emissivity: r.factor(`shell.emissivity.${s.finish ?? 'painted'}`),
    evenness: r.factor(`shell.evenness.${material}`),
    deckShare: record.room?.lid === 'closed' ? r.factor('room.lidClosedDeckShare') : 1,
    baseShare:
      surface === 'stand'
        ? 1
        : r.factor(surface === 'soft' ? 'room.softBaseShare' : 'room.deskBaseShare'),
    sheetConductivityWmK: r.factor(`shell.conductivity.${material}`),
    sheetThicknessM: r.factor(`shell.sheetMm.${material}`) * MM,
    spotCoefficientWm2K: r.factor('shell.spotCoefficientWm2K'),
    plateGapM: r.factor('shell.plateGapMm') * MM,
    boardWK: r.factor('shell.boardWK'),
    insideAirWm2K: r.factor('shell.insideAirWm2K'),
    skinLimitC: r.figure('shell.skinLimitC', s.skinLimitC, 'shell.skinLimitC'),
    exhaustLimitC: r.figure('shell.exhaustLimitC', s.exhaustLimitC, 'shell.exhaustLimitC'),
    // a machine without feet still stands a hair above the desk
    gapAreaM2: 2 * (widthM + depthM) * Math.max(foot, 0.3 * MM) * open,
    gapLoss: r.factor('vents.gapLoss'),
  };
}

function resolveDie(record: CaseRecord, index: number, r: Resolver): DieData {
  const d = record.dies![index]!;
  const at = `dies.${d.id}`;
  const widthM = r.known(`${at}.widthMm`, d.widthMm) * MM;
  const lengthM = r.known(`${at}.lengthMm`, d.lengthMm) * MM;
  const area = widthM * lengthM;
  const kind = d.interface?.kind ?? 'paste';
  const m = d.interface;
  const interfaceKW = interfaceResistance(
    r.figure(`${at}.interface.bondLineUm`, m?.bondLineUm, `dies.interface.bondLineUm.${kind}`) *
      1e-6,
    r.figure(
      `${at}.interface.conductivityWmK`,
      m?.conductivityWmK,
      `dies.interface.conductivityWmK.${kind}`,
    ),
    area,
    r.factor('dies.interface.contactM2KW'),
    r.figure(`${at}.interface.ageYears`, m?.ageYears, 'dies.interface.ageYears'),
    r.factor(`dies.interface.ageingPerYear.${kind}`),
  );
  const dieKW = (r.factor('dies.thicknessMm') * MM) / (r.factor('dies.siliconWmK') * area);
  const hot = (d.sensor ?? 'hotspot') === 'hotspot' ? r.factor('dies.hotSpotFactor') : 1;
  const sameRole = record.dies!.filter((x) => x.role === d.role);
  const total = sameRole.reduce((sum, x) => sum + (v(x.widthMm) ?? 0) * (v(x.lengthMm) ?? 0), 0);
  const meaning = d.powerMeaning ?? (d.role === 'gpu' ? 'board' : 'package');
  const outside = meaning === 'die' ? 0 : r.factor('dies.shareOutside');
  return {
    id: d.id,
    role: d.role,
    roleShare: ((v(d.widthMm) ?? 0) * (v(d.lengthMm) ?? 0)) / total,
    widthM,
    lengthM,
    maxJunctionC: r.figure(`${at}.maxJunctionC`, d.maxJunctionC, `dies.maxJunctionC.${d.role}`),
    junctionResistanceKW: hot * (dieKW + interfaceKW),
    resistances: { dieKW, interfaceKW },
    insideShare: meaning === 'board' ? 1 - outside : 1,
    outsideShare: outside,
    outsidePlate: (record.plates ?? []).findIndex((p) =>
      p.covers?.some((c) => c.startsWith(`${d.role}-`) || c.startsWith(`${d.id}-`)),
    ),
  };
}

function resolvePlate(record: CaseRecord, index: number, r: Resolver): PlateData {
  const p = record.plates![index]!;
  const at = `plates.${p.id}`;
  const chamber = p.kind === 'vapor-chamber';
  const dies = (p.dies ?? []).map((id) => record.dies!.findIndex((d) => d.id === id));
  // without a recorded size the plate reaches a margin beyond its dies, laid side by side
  const sizes = dies.map((i) => record.dies![i]!);
  const wide = sizes.reduce((sum, d) => sum + (v(d.widthMm) ?? 0), 0);
  const long = Math.max(0, ...sizes.map((d) => v(d.lengthMm) ?? 0));
  const margin =
    p.kind !== 'none' && (v(p.widthMm) === undefined || v(p.lengthMm) === undefined)
      ? r.factor('plates.marginMm')
      : 0;
  const thicknessM =
    p.kind === 'none'
      ? 0
      : r.figure(
          `${at}.thicknessMm`,
          p.thicknessMm,
          chamber ? 'plates.chamberThicknessMm' : 'plates.thicknessMm',
        ) * MM;
  const section = pipeSection(thicknessM, thicknessM, undefined, 1, 1);
  const widthM =
    r.optional(`${at}.widthMm`, p.widthMm, wide + 2 * margin * Math.max(1, dies.length)) * MM;
  const lengthM = r.optional(`${at}.lengthMm`, p.lengthMm, long + 2 * margin) * MM;
  return {
    id: p.id,
    kind: p.kind,
    dies,
    widthM,
    lengthM,
    centres: sizes.map((d, i) => {
      const place = p.places?.find((x) => x.die === d.id);
      if (place) return { xM: v(place.xMm)! * MM, yM: v(place.yMm)! * MM };
      const along = (i + 0.5) / sizes.length;
      return widthM >= lengthM
        ? { xM: along * widthM, yM: lengthM / 2 }
        : { xM: widthM / 2, yM: along * lengthM };
    }),
    thicknessM,
    conductivityWmK: r.factor(
      p.kind === 'aluminium-plate'
        ? 'plates.conductivity.aluminium-plate'
        : 'plates.conductivity.copper-plate',
    ),
    wallM: section.wallM,
    wickM: section.wickThicknessM,
    // a chamber's wick is taken as sintered, as nearly all are
    wick: chamber ? resolveWick('sintered', r) : null,
    chamberFluxWm2: chamber ? r.factor('plates.chamberFluxWcm2') * 1e4 : Infinity,
  };
}

/** A wick of a kind; a coarser one lets more through and pumps less. */
function resolveWick(kind: 'sintered' | 'grooved' | 'mesh', r: Resolver): WickData {
  const key = (name: string) => `heatPipes.${name}.${kind}` as DefaultKey;
  const poreUm = r.factor(key('poreUm'));
  return {
    permeabilityM2: r.factor(key('permeability')) * (poreUm / DEFAULTS[key('poreUm')].value) ** 2,
    poreM: poreUm * 1e-6,
    conductivityWmK: r.factor(key('wickWmK')),
  };
}

function resolvePipe(
  record: CaseRecord,
  index: number,
  plates: readonly PlateData[],
  r: Resolver,
): PipeData {
  const p = record.heatPipes![index]!;
  const at = `heatPipes.${p.id}`;
  const wick = p.wick ?? 'sintered';
  const diameterM = r.known(`${at}.diameterMm`, p.diameterMm) * MM;
  const pressed =
    r.figure(`${at}.flattenedMm`, p.flattenedMm, 'heatPipes.pressedShare', diameterM / MM) * MM;
  const width = v(p.flattenedWidthMm);
  const section = pipeSection(
    diameterM,
    pressed,
    width === undefined ? undefined : r.known(`${at}.flattenedWidthMm`, p.flattenedWidthMm) * MM,
    r.factor('heatPipes.wallFactor'),
    r.factor('heatPipes.wickFactor'),
  );
  const marginM = r.factor('heatPipes.evaporatorMarginMm') * MM;
  const parts = (p.along ?? []).map((a) => {
    const plate = plates.findIndex((x) => x.id === a.part);
    const stack = (record.finStacks ?? []).findIndex((x) => x.id === a.part);
    const naturalM =
      plate >= 0
        ? plateContactLength(record, plates[plate]!, marginM)
        : (v(record.finStacks![stack]!.widthMm) ?? 50) * MM;
    const position = (key: 'fromMm' | 'toMm', x: Figure | undefined) =>
      x === undefined ? undefined : r.known(`${at}.along.${a.part}.${key}`, x) * MM;
    return {
      part:
        plate >= 0
          ? ({ kind: 'plate', index: plate } as const)
          : ({ kind: 'stack', index: stack } as const),
      naturalM,
      fromM: position('fromMm', a.fromMm),
      toM: position('toMm', a.toMm),
    };
  });
  const touched = parts.reduce((sum, x) => sum + x.naturalM, 0);
  const furthest = Math.max(touched, ...parts.map((x) => x.toM ?? 0));
  const lengthM =
    r.figure(`${at}.lengthMm`, p.lengthMm, 'heatPipes.lengthFactor', furthest / MM) * MM;
  const laid = layAlong(parts, lengthM);
  return {
    id: p.id,
    count: v(p.count) ?? 1,
    lengthM,
    tiltRad: (r.optional(`${at}.tiltDeg`, p.tiltDeg, 0) * Math.PI) / 180,
    ...section,
    wick: resolveWick(wick, r),
    limitFactor: r.factor('heatPipes.limitFactor'),
    bendFactor: Math.max(0.3, 1 - r.factor('heatPipes.bendLoss') * (v(p.bends) ?? 0)),
    nucleationM: r.factor('heatPipes.nucleationUm') * 1e-6,
    contacts: parts.map((x, i) => ({
      part: x.part,
      fromM: laid[i]!.fromM,
      // positions drawn within their ± may cross; a contact keeps a trace of length
      toM: Math.max(laid[i]!.toM, laid[i]!.fromM + LEAST_CONTACT_M),
    })),
    solderM2KW: r.factor('heatPipes.solderM2KW'),
  };
}

/** A pipe takes up heat only under the dies of a plate and a few millimetres beside them. */
function plateContactLength(record: CaseRecord, plate: PlateData, marginM: number): number {
  let length = 0;
  for (const i of plate.dies) {
    const d = record.dies![i]!;
    const side = Math.sqrt((v(d.widthMm) ?? 0) * (v(d.lengthMm) ?? 0)) * MM;
    length += plate.kind === 'none' ? side : side + 2 * marginM;
  }
  if (length === 0) length = Math.max(plate.widthM, plate.lengthM);
  if (plate.kind === 'vapor-chamber') return Math.max(plate.widthM, plate.lengthM);
  return plate.kind === 'none' ? length : Math.min(length, Math.max(plate.widthM, plate.lengthM));
}

/** Share that strips leave open, at least a trace. */
function presentStripShare(record: CaseRecord, at: string, r: Resolver): number {
  let open = 1;
  for (const s of record.strips ?? []) {
    if (s.at === at && (s.state ?? 'present') === 'present') {
      open *= 1 - r.optional(`strips.${s.id}.coversShare`, s.coversShare, 0);
    }
  }
  return Math.max(0.02, open);
}

/** Air lost before a stack because strips that sealed its duct are gone. */
function lostSeals(record: CaseRecord, at: string, r: Resolver): number {
  let kept = 1;
  for (const s of record.strips ?? []) {
    if (s.at === at && s.purpose === 'duct-seal' && s.state === 'removed') {
      kept *= 1 - r.factor('strips.sealLeakage');
    }
  }
  return 1 - kept;
}

function resolveStack(
  record: CaseRecord,
  index: number,
  pipes: readonly PipeData[],
  r: Resolver,
): StackData {
  const s = record.finStacks![index]!;
  const at = `finStacks.${s.id}`;
  const widthM = r.known(`${at}.widthMm`, s.widthMm) * MM;
  const heightM = r.known(`${at}.heightMm`, s.heightMm) * MM;
  const depthM = r.known(`${at}.depthMm`, s.depthMm) * MM;
  const count = r.known(`${at}.finCount`, s.finCount);
  const thickM =
    r.figure(`${at}.finThicknessMm`, s.finThicknessMm, 'finStacks.finThicknessMm') * MM;
  const pitch = widthM / count;
  const thin = Math.min(thickM, 0.9 * pitch);
  const open =
    (1 - r.optional(`${at}.blockedShare`, s.blockedShare, 0)) * presentStripShare(record, s.id, r);
  const under = pipes.reduce(
    (sum, p) =>
      p.contacts.some((c) => c.part.kind === 'stack' && c.part.index === index)
        ? sum + p.count * p.outerWidthM
        : sum,
    0,
  );
  const fanIndex = (id: string) => record.fans!.findIndex((f) => f.id === id);
  const hasVent = (record.vents ?? []).some(
    (x) => x.flow === 'exhaust' && x.finStacks?.includes(s.id),
  );
  const plates = (s.plates ?? []).map((id) => record.plates!.findIndex((p) => p.id === id));
  return {
    id: s.id,
    widthM,
    passages: count * open,
    gapM: pitch - thin,
    openShare: (pitch - thin) / pitch,
    fin: {
      heightM,
      depthM,
      thicknessM: thin,
      conductivityWmK: r.factor(`finStacks.conductivity.${s.material ?? 'copper'}`),
      joined: s.joined ?? 'one-side',
    },
    contactDepthM: plates.length ? depthM : Math.max(1e-3, under),
    pipeOrder: pipeOrder(record, index, pipes),
    lintShare: r.optional(`${at}.lintShare`, s.lintShare, 0),
    extraLeakage: lostSeals(record, s.id, r),
    fans: (s.fans ?? []).map(fanIndex),
    plates,
    plateJointM2KW: plates.length ? r.factor('finStacks.soldered.platesM2KW') : 0,
    ownExhaust: hasVent
      ? null
      : { areaM2: widthM * heightM, openShare: r.factor('finStacks.exhaustOpenShare') },
  };
}

/** Pipes on a stack in the order the air meets them: as recorded, the others behind in the order of the record. */
function pipeOrder(record: CaseRecord, stack: number, pipes: readonly PipeData[]): number[] {
  const touching = pipes.flatMap((p, k) =>
    p.contacts.some((c) => c.part.kind === 'stack' && c.part.index === stack) ? [k] : [],
  );
  const named = record.finStacks![stack]!.pipesFromFan ?? [];
  const rank = (k: number) => {
    const i = named.indexOf(pipes[k]!.id);
    return i < 0 ? named.length : i;
  };
  return touching.sort((a, b) => rank(a) - rank(b) || a - b);
}

function resolveFan(record: CaseRecord, index: number, r: Resolver): FanData {
  const f = record.fans![index]!;
  const at = `fans.${f.id}`;
  const diameterM = r.known(`${at}.impellerDiameterMm`, f.impellerDiameterMm) * MM;
  const bladeHeightM =
    r.figure(`${at}.bladeHeightMm`, f.bladeHeightMm, 'fans.bladeHeightShare', diameterM / MM) * MM;
  const maxRpm = r.figure(`${at}.maxRpm`, f.maxRpm, 'fans.tipSpeedMs', 60 / (Math.PI * diameterM));
  const minRpm = Math.min(maxRpm, r.figure(`${at}.minRpm`, f.minRpm, 'fans.minDuty', maxRpm));
  const hasVent = (record.vents ?? []).some((x) => x.flow === 'intake' && x.fans?.includes(f.id));
  const kind = fanKind(record, index);
  return {
    id: f.id,
    diameterM,
    bladeHeightM,
    minRpm,
    maxRpm,
    ownControl: f.control === 'own',
    psi: r.factor('fans.psi', kind),
    phi: r.factor('fans.phi', kind),
    curveExponent: r.factor('fans.curveExponent', kind),
    points: (f.curve ?? []).map((p) => ({
      rpm: v(p.rpm)!,
      flowM3s: v(p.flowLps)! * 1e-3,
      pressurePa: v(p.pressurePa)!,
    })),
    ownIntake: hasVent
      ? null
      : {
          areaM2: (Math.PI / 4) * diameterM * diameterM,
          openShare: r.factor('fans.intakeOpenShare'),
        },
  };
}

/** Fans of one size are of one kind and share its factors; in a machine with a single kind it needs no name. */
function fanKind(record: CaseRecord, index: number): string | undefined {
  const kindOf = (i: number) => {
    const f = record.fans![i]!;
    return [f.impellerDiameterMm, f.bladeHeightMm].map((x) => v(x) ?? '').join('x');
  };
  const here = kindOf(index);
  return record.fans!.every((_, i) => kindOf(i) === here) ? undefined : here.replaceAll('.', '_');
}

function resolveVents(record: CaseRecord, r: Resolver): VentData[] {
  const out: VentData[] = [];
  for (const x of record.vents ?? []) {
    if (x.flow === 'passive') continue;
    const fans = (x.fans ?? []).map((id) => record.fans!.findIndex((f) => f.id === id));
    const stacks = (x.finStacks ?? []).map((id) => record.finStacks!.findIndex((s) => s.id === id));
    // an opening that feeds no fan and lets no stack breathe out only helps passively
    if (x.flow === 'intake' ? fans.length === 0 : stacks.length === 0) continue;
    const at = `vents.${x.id}`;
    const open =
      (1 - r.optional(`${at}.blockedShare`, x.blockedShare, 0)) *
      presentStripShare(record, x.id, r);
    const lint = r.optional(`${at}.lintShare`, x.lintShare, 0);
    out.push({
      id: x.id,
      flow: x.flow,
      side: x.side ?? (x.flow === 'intake' ? 'base' : 'rear'),
      areaM2:
        r.known(`${at}.widthMm`, x.widthMm) * r.known(`${at}.lengthMm`, x.lengthMm) * 1e-6 * open,
      openShare: r.figure(`${at}.openShare`, x.openShare, 'vents.openShare'),
      meshOpenShare: x.mesh
        ? r.factor('vents.meshOpenShare') * (1 - lint)
        : lint > 0
          ? 1 - lint
          : null,
      fans,
      stacks,
    });
  }
  return out;
}

function resolveNoise(record: CaseRecord, r: Resolver): CaseData['noise'] {
  const background = v(record.noise?.backgroundDbA);
  return {
    referenceDbA: r.factor('noise.referenceDbA'),
    sweepOffsetDb: record.noise?.sweep?.length ? r.factor('noise.sweepOffsetDb') : 0,
    distanceM: r.optional('noise.distanceM', record.noise?.distanceM, 0.5),
    sweep: (record.noise?.sweep ?? []).map((s) => ({
      rpm: Object.fromEntries(Object.entries(s.rpm).map(([id, x]) => [id, v(x)!])),
      dbA:
        background === undefined ? v(s.dbA)! : correctForBackground(v(s.dbA)!, background).levelDbA,
    })),
  };
}

const PAD_SOURCES = ['storage', 'wireless', 'memory'] as const;

/** Pads beside the main heat path: from a plate, or from storage, wireless and memory, to a plate or the base cover. */
function resolvePads(record: CaseRecord, r: Resolver): PadData[] {
  return (record.pads ?? []).map((p) => {
    const at = `pads.${p.id}`;
    const plate = (name: string | undefined) =>
      (record.plates ?? []).findIndex((x) => x.id === name);
    const fromPlate = plate(p.from);
    const side = (key: 'widthMm' | 'lengthMm') =>
      r.figure(`${at}.${key}`, p[key], 'pads.sideMm') * MM;
    const thickness = r.figure(`${at}.thicknessMm`, p.thicknessMm, 'pads.thicknessMm') * MM;
    const conductivity = r.figure(
      `${at}.conductivityWmK`,
      p.conductivityWmK,
      'pads.conductivityWmK',
    );
    const word = PAD_SOURCES.find((x) => p.from?.toLowerCase().includes(x));
    return {
      id: p.id,
      fromPlate,
      toPlate: plate(p.to),
      conductanceWK: (conductivity * side('widthMm') * side('lengthMm')) / thickness,
      sourceW:
        fromPlate >= 0 || !word ? 0 : r.figure(`${at}.sourceW`, p.sourceW, `pads.sourceW.${word}`),
    };
  });
}
