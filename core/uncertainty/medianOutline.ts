import type { CapEstimate, Readout } from '../case/answer';
import type { EnvelopeCorner } from '../envelope/envelope';

/**
 * A cap's outline drawn in to the medians: on both axes and along the ratio it goes through the medians of the draws, between
 * them the share by which it is drawn in goes evenly with the direction.
 *
 * @param cap with bands; without any its outline stays as it is
 * @returns corners in the same order, with the same edges
 */
export function medianOutline(cap: CapEstimate): EnvelopeCorner[] {
  const { cpuAlone, gpuAlone, together } = cap;
  const at = [
    { direction: 0, share: shareOf(gpuAlone) },
    { direction: directionOf(together.cpuWatts, together.gpuWatts), share: shareOf(together) },
    { direction: Math.PI / 2, share: shareOf(cpuAlone) },
  ];
  return cap.envelope.map((corner) => {
    const share = shareAt(at, directionOf(corner.cpuWatts, corner.gpuWatts));
    return { ...corner, cpuWatts: corner.cpuWatts * share, gpuWatts: corner.gpuWatts * share };
  });
}

function shareOf(readout: Readout | null): number {
  return readout && readout.p50 !== null && readout.watts > 0 ? readout.p50 / readout.watts : 1;
}

/** 0 on the GPU axis, a right angle on the CPU axis. */
function directionOf(cpuW: number, gpuW: number): number {
  return Math.atan2(cpuW, gpuW);
}

function shareAt(at: readonly { direction: number; share: number }[], direction: number): number {
  for (let i = 1; i < at.length; i++) {
    const a = at[i - 1]!;
    const b = at[i]!;
    if (direction > b.direction && i + 1 < at.length) continue;
    const wide = b.direction - a.direction;
    const t = wide > 1e-9 ? Math.min(1, Math.max(0, (direction - a.direction) / wide)) : 1;
    return a.share + t * (b.share - a.share);
  }
  return 1;
}
