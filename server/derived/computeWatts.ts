import { withCalibration, type KeyedCalibration } from '@zugluft/core/calibration/caseKey';
import { openCase } from '@zugluft/core/case/openCase';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { SHOWN_DRAWS, SHOWN_SEED, type WattsBand } from '@zugluft/core/uncertainty/wattsBand';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { LabDefaults } from '@zugluft/core/record/resolver';
import { sustainedBands } from '@zugluft/core/uncertainty/sustainedBands';

/** Goes up when the same record gives other watts: all of them are then computed anew. */
export const DERIVATION = 9;

/** Machines whose watts are wanted, each at its caps. */
export interface WattsJob {
  machines: {
    id: string;
    record: unknown;
    caps: readonly Cap[];
    /** What its estimate stands on, where that still fits the record. */
    calibration?: KeyedCalibration | null;
  }[];
  defaults: LabDefaults;
}

/** Watts by cap; null where a machine could not be computed. */
export type WattsByCap = Record<string, WattsBand | null>;

/** Makes the watts of a job, in this thread or another. */
export interface ComputeWatts {
  (job: WattsJob): Promise<Record<string, WattsByCap>>;
  /** Ends the thread, where there is one. */
  end?: () => Promise<unknown>;
}

/** Watts of both dies together for each machine of a job. One that fails has null at every cap and holds up no other. */
export function computeWatts({ machines, defaults }: WattsJob): Record<string, WattsByCap> {
  const out: Record<string, WattsByCap> = {};
  for (const { id, record, caps, calibration } of machines) {
    const watts = wattsOf(record, caps, defaults, calibration ?? null);
    out[id] = Object.fromEntries(caps.map((cap, i) => [String(cap), watts?.[i] ?? null]));
  }
  return out;
}

function wattsOf(
  input: unknown,
  caps: readonly Cap[],
  defaults: LabDefaults,
  calibration: KeyedCalibration | null,
): WattsBand[] | null {
  const { record, complete } = parseRecord(input);
  if (!record || !complete) return null;
  try {
    const { request } = withCalibration({ record, lab: { defaults } }, calibration);
    const bands = sustainedBands(openCase(request), {
      caps,
      draws: SHOWN_DRAWS,
      seed: SHOWN_SEED,
    });
    return bands.every((b) => Number.isFinite(b.p05 + b.p50 + b.p95)) ? bands : null;
  } catch {
    return null;
  }
}
