import type { HeldShare } from '../case/answer';
import { heldSentence, heldWords } from '../case/answerWords';
import { openCase, type CaseRequest, type OpenCase } from '../case/openCase';
import type { Cap } from '../envelope/fanStates';
import { effortOf } from '../levers/effortOf';
import {
  drawMachine,
  gainsOfChange,
  THRESHOLD,
  type LeverGain,
  type Threshold,
} from '../levers/leverGains';
import { possibleLevers } from '../levers/possibleLevers';
import { burstOf, BURST, type ProposedSetting } from '../levers/proposeSettings';
import { minutesOf, rankLevers, type WeighedLever } from '../levers/rankLevers';
import { upkeep } from '../levers/upkeep';
import { figureValue } from '../record/figure';
import type { CautionId } from '../service/cautions';
import type { OpenUpLog } from '../service/openUpLog';
import { serviceScore, type Rubric, type ServiceScore } from '../service/serviceScore';
import { estimateWithDraws } from '../uncertainty/estimateWithDraws';
import { measureNextWords } from './measureNextWords';
import { sustainedBands } from '../uncertainty/sustainedBands';
import { SHOWN_DRAWS, SHOWN_SEED } from '../uncertainty/wattsBand';
import type { Band3 } from './bandWords';
import { careDue, type Care } from './care';
import { headlineOf, reasonsOf, type HeadlinePart } from './sentences';
import { isHeld, USUAL_WORK, type HeldWord } from './usualWork';

/** What a machine sustains at a cap. */
export interface CapVerdict {
  cap: Cap;
  levelDbA: number | null;
  /** Of both dies together, or of the only one. */
  watts: Band3;
  /** What firmware and adapter leave of it. */
  configured: Band3;
  cpuW: number;
  gpuW: number;
  held: HeldShare[];
  binds: string;
  /** The same in a sentence. */
  heldBack: string;
  /** Either die alone; null where there is none. */
  cpuAlone: Band3 | null;
  gpuAlone: Band3 | null;
}

/** A lever worth a sentence. */
export interface Advice {
  id: string;
  name: string;
  gain: LeverGain;
  /** Something is opened for it. */
  opens: boolean;
  minutes: number;
  /** Not of a log, but what is usual. */
  usualMinutes: boolean;
  cautions: readonly CautionId[];
}

export interface WorkVerdict {
  id: string;
  name: string;
  wantedW: number;
  band: Band3;
  word: HeldWord;
}

/** What the figures of one machine come to. */
export interface Verdict {
  name: string;
  /** The cap that is judged first; always among `at`. */
  cap: Cap;
  at: CapVerdict[];
  isCalibrated: boolean;
  /** At the cap, of the record alone; null where no run has narrowed it. */
  beforeRuns: Band3 | null;
  headline: string;
  headlineParts: HeadlinePart[];
  reasons: string[];
  work: WorkVerdict[];
  burst: ProposedSetting['burst'];
  advice: Advice[];
  /** Levers that cannot be felt, by name. */
  tooSmall: string[];
  score: ServiceScore | null;
  care: Care[];
  /** What narrows the band most, in words. */
  next: string[];
}

export interface VerdictOptions {
  caps: readonly Cap[];
  /** Judged first; the middle of the levels otherwise. */
  cap?: Cap | undefined;
  draws?: number | undefined;
  seed?: number | undefined;
  log?: OpenUpLog | null | undefined;
  rubric?: Rubric | undefined;
  threshold?: Threshold | undefined;
  /** Told of each of its stages; false ends it. */
  progress?: ((done: number, of: number) => boolean | void) | undefined;
}

/** Draws of what stands beside the watts at the caps: work and levers. */
const BESIDE_DRAWS = 100;
const MOST_ADVICE = 3;
const MOST_NEXT = 3;
const LEAST_SHARE = 1e-6;
/** A stage was the last that was wanted. */
export class VerdictEnded extends Error {}

/**
 * The verdict on a machine: what it sustains at each cap with its band, what binds, which work is held, how long a burst lasts, what
 * would help and what would not be felt, its service score, when care is due. Every word follows from a figure and its band.
 *
 * @param request record, setting, laboratory, calibration
 * @param options caps, and what else is known
 * @throws VerdictEnded where `progress` says so
 */
export function verdictOf(request: CaseRequest, options: VerdictOptions): Verdict {
  const { draws = SHOWN_DRAWS, seed = SHOWN_SEED, threshold = THRESHOLD } = options;
  const open = openCase(request);
  const caps = capsWith(options.caps, options.cap);
  const cap = options.cap ?? middleOf(caps);
  const levers = possibleLevers(request.record, request.setting).filter((l) => l.possible);
  const stages = 3 + USUAL_WORK.length + levers.length;
  let done = 0;
  const goOn = () => {
    if (options.progress?.(++done, stages) === false) throw new VerdictEnded();
  };
  const { estimate, summary } = estimateWithDraws(open, { caps, draws, seed });
  const at = caps.map((c, i) => capVerdict(open, c, estimate.caps[i]!));
  const main = at[caps.indexOf(cap)]!;
  goOn();
  const work = USUAL_WORK.flatMap((w) => {
    const answer = workVerdict(request, open, cap, w, seed);
    goOn();
    return answer ? [answer] : [];
  });
  const burst = burstOf(request, cap, BURST * main.cpuW, BURST * main.gpuW);
  goOn();
  const kept = upkeep(request, cap, { noticedW: threshold.watts });
  goOn();
  const gainOptions = { caps: [cap], draws: BESIDE_DRAWS, seed, threshold };
  const before = drawMachine(request, gainOptions);
  const weighed = levers.map((lever): WeighedLever => {
    const gain = lever.change.length > 0 ? gainsOfChange(before, lever, gainOptions)[0]! : null;
    goOn();
    return { lever, effort: effortOf(lever, options.log ?? null), gain };
  });
  const felt = rankLevers(weighed, 'per-minute').filter(
    (w) => w.gain && !w.gain.tooSmallToFeel && w.gain.wattsGained.p50 > 0,
  );
  const parts = headlineOf(main);
  return {
    name: nameOf(request),
    cap,
    at,
    isCalibrated: open.calibration !== null,
    beforeRuns: open.calibration ? bandBeforeRuns(request, cap, draws, seed) : null,
    headline: parts.map((p) => p.text).join(''),
    headlineParts: parts,
    reasons: reasonsOf(main, at),
    work,
    burst,
    advice: felt.slice(0, MOST_ADVICE).map((w) => ({
      id: w.lever.id,
      name: w.lever.name,
      gain: w.gain!,
      opens: w.lever.goal !== null,
      minutes: minutesOf(w).minutes,
      usualMinutes: minutesOf(w).usual,
      cautions: w.lever.cautions,
    })),
    tooSmall: weighed.filter((w) => w.gain?.tooSmallToFeel).map((w) => w.lever.name),
    score: options.log ? serviceScore(options.log, options.rubric) : null,
    care: careDue(kept, agesOf(open)),
    next: measureNextWords(summary, cap).slice(0, MOST_NEXT),
  };
}

function bandBeforeRuns(request: CaseRequest, cap: Cap, draws: number, seed: number): Band3 {
  const plain = openCase({ ...request, calibration: null });
  const [{ p05, p50, p95 }] = sustainedBands(plain, { caps: [cap], draws, seed }) as [Band3];
  return { p05, p50, p95 };
}

function capsWith(caps: readonly Cap[], cap: Cap | undefined): Cap[] {
  if (cap === undefined || caps.includes(cap)) return [...caps];
  const order = (c: Cap) => (c === 'off' ? -Infinity : c === 'full' ? Infinity : c);
  return [...caps, cap].sort((a, b) => order(a) - order(b));
}

/** The level in the middle of those there are, else the last cap. */
export function middleOf(caps: readonly Cap[]): Cap {
  const levels = caps.filter((c) => typeof c === 'number');
  return levels[Math.floor(levels.length / 2)] ?? caps[caps.length - 1]!;
}

type Answered = ReturnType<typeof estimateWithDraws>['estimate']['caps'][number];

function capVerdict({ model }: OpenCase, cap: Cap, answer: Answered): CapVerdict {
  const both = model.hasCpu && model.hasGpu;
  const shown = (a: Answered | Answered['configured']) =>
    both ? a.together : (a.cpuAlone ?? a.gpuAlone ?? a.together);
  const watts = bandOf(shown(answer));
  const { cpuWatts, gpuWatts } = answer.together;
  const total = cpuWatts + gpuWatts;
  const share = both ? (total > 0 ? cpuWatts / total : 0.5) : model.hasCpu ? 1 : 0;
  return {
    cap,
    levelDbA: answer.levelDbA,
    watts,
    configured: bandOf(shown(answer.configured)),
    cpuW: watts.p50 * share,
    gpuW: watts.p50 * (1 - share),
    held: shown(answer).held,
    binds: heldWords(shown(answer)),
    heldBack: heldSentence(shown(answer)),
    cpuAlone: both && answer.cpuAlone ? bandOf(answer.cpuAlone) : null,
    gpuAlone: both && answer.gpuAlone ? bandOf(answer.gpuAlone) : null,
  };
}

const bandOf = (r: {
  watts: number;
  p05: number | null;
  p50: number | null;
  p95: number | null;
}): Band3 => ({ p05: r.p05 ?? r.watts, p50: r.p50 ?? r.watts, p95: r.p95 ?? r.watts });

function workVerdict(
  request: CaseRequest,
  { model }: OpenCase,
  cap: Cap,
  work: (typeof USUAL_WORK)[number],
  seed: number,
): WorkVerdict | null {
  if ((work.gpuW > 0 && !model.hasGpu) || (work.cpuW > 0 && !model.hasCpu)) return null;
  const wantedW = work.cpuW + work.gpuW;
  const ratio = model.hasGpu
    ? {
        cpu: Math.max(LEAST_SHARE, work.cpuW / wantedW),
        gpu: Math.max(LEAST_SHARE, work.gpuW / wantedW),
      }
    : undefined;
  const [band] = sustainedBands(openCase({ ...request, ratio }), {
    caps: [cap],
    draws: BESIDE_DRAWS,
    seed,
  });
  const { p05, p50, p95 } = band!.configured ?? band!;
  const own = { p05, p50, p95 };
  return { id: work.id, name: work.name, wantedW, band: own, word: isHeld(wantedW, own) };
}

function agesOf({ record }: OpenCase): { paste?: number } {
  const ages = (record.dies ?? []).flatMap((d) => {
    const years = figureValue(d.interface?.ageYears);
    return years === undefined ? [] : [12 * years];
  });
  return ages.length > 0 ? { paste: Math.max(...ages) } : {};
}

/** Maker, model and variant as far as they are known. */
export function nameOf({ record: { identity } }: Pick<CaseRequest, 'record'>): string {
  const words = [identity?.maker, identity?.model, identity?.variant].filter(
    (x): x is string => typeof x === 'string' && x.trim() !== '',
  );
  return words.join(' ') || 'Machine without a name';
}
