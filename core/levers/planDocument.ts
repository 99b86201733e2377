import { estimate } from '../case/estimate';
import { configuredPlanes } from '../case/configuration';
import { openCase, type CaseRequest, type OpenCase } from '../case/openCase';
import { clipEnvelope } from '../envelope/clipEnvelope';
import { stateForCap, type Cap } from '../envelope/fanStates';
import { CAUTIONS } from '../service/cautions';
import type { OpenUpLog } from '../service/openUpLog';
import { leastLevel, type Need } from '../uncertainty/leastLevel';
import { sustainedBands } from '../uncertainty/sustainedBands';
import { effortOf } from './effortOf';
import { pulledTogether, type Lever } from './lever';
import { drawMachine, gainsOfChange, type GainOptions, type LeverGain } from './leverGains';
import { splitWatts, type Wanted } from './splitWatts';

/** What a plan is asked for. */
export interface PlanRequest extends GainOptions {
  levers: readonly Lever[];
  /** Levers pulled together, by their ids. */
  together?: readonly (readonly string[])[] | undefined;
  need?: Need | undefined;
  wanted?: Wanted | undefined;
  log?: OpenUpLog | null | undefined;
  /** Told of each lever that is done; false ends the plan with those done. */
  progress?: ((done: number, of: number) => boolean | void) | undefined;
}

/** Figures as far as they mean anything. */
const rounded = (x: number): number => Number(x.toPrecision(6));

/**
 * The answer of the plan command: levers with what they bring, those pulled together, the least level for some watts, the best
 * split of the watts.
 *
 * @param request record, setting, laboratory, calibration
 * @param plan what is asked
 */
export function planDocument(request: CaseRequest, plan: PlanRequest): object {
  const before = drawMachine(request, plan);
  const total = plan.levers.length + (plan.together?.length ?? 0);
  let done = 0;
  const goOn = () => plan.progress?.(++done, total) !== false;
  const levers: object[] = [];
  const gains = new Map<string, LeverGain[]>();
  for (const lever of plan.levers) {
    const at = lever.change.length > 0 ? gainsOfChange(before, lever, plan) : null;
    if (at) gains.set(lever.id, at);
    levers.push(leverPart(lever, at, plan.log ?? null));
    if (!goOn()) break;
  }
  const combined = (plan.together ?? []).map((ids) => {
    const parts = ids.map((id) => plan.levers.find((l) => l.id === id)!);
    const at = gainsOfChange(before, pulledTogether(parts), plan);
    goOn();
    return {
      ids: [...ids],
      at: at.map((g, k) => ({
        ...gainPart(g),
        sumOfSingles: rounded(
          ids.reduce((sum, id) => sum + (gains.get(id)?.[k]?.wattsGained.p50 ?? 0), 0),
        ),
      })),
    };
  });
  return {
    format: 'zugluft-plan',
    formatVersion: 1,
    levers,
    ...(plan.together ? { combined } : {}),
    quietestFor: plan.need ? quietestFor(before.open, plan.need, plan) : null,
    split: plan.wanted ? splitPart(request, plan.wanted, plan) : null,
  };
}

function leverPart(lever: Lever, at: LeverGain[] | null, log: OpenUpLog | null): object {
  const { id, name, change, possible, whyNot, reversible, cautions } = lever;
  return {
    id,
    name,
    change,
    possible,
    whyNot,
    reversible,
    hazard: cautions.length > 0 ? cautions.map((c) => CAUTIONS[c]).join(' ') : null,
    effort: effortOf(lever, log),
    at: (at ?? []).map(gainPart),
  };
}

function gainPart({ cap, wattsGained, dbSaved, kelvinSaved, ...rest }: LeverGain) {
  const all = <T extends Record<string, number>>(gain: T) =>
    Object.fromEntries(Object.entries(gain).map(([k, x]) => [k, rounded(x)])) as T;
  return {
    cap,
    wattsGained: all({ ...wattsGained }),
    dbSaved: all({ ...dbSaved }),
    kelvinSaved: all({ ...kelvinSaved }),
    chanceNoticeable: rounded(rest.chanceNoticeable),
    tooSmallToFeel: rest.tooSmallToFeel,
  };
}

function quietestFor(open: OpenCase, need: Need, options: GainOptions): object {
  const draws = options.draws ?? 400;
  const seed = options.seed ?? 1;
  const told = leastLevel(open, need, { draws, seed });
  const asked = { cpuWatts: need.cpuW, gpuWatts: need.gpuW };
  if (told.reached < 0.5) {
    const [most] = sustainedBands(openCase({ ...open.request, ratio: ratioOf(need) }), {
      caps: ['full'],
      draws,
      seed,
    });
    const { p05, p50, p95 } = most!;
    return { ...asked, levelDbA: null, reachable: false, most: { p05, p50, p95 } };
  }
  const level = (x: number) => (Number.isFinite(x) ? rounded(x) : null);
  return {
    ...asked,
    // null: with the fans off, or at no level
    levelDbA: { p05: level(told.p05), p50: level(told.p50), p95: level(told.p95) },
    reachable: true,
    reached: told.reached,
    withFansOff: told.withFansOff,
  };
}

const LEAST_SHARE = 1e-6;
const ratioOf = ({ cpuW, gpuW }: Need) => ({
  cpu: Math.max(LEAST_SHARE, cpuW),
  gpu: Math.max(LEAST_SHARE, gpuW),
});

function splitPart(request: CaseRequest, wanted: Wanted, options: GainOptions): object | null {
  const cap: Cap = options.caps[0]!;
  const open = openCase(request);
  const { model } = open;
  if (!model.hasCpu || !model.hasGpu) return null;
  const [answer] = estimate(open, { caps: [cap] }).caps;
  const best = splitWatts(answer!.envelope, wanted);
  if (!best) return null;
  const planes = configuredPlanes(model, open.config, stateForCap(open.data, cap).state.rpms);
  const cut = splitWatts(clipEnvelope(answer!.envelope, planes), wanted);
  const ratio = ratioOf({ cpuW: best.cpuWatts, gpuW: best.gpuWatts });
  const [band] = sustainedBands(openCase({ ...request, ratio }), {
    caps: [cap],
    draws: options.draws ?? 400,
    seed: options.seed ?? 1,
  });
  const part = (s: typeof best) => ({
    cpuWatts: rounded(s.cpuWatts),
    gpuWatts: rounded(s.gpuWatts),
    value: rounded(s.value),
    binding: s.binding && { limit: s.binding.limit, part: s.binding.part },
  });
  const { p05, p50, p95 } = band!;
  return { cap, ...part(best), p05, p50, p95, withinLimits: cut ? part(cut) : null };
}
