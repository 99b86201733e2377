export type BenchSide = 'open' | 'back';

/** Where one stands at the bench, so that a reload or a power cut leads back to it. */
export interface BenchPlace {
  side: BenchSide;
  stepId: string | null;
  /** When the page was last seen alive, ms. */
  seenAt: number;
}

const key = (machineId: string) => `zugluft.bench.${machineId}`;

export function readPlace(machineId: string): BenchPlace | null {
  try {
    const kept = JSON.parse(localStorage.getItem(key(machineId)) ?? 'null') as BenchPlace | null;
    if (!kept || typeof kept.seenAt !== 'number') return null;
    return {
      side: kept.side === 'back' ? 'back' : 'open',
      stepId: typeof kept.stepId === 'string' ? kept.stepId : null,
      seenAt: kept.seenAt,
    };
  } catch {
    return null;
  }
}

export function keepPlace(machineId: string, place: BenchPlace): void {
  try {
    localStorage.setItem(key(machineId), JSON.stringify(place));
  } catch {
    // storage is switched off: the page itself still knows
  }
}

/** A page that was not seen for longer was closed, or the power was out. */
const AWAY_MS = 60_000;

/** When a clock that still runs is to be stopped: where the page was last seen, if that is long ago; else null. */
export function clockStopped(place: BenchPlace | null, nowMs: number): number | null {
  return place && nowMs - place.seenAt > AWAY_MS ? place.seenAt : null;
}
