import { estimate } from '../case/estimate';
import { openCase, type CaseRequest, type OpenCase } from '../case/openCase';
import type { Cap } from '../envelope/fanStates';
import { figureValue } from '../record/figure';
import { simulateFirmware, type FirmwareEvent } from '../transient/simulateFirmware';
import { sustainedBands } from '../uncertainty/sustainedBands';
import { splitWatts, type Wanted } from './splitWatts';

/** Limits to set for one level, with how long more than that is held. */
export interface ProposedSetting {
  name: 'quiet' | 'balanced' | 'full';
  cap: Cap;
  /** Of the fans at the cap; null: off, or not known. */
  levelDbA: number | null;
  /** Whole watts at or below the median. */
  cpuW: number;
  gpuW: number;
  /** Of both, along their ratio. */
  band: { p05: number; p50: number; p95: number };
  burst: {
    cpuW: number;
    gpuW: number;
    /** From idle until something holds it; null: longer than looked at. */
    seconds: number | null;
    heldBy: FirmwareEvent['kind'] | null;
  };
  /** What of it lies above what the maker has set, by die. */
  beyondMaker: ('cpu' | 'gpu')[];
}

/** A burst asks for so much more than is sustained (common practice, no source). */
export const BURST = 1.5;
/** A burst is looked at for so long. */
export const BURST_S = 600;
const STEP_S = 0.5;
/** What ends a burst: fans at their cap do not. */
const ENDS: ReadonlySet<FirmwareEvent['kind']> = new Set(['junction', 'skin', 'adapter']);

/**
 * Three settings for a machine, quiet, balanced and full: at each level the best split of the watts for a workload, taken down to the
 * median of what is sustained along it, and how long half as much again is held from idle with the fans at or below the level.
 *
 * @param request the case; its setting says what the maker allows
 * @param wanted the workload
 * @param caps levels of the three, from the quietest up
 * @param options draws and seed
 * @returns those levels at which anything is sustained; none where the machine has one die
 */
export function proposeSettings(
  request: CaseRequest,
  wanted: Wanted,
  caps: readonly [Cap, Cap, Cap],
  options: { draws: number; seed: number },
): ProposedSetting[] {
  const open = openCase(request);
  if (!open.model.hasCpu || !open.model.hasGpu) return [];
  const answers = estimate(open, { caps }).caps;
  return caps.flatMap((cap, k) => {
    const answer = answers.find((a) => a.cap === cap)!;
    const best = splitWatts(answer.envelope, wanted);
    const total = best ? best.cpuWatts + best.gpuWatts : 0;
    if (!best || !(total > 0)) return [];
    const ratio = {
      cpu: Math.max(LEAST_SHARE, best.cpuWatts / total),
      gpu: Math.max(LEAST_SHARE, best.gpuWatts / total),
    };
    const [band] = sustainedBands(openCase({ ...request, ratio }), { caps: [cap], ...options });
    const down = Math.min(1, band!.p50 / total);
    const cpuW = Math.floor(best.cpuWatts * down);
    const gpuW = Math.floor(best.gpuWatts * down);
    if (cpuW + gpuW <= 0) return [];
    const { p05, p50, p95 } = band!;
    return [
      {
        name: (['quiet', 'balanced', 'full'] as const)[k]!,
        cap,
        levelDbA: answer.levelDbA,
        cpuW,
        gpuW,
        band: { p05, p50, p95 },
        burst: burstOf(request, cap, BURST * cpuW, BURST * gpuW),
        beyondMaker: beyondMaker(open, cpuW, gpuW),
      },
    ];
  });
}

const LEAST_SHARE = 1e-6;

/**
 * How long some watts are held from idle where no power limit cuts them.
 *
 * @param request the case; its setting is left out
 * @param cap the fans stay at or below it
 * @param cpuW watts asked for, and `gpuW`
 */
export function burstOf(
  request: CaseRequest,
  cap: Cap,
  cpuW: number,
  gpuW: number,
): ProposedSetting['burst'] {
  const { settings: _, ...record } = request.record;
  const open = openCase({ ...request, record, setting: undefined });
  const { events } = simulateFirmware(open, {
    cap,
    cpuLoadW: cpuW,
    gpuLoadW: gpuW,
    durationS: BURST_S,
    stepS: STEP_S,
  });
  const ends = events.filter((e) => ENDS.has(e.kind)).sort((a, b) => a.atS - b.atS)[0];
  return { cpuW, gpuW, seconds: ends?.atS ?? null, heldBy: ends?.kind ?? null };
}

function beyondMaker({ setting }: OpenCase, cpuW: number, gpuW: number): ('cpu' | 'gpu')[] {
  const cpu = figureValue(setting?.cpuSustainedW);
  const gpu = figureValue(setting?.gpuSustainedW);
  return [
    ...(cpu !== undefined && cpuW > cpu ? (['cpu'] as const) : []),
    ...(gpu !== undefined && gpuW > gpu ? (['gpu'] as const) : []),
  ];
}
