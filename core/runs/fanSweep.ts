import type { Log } from '../logs/readLog';
import { energyMeanDb } from '../logs/seriesStats';
import { correctForBackground } from '../sound/background';
import { READING_ERROR } from '../calibration/steadyRun';
import { valuesOf } from './channels';

/** A run's log, channels already of the record's parts, with what its levels are read by. */
export interface SweepSource {
  run: string;
  log: Pick<Log, 'timeS' | 'columns'>;
  /** Level with the machine off, dB(A). */
  backgroundDbA: number | null;
  /** Added to a reading so that it is as it would be read where the laboratory listens, dB. */
  changeDb: number;
  /** One standard deviation of the meter, dB; null: as usual. */
  plusMinusDb: number | null;
}

/** Level of the machine alone at one state of its fans. */
export interface SweepPoint {
  /** Speed of each fan by id. */
  rpm: Record<string, number>;
  dbA: number;
  /** One standard deviation. */
  plusMinus: number;
  /** The background was less than 6 dB lower: the machine may be quieter. */
  upperBound: boolean;
  /** For how long it was heard, s. */
  heardS: number;
  runs: string[];
}

/** A sweep of fan speeds as ordinary loads gave it. */
export interface FanSweep {
  points: SweepPoint[];
  /** Rise of level with speed, dB for ten times the speed (fan laws: 50), and how far points lie from it; null: too few. */
  law: { dbPerDecade: number; scatterDb: number } | null;
  /** Why there is none, in words; null where there are points. */
  lacks: string | null;
}

/** Fans are looked at in blocks of this length, s. */
const BLOCK_S = 10;
/** In a block that counts no fan's speed moves by more than this share, or so many rpm (common practice, no source). */
const STILL = { share: 0.04, rpm: 60 };
/** Blocks whose fans turn within this share of each other are one state. */
const ALIKE = 0.04;
/** A state is heard for so long at least, s. */
const LEAST_S = 30;
/** A law needs so many states, and speeds that far apart. */
const LAW = { points: 3, span: 1.15 };
const MAX_POINTS = 40;

interface Block {
  source: number;
  rpm: number[];
  levelDbA: number;
  lastsS: number;
}

/**
 * Speeds against level, out of the logs of ordinary loads: stretches over which no fan's speed moves, those alike taken together,
 * the energy mean of their levels without the background. What stands less than 6 dB above it is an upper bound.
 *
 * @param sources logs of runs of one machine
 * @param fans ids of its fans
 * @returns points by rising speed
 * @example fanSweep([source], ['fan-left', 'fan-right']).points[0] // { rpm: { 'fan-left': 2100, … }, dbA: 29.8, … }
 */
export function fanSweep(sources: readonly SweepSource[], fans: readonly string[]): FanSweep {
  const none = (lacks: string): FanSweep => ({ points: [], law: null, lacks });
  if (sources.length === 0) return none('no run of this machine holds a log');
  const blocks: Block[] = [];
  let hasBoth = false;
  sources.forEach(({ log }, source) => {
    const speeds = fans.map((f) => valuesOf(log, `fanRpm.${f}`));
    const levels = valuesOf(log, 'levelDbA');
    if (!levels || speeds.some((s) => !s)) return;
    hasBoth = true;
    blocks.push(...stillBlocks(log.timeS, speeds as Float64Array[], levels, source));
  });
  if (!hasBoth) return none('no log holds the speed of every fan and the level beside it');
  const points = statesOf(blocks)
    .map((own) => pointOf(own, sources, fans))
    .filter((p): p is SweepPoint => p !== null)
    .sort((a, b) => speedOf(a) - speedOf(b))
    .slice(0, MAX_POINTS);
  if (points.length === 0) return none('no speed was held for half a minute');
  return { points, law: lawOf(points), lacks: null };
}

/** Blocks over which the fans turn, and none changes its speed. */
function stillBlocks(
  timeS: Float64Array,
  speeds: readonly Float64Array[],
  levels: Float64Array,
  source: number,
): Block[] {
  const out: Block[] = [];
  const n = timeS.length;
  for (let from = 0; from < n;) {
    let to = from + 1;
    while (to < n && timeS[to]! - timeS[from]! < BLOCK_S) to++;
    const lastsS = to < n ? timeS[to]! - timeS[from]! : 0;
    // a gap is no stretch that was heard
    if (lastsS >= BLOCK_S && lastsS < 2 * BLOCK_S) {
      const rpm = speeds.map((s) => stillMean(s, from, to));
      const heard = finite(levels, from, to);
      if (rpm.every((r) => r !== null) && rpm.some((r) => r! > 0) && heard.length > 0) {
        out.push({ source, rpm: rpm as number[], levelDbA: energyMeanDb(heard), lastsS });
      }
    }
    from = to;
  }
  return out;
}

function stillMean(x: Float64Array, from: number, to: number): number | null {
  const own = finite(x, from, to);
  if (own.length === 0) return null;
  const mean = own.reduce((a, b) => a + b, 0) / own.length;
  const range = Math.max(...own) - Math.min(...own);
  return range <= Math.max(STILL.rpm, STILL.share * mean) ? mean : null;
}

function finite(x: Float64Array, from: number, to: number): number[] {
  const own: number[] = [];
  for (let i = from; i < to; i++) if (Number.isFinite(x[i]!)) own.push(x[i]!);
  return own;
}

/** Blocks by the state of their fans. */
function statesOf(blocks: readonly Block[]): Block[][] {
  const sum = (b: Block) => b.rpm.reduce((a, x) => a + x, 0);
  const states: Block[][] = [];
  for (const block of [...blocks].sort((a, b) => sum(a) - sum(b))) {
    const like = states.find((s) =>
      s[0]!.rpm.every((r, i) => Math.abs(block.rpm[i]! - r) <= ALIKE * Math.max(r, 1)),
    );
    if (like) like.push(block);
    else states.push([block]);
  }
  return states;
}

function pointOf(
  blocks: readonly Block[],
  sources: readonly SweepSource[],
  fans: readonly string[],
): SweepPoint | null {
  const heardS = blocks.reduce((a, b) => a + b.lastsS, 0);
  if (heardS < LEAST_S) return null;
  const own: number[] = [];
  const weights: number[] = [];
  const corrected: number[] = [];
  let bounds = 0;
  let meterDb = 0;
  for (const at of new Set(blocks.map((b) => b.source))) {
    const { backgroundDbA, changeDb, plusMinusDb } = sources[at]!;
    const mine = blocks.filter((b) => b.source === at);
    const reading = energyMeanDb(
      mine.map((b) => b.levelDbA),
      mine.map((b) => b.lastsS),
    );
    const alone =
      backgroundDbA === null
        ? { levelDbA: reading, upperBound: false }
        : correctForBackground(reading, backgroundDbA);
    if (alone.upperBound) bounds++;
    meterDb = Math.max(meterDb, plusMinusDb ?? READING_ERROR.level);
    own.push(alone.levelDbA + changeDb);
    weights.push(mine.reduce((a, b) => a + b.lastsS, 0));
    corrected.push(...mine.map((b) => b.levelDbA - reading));
  }
  const scatter = Math.sqrt(corrected.reduce((a, x) => a + x * x, 0) / corrected.length);
  const rpm = Object.fromEntries(
    fans.map((f, i) => [
      f,
      Math.round(blocks.reduce((a, b) => a + b.rpm[i]! * b.lastsS, 0) / heardS),
    ]),
  );
  return {
    rpm,
    dbA: energyMeanDb(own, weights),
    plusMinus: Math.hypot(meterDb, scatter / Math.sqrt(corrected.length)),
    upperBound: bounds === own.length,
    heardS,
    runs: [...new Set(blocks.map((b) => sources[b.source]!.run))],
  };
}

const speedOf = ({ rpm }: SweepPoint): number =>
  Object.values(rpm).reduce((a, x) => a + x, 0) / Math.max(1, Object.keys(rpm).length);

/** Least squares of level over the logarithm of the mean speed. */
function lawOf(points: readonly SweepPoint[]): FanSweep['law'] {
  const usable = points.filter((p) => !p.upperBound);
  const speeds = usable.map(speedOf);
  if (usable.length < LAW.points || Math.max(...speeds) < LAW.span * Math.min(...speeds)) {
    return null;
  }
  const x = speeds.map(Math.log10);
  const y = usable.map((p) => p.dbA);
  const mean = (v: readonly number[]) => v.reduce((a, b) => a + b, 0) / v.length;
  const [mx, my] = [mean(x), mean(y)];
  const sxx = x.reduce((a, v) => a + (v - mx) ** 2, 0);
  const sxy = x.reduce((a, v, i) => a + (v - mx) * (y[i]! - my), 0);
  const dbPerDecade = sxy / sxx;
  const rest = x.reduce((a, v, i) => a + (y[i]! - my - dbPerDecade * (v - mx)) ** 2, 0);
  return { dbPerDecade, scatterDb: Math.sqrt(rest / Math.max(1, usable.length - 2)) };
}
