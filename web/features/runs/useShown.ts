import { useState } from 'react';
import type { Stretch } from '../../documents/answer/RunChart';

/**
 * The stretch of a run that its chart shows: the whole until somebody zooms.
 *
 * @param lastS end of the run
 */
export function useShown(lastS: number) {
  const [part, setPart] = useState<Stretch | null>(null);
  const whole = { fromS: 0, toS: Math.max(1, lastS) };
  const shown = part && part.fromS < lastS ? part : whole;
  const show = ({ fromS, toS }: Stretch) =>
    setPart(
      fromS <= 0 && toS >= lastS
        ? null
        : { fromS: Math.max(0, Math.round(fromS * 10) / 10), toS: Math.round(toS * 10) / 10 },
    );
  return { shown, show, isWhole: shown === whole };
}
