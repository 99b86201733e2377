import { DEFAULTS, type Default, type DefaultKey } from '../record/defaults';
import { figureValue, type Figure, type FigureDetail } from '../record/figure';
import type {
  DieRecord,
  FanRecord,
  FinStackRecord,
  PlateRecord,
  VentRecord,
} from '../record/partSchema';
import type { CaseRecord } from '../record/recordSchema';
import type { LabDefaults } from '../record/resolver';
import { tidy } from '../record/units';
import { COUNT_NOTE } from '../record/figure';
import type { Count } from './countSchema';
import { hasGpu, saysPipes } from './hasGpu';
import { layPipes } from './layPipes';

const Z95 = 1.6448536269514722;
/** Classes that the sizes of the dies are given for, W. */
const CPU_CLASS_W = 45;
const GPU_CLASS_W = 90;
/** Longer side of a die over its shorter one. */
const CPU_SIDES = 14 / 12;
const GPU_SIDES = 17 / 15;

const n = (x: Figure | null | undefined) => figureValue(x ?? undefined);

/** A figure that was counted or read by eye: estimated where nobody said a ±. */
function counted(x: Figure | null | undefined): FigureDetail | undefined {
  if (x === null || x === undefined) return undefined;
  if (typeof x === 'number') return { value: x, origin: 'estimated', note: COUNT_NOTE };
  return {
    ...x,
    ...(x.plusMinus === undefined ? { origin: x.origin ?? 'estimated' } : {}),
    note: x.note ?? COUNT_NOTE,
  };
}

/** Nothing under keys that are not there. */
function only<T extends object>(fields: T): T {
  return Object.fromEntries(Object.entries(fields).filter(([, x]) => x !== undefined)) as T;
}

/**
 * A complete record from what can be counted. What the core has a default for is left out, so that it is assumed with its
 * range; what a record cannot do without is written down as assumed, with the ± of its default. Nothing is measured.
 *
 * @param count that `checkCount` found nothing wrong with
 * @param lab a laboratory's own defaults
 * @returns a record that can be estimated at once
 * @example recordFromCount({ format: 'zugluft-count', formatVersion: 1, fans: 2, fanDiameterMm: 58, stackWidthMm: 70, stackDepthMm: 24 })
 */
export function recordFromCount(count: Count, lab: LabDefaults = {}): CaseRecord {
  const of = (key: DefaultKey): Default | LabDefaults[DefaultKey] => lab[key] ?? DEFAULTS[key];
  /** An assumed figure: its default times a factor, with the deviation of its range. */
  const assumed = (key: DefaultKey, factor = 1): FigureDetail => {
    const d = of(key)!;
    return {
      value: tidy(d.value * factor),
      plusMinus: tidy(((d.high - d.low) / (2 * Z95)) * factor),
      origin: 'assumed',
      note: COUNT_NOTE,
    };
  };
  const gpu = hasGpu(count);
  const fans = fansOf(count);
  const stacks = stacksOf(count, fans, assumed);
  const dies = [dieOf('cpu', count, assumed), ...(gpu ? [dieOf('gpu', count, assumed)] : [])];
  const plates = platesOf(count, dies, assumed);
  const heatPipes = layPipes(
    pipeCounts(count, gpu),
    plates.map((p) => p.id),
    stacks.map((s) => s.id),
    only({
      diameterMm: counted(count.pipeDiameterMm) ?? assumed('count.pipeDiameterMm'),
      flattenedMm: counted(count.pipePressedMm),
    }),
  );
  if (heatPipes.length === 0) for (const s of stacks) s.plates = [plates[0]!.id];
  return {
    format: 'zugluft-record',
    formatVersion: 1,
    identity: only({
      maker: count.maker ?? undefined,
      model: count.model ?? undefined,
      variant: count.variant ?? undefined,
      year: count.year ?? undefined,
    }),
    shell: only({
      widthMm: counted(count.widthMm),
      depthMm: counted(count.depthMm),
      thicknessMm: counted(count.thicknessMm),
      footHeightMm: counted(count.footMm),
      material: count.material ?? undefined,
    }),
    settings: settingsOf(count, gpu),
    dies,
    plates,
    heatPipes,
    finStacks: stacks,
    fans,
    vents: ventsOf(count, fans, stacks, assumed),
    count,
  } as CaseRecord;
}

type Assumed = (key: DefaultKey, factor?: number) => FigureDetail;

/** Names of parts from the user's left to the right. */
function idsOf(word: string, many: number): string[] {
  if (many === 1) return [word];
  if (many === 2) return [`${word}-left`, `${word}-right`];
  return Array.from({ length: many }, (_, i) => `${word}-${i + 1}`);
}

function fansOf(count: Count): FanRecord[] {
  return idsOf('fan', n(count.fans)!).map((id) =>
    only({
      id,
      impellerDiameterMm: counted(count.fanDiameterMm),
      bladeHeightMm: counted(count.fanHeightMm),
      maxRpm: counted(count.fanMaxRpm),
    }),
  );
}

/** Stacks and fans lie in the same order, so that the first ones belong together. */
function stacksOf(count: Count, fans: readonly FanRecord[], assumed: Assumed): FinStackRecord[] {
  const many = n(count.stacks) ?? fans.length;
  const diameter = n(count.fanDiameterMm)!;
  const blades = n(count.fanHeightMm) ?? diameter * DEFAULTS['fans.bladeHeightShare'].value;
  const heightMm = counted(count.stackHeightMm) ?? assumed('count.stackOverFanHeight', blades);
  const depthMm = counted(count.stackDepthMm) ?? assumed('count.stackDepthMm');
  const pitch = assumed('count.finPitchMm');
  const pitchShare = pitch.plusMinus! / pitch.value;
  let widthMm = counted(count.stackWidthMm);
  let finCount = counted(count.finCount);
  const areaCm2 = n(count.finAreaCm2);
  if (!finCount && areaCm2 !== undefined) {
    const each = (areaCm2 * 100) / (many * 2 * depthMm.value * heightMm.value);
    finCount = { value: whole(each), origin: 'estimated', note: COUNT_NOTE };
  }
  widthMm ??= {
    value: tidy(finCount!.value * pitch.value),
    plusMinus: tidy(finCount!.value * pitch.plusMinus!),
    origin: 'assumed',
    note: COUNT_NOTE,
  };
  if (!finCount) {
    const value = whole(widthMm.value / pitch.value);
    finCount = {
      value,
      plusMinus: tidy(value * pitchShare),
      origin: 'assumed',
      note: COUNT_NOTE,
    };
  }
  return idsOf('fins', many).map((id, i) => ({
    id,
    widthMm,
    heightMm,
    depthMm,
    finCount,
    fans: fans.filter((_, f) => belongs(f, fans.length, i, many)).map((f) => f.id),
  }));
}

const whole = (x: number) => Math.max(2, Math.round(x));

/** Whether the first of two rows' items and the second's stand at the same place, whichever row is longer. */
function belongs(a: number, ofA: number, b: number, ofB: number): boolean {
  return ofA >= ofB ? Math.floor((a * ofB) / ofA) === b : Math.floor((b * ofA) / ofB) === a;
}

function dieOf(role: 'cpu' | 'gpu', count: Count, assumed: Assumed): DieRecord {
  const cpu = role === 'cpu';
  const classW =
    n(cpu ? count.cpuClassW : count.gpuClassW) ??
    DEFAULTS[cpu ? 'count.cpuClassW' : 'count.gpuClassW'].value;
  const factor = Math.sqrt(classW / (cpu ? CPU_CLASS_W : GPU_CLASS_W));
  const area = assumed(cpu ? 'count.cpuDieMm2' : 'count.gpuDieMm2', factor);
  const sides = cpu ? CPU_SIDES : GPU_SIDES;
  // each side has half of the area's relative deviation, both are independent of each other: √2 more
  const share = area.plusMinus! / area.value / Math.SQRT2;
  const side = (mm: number): FigureDetail => ({
    value: tidy(Math.round(10 * mm) / 10),
    plusMinus: tidy(Math.round(10 * mm * share) / 10),
    origin: 'assumed',
    note: COUNT_NOTE,
  });
  const short = Math.sqrt(area.value / sides);
  return {
    id: role,
    role,
    widthMm: side(short),
    lengthMm: side(short * sides),
    ...(role === 'gpu' ? { powerMeaning: 'board' as const } : {}),
    interface: only({
      kind: count.interface ?? 'paste',
      ageYears: counted(count.ageYears),
    }),
  };
}

function platesOf(count: Count, dies: readonly DieRecord[], assumed: Assumed): PlateRecord[] {
  const covers = dies.length > 1 ? ['gpu-memory', 'gpu-regulators'] : [];
  if (count.chamber) {
    return [
      {
        id: 'chamber',
        kind: 'vapor-chamber',
        dies: dies.map((d) => d.id),
        widthMm: counted(count.chamberWidthMm) ?? assumed('count.chamberSideMm'),
        lengthMm: counted(count.chamberDepthMm) ?? assumed('count.chamberSideMm', 0.6),
        covers,
      },
    ];
  }
  return dies.map((d) => ({
    id: `plate-${d.id}`,
    kind: 'copper-plate',
    dies: [d.id],
    covers: d.role === 'gpu' ? covers : [],
  }));
}

function pipeCounts(count: Count, gpu: boolean) {
  if (saysPipes(count)) {
    return {
      shared: n(count.pipesShared) ?? 0,
      cpu: n(count.pipesCpu) ?? 0,
      gpu: n(count.pipesGpu) ?? 0,
    };
  }
  const none = { shared: 0, cpu: 0, gpu: 0 };
  if (count.chamber && n(count.chamberWidthMm) !== undefined) return none;
  return gpu ? { ...none, shared: 2 } : { ...none, cpu: 1 };
}

function settingsOf(count: Count, gpu: boolean): CaseRecord['settings'] {
  const cpuSustainedW = counted(count.cpuClassW);
  const gpuSustainedW = gpu ? counted(count.gpuClassW) : undefined;
  if (!cpuSustainedW && !gpuSustainedW) return undefined;
  return [only({ id: 'class', preset: 'as its class', cpuSustainedW, gpuSustainedW })];
}

/**
 * Vents below, open ones first, over the fans in their order, so that every fan has one; where nobody said how many there are
 * one as large as the fan is assumed for each. Behind each stack an opening of its own size.
 */
function ventsOf(
  count: Count,
  fans: readonly FanRecord[],
  stacks: readonly FinStackRecord[],
  assumed: Assumed,
): VentRecord[] {
  const told = n(count.ventsOpen) !== undefined || n(count.ventsCovered) !== undefined;
  const open = told ? (n(count.ventsOpen) ?? 0) : fans.length;
  const many = open + (n(count.ventsCovered) ?? 0);
  const diameter = n(count.fanDiameterMm)!;
  // the side of a square as large as the impeller
  const side = told
    ? assumed('count.ventOverFan', diameter)
    : {
        value: tidy(diameter * Math.sqrt(Math.PI / 4)),
        origin: 'assumed' as const,
        note: COUNT_NOTE,
      };
  const blocked = assumed('count.coveredShare');
  const intakes = idsOf('base', many).map((id, i) =>
    only({
      id,
      flow: 'intake' as const,
      side: 'base' as const,
      widthMm: side,
      lengthMm: side,
      openShare: told ? undefined : assumed('fans.intakeOpenShare'),
      blockedShare: i < open ? undefined : blocked,
      fans: fans.filter((_, f) => belongs(f, fans.length, i, many)).map((f) => f.id),
    }),
  );
  const exhausts = idsOf('rear', stacks.length).map((id, i) => ({
    id,
    flow: 'exhaust' as const,
    side: 'rear' as const,
    widthMm: stacks[i]!.widthMm,
    lengthMm: stacks[i]!.heightMm,
    openShare: assumed('finStacks.exhaustOpenShare'),
    finStacks: [stacks[i]!.id],
  }));
  return [...intakes, ...exhausts];
}
