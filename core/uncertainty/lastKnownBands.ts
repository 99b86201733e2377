import type { CapEstimate, Estimate, Readout } from '../case/answer';

/**
 * An estimate whose draws are still being made, with the bands of before: each readout keeps its last known distance to its
 * median and to both ends, as shares, so that nothing jumps while one types.
 *
 * @param now an estimate without bands
 * @param before one with bands, of the same machine a moment ago
 * @returns `now` with bands at every cap that `before` had; the others stay without
 */
export function lastKnownBands(now: Estimate, before: Estimate): Estimate {
  const byCap = new Map(before.caps.map((c) => [c.cap, c]));
  return {
    ...now,
    caps: now.caps.map((c) => {
      const was = byCap.get(c.cap);
      return was ? withBandsOf(c, was) : c;
    }),
    sensitivity: before.sensitivity,
  };
}

function withBandsOf(now: CapEstimate, was: CapEstimate): CapEstimate {
  return {
    ...now,
    cpuAlone: now.cpuAlone && moved(now.cpuAlone, was.cpuAlone),
    gpuAlone: now.gpuAlone && moved(now.gpuAlone, was.gpuAlone),
    together: moved(now.together, was.together),
    configured: {
      ...now.configured,
      cpuAlone: now.configured.cpuAlone && moved(now.configured.cpuAlone, was.configured.cpuAlone),
      gpuAlone: now.configured.gpuAlone && moved(now.configured.gpuAlone, was.configured.gpuAlone),
      together: moved(now.configured.together, was.configured.together),
    },
  };
}

function moved<T extends Readout>(now: T, was: Readout | null): T {
  if (!was || was.p05 === null || was.p50 === null || was.p95 === null) return now;
  // nothing to be in proportion to: the band of before moved along
  if (!(was.watts > 0)) return now;
  const share = now.watts / was.watts;
  return {
    ...now,
    p05: was.p05 * share,
    p50: was.p50 * share,
    p95: was.p95 * share,
    held: was.held,
  };
}
