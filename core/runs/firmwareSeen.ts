import type { Log } from '../logs/readLog';
import { dieOfPower, diePowers, filled, valuesOf, type DieName } from './channels';
import type { LogAnalysis } from './analyseLog';
import type { RunLimits } from './events';

/** A figure of a setting as a run showed it. */
export interface FirmwareFigure {
  /** Within the setting. */
  path: string;
  value: number;
  /** One standard deviation. */
  plusMinus: number;
  /** How it was told. */
  how: string;
}

/** Nearer than this to its limit a die is held by that and not by the firmware, K (common practice, no source). */
const CLEAR_K = 3;
/** Share to which a log's power sensor is known (common practice, no source). */
const SENSOR = 0.01;
/** Powers that scatter by more than this share of their mean are held by nothing (common practice, no source). */
const FLAT = 0.04;
/** A ramp of the fans is told from so many samples over so much of their range, and lies so near to them. */
const RAMP = { samples: 30, span: 0.15, fit: 0.85, top: 0.97 };
/** Of the short-term window the load must take so much, or it says nothing. */
const SHORT_S = 3;

type Figures = Omit<LogAnalysis, 'whyNot' | 'timeConstantsS' | 'settled' | 'stepS'>;

/**
 * The firmware's own figures as a run shows them: short-term limit and its window, sustained limits, later ones, where the fans
 * start and are full. What a die's junction or a light load held back says nothing of the firmware and is left out.
 *
 * The window follows from how long the short-term limit was held from an average `a₀` before the load:
 * `τ = t / ln((P_short − a₀) / (P_short − P_sustained))`, as the firmware keeps a running average.
 *
 * @param log of the run
 * @param analysis of it
 * @param limits of the record
 * @param isStress the load took whatever it could get
 */
export function firmwareSeen(
  log: Pick<Log, 'timeS' | 'columns'>,
  analysis: Figures,
  limits: RunLimits,
  isStress: boolean,
): FirmwareFigure[] {
  const out: FirmwareFigure[] = [];
  const find = (kind: string) => analysis.segments.find((s) => s.kind === kind);
  const short = find('short');
  const sustained = find('sustained');
  const later = find('later');
  const mean = (segment: typeof short, is: string) => segment?.means[is];
  const clear = (segment: typeof short, part: DieName) => {
    const limitC = limits.junctionC[part];
    const read = mean(segment, `${part}C`);
    if (limitC === undefined || !read) return false;
    return read.mean + 2 * read.sd <= limitC - CLEAR_K;
  };
  const add = (path: string, value: number, plusMinus: number, how: string) =>
    out.push({ path, value, plusMinus: Math.max(plusMinus, SENSOR * value), how });
  const ended = (part: DieName, kind: string) =>
    analysis.events.find((e) => e.kind === kind && e.part === part);

  for (const part of diePowers(log).map((c) => dieOfPower(c.is))) {
    const is = `${part}PowerW`;
    const held = mean(sustained, is);
    const flat = held && held.sd <= FLAT * held.mean;
    const stepped = ended(part, 'short-limit-ends');
    if (held && flat && clear(sustained, part) && (stepped || isStress) && loaded(held.mean)) {
      add(
        `${part}SustainedW`,
        held.mean,
        SENSOR * held.mean,
        stepped ? 'held once the short-term limit had ended' : 'held by nothing else',
      );
    }
    const dropped = ended(part, 'later-limit');
    const after = mean(later, is);
    if (dropped && after && sustained && clear(later, part)) {
      const loadS = short?.fromS ?? sustained.fromS;
      add('later.afterS', dropped.atS - loadS, 2, 'when the power fell');
      add(`later.${part}SustainedW`, after.mean, SENSOR * after.mean, 'held after it fell');
    }
  }
  const burst = mean(short, 'cpuPowerW');
  const level = mean(sustained, 'cpuPowerW');
  // where the die then sits at its limit, that and not the firmware may have ended it
  const bySetting = clear(short, 'cpu') && clear(sustained, 'cpu');
  if (short && burst && level && ended('cpu', 'short-limit-ends') && bySetting) {
    const lastsS = ended('cpu', 'short-limit-ends')!.atS - short.fromS;
    add('cpuShortW', burst.mean, SENSOR * burst.mean, 'held before it ended');
    const idle = mean(find('idle'), 'cpuPowerW')?.mean ?? 0;
    const ratio = (burst.mean - idle) / (burst.mean - level.mean);
    if (lastsS >= SHORT_S && ratio > 1) {
      const windowS = lastsS / Math.log(ratio);
      add('cpuShortWindowS', windowS, (2 * windowS) / lastsS, 'from how long it was held');
    }
  }
  out.push(...fanRamp(log, limits));
  return distinct(out);
}

/** A die that only ticks over has no limit. */
const loaded = (watts: number) => watts > 8;

/** Where the fans start and are full: a straight line through speed over the hottest junction, while both rise. */
function fanRamp(log: Pick<Log, 'timeS' | 'columns'>, { fanRpm }: RunLimits): FirmwareFigure[] {
  const dies = (['cpuC', 'gpuC'] as const).flatMap((is) => {
    const values = valuesOf(log, is);
    return values ? [filled(values)] : [];
  });
  const fans = Object.entries(fanRpm).flatMap(([id, most]) => {
    const values = valuesOf(log, `fanRpm.${id}`);
    return values && most > 0 ? [{ values: filled(values), most }] : [];
  });
  if (dies.length === 0 || fans.length === 0) return [];
  const n = log.timeS.length;
  const duty = (i: number) => fans.reduce((a, f) => a + f.values[i]! / f.most, 0) / fans.length;
  const hottest = (i: number) => Math.max(...dies.map((d) => d[i]!));
  const duties = Float64Array.from({ length: n }, (_, i) => duty(i));
  const turning = duties.filter((d) => d > 0).sort();
  if (turning.length === 0) return [];
  const least = turning[Math.floor(0.02 * turning.length)]!;
  const most = turning[turning.length - 1]!;
  // a cap may hold them below full speed: its own top is no point of the ramp
  const top = Math.min(RAMP.top, most - 0.03);
  const x: number[] = [];
  const y: number[] = [];
  for (let i = 1; i < n; i++) {
    const d = duties[i]!;
    // on the way up they follow at once; down they wait
    if (d > least + 0.04 && d < top && d > duties[i - 1]! - 0.01 && hottest(i) >= hottest(i - 1)) {
      x.push(hottest(i));
      y.push(d);
    }
  }
  const line = straight(x, y);
  if (!line || !(line.slope > 0)) return [];
  const at = (d: number) => (d - line.offset) / line.slope;
  const plusMinus = Math.max(1, line.scatter / line.slope);
  return [
    { path: 'fanRamp.startC', value: at(least), plusMinus, how: 'from speeds while they rose' },
    { path: 'fanRamp.fullC', value: at(1), plusMinus, how: 'from speeds while they rose' },
  ];
}

function straight(x: readonly number[], y: readonly number[]) {
  const n = x.length;
  if (n < RAMP.samples) return null;
  if (Math.max(...y) - Math.min(...y) < RAMP.span) return null;
  const mean = (v: readonly number[]) => v.reduce((a, b) => a + b, 0) / n;
  const [mx, my] = [mean(x), mean(y)];
  let sxx = 0;
  let sxy = 0;
  let syy = 0;
  for (let i = 0; i < n; i++) {
    sxx += (x[i]! - mx) ** 2;
    sxy += (x[i]! - mx) * (y[i]! - my);
    syy += (y[i]! - my) ** 2;
  }
  if (!(sxx > 0) || !(syy > 0) || sxy ** 2 / (sxx * syy) < RAMP.fit) return null;
  const slope = sxy / sxx;
  const scatter = Math.sqrt(Math.max(0, syy - slope * sxy) / n);
  return { slope, offset: my - slope * mx, scatter };
}

/** One figure a path: the first. */
function distinct(figures: readonly FirmwareFigure[]): FirmwareFigure[] {
  const seen = new Set<string>();
  return figures.filter(({ path }) => !seen.has(path) && seen.add(path));
}
