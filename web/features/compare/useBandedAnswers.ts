import { useEffect, useState } from 'react';
import type { Estimate } from '@zugluft/core/case/answer';
import type { Laboratory } from '@zugluft/core/case/laboratory';
import { SHOWN_DRAWS, SHOWN_SEED } from '@zugluft/core/uncertainty/wattsBand';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { Machine } from '../../api/machines';
import { estimateWorker } from '../../documents/answer/workers/estimateClient';

/** A machine's answer with bands: `undefined` while it is computed, null where figures are missing. */
export type BandedAnswer = Estimate['caps'] | null | undefined;

/**
 * The answers of several machines with their bands, made one after the other in a worker.
 *
 * @param machines in the order shown
 * @param lab whose caps and defaults count
 */
export function useBandedAnswers(machines: readonly Machine[], lab: Laboratory): BandedAnswer[] {
  const key = machines.map((m) => `${m.id} ${m.revision}`).join();
  const [found, setFound] = useState<{ key: string; lab: Laboratory; caps: BandedAnswer[] }>();
  useEffect(() => {
    let open = true;
    const caps: BandedAnswer[] = machines.map(() => undefined);
    const all = async () => {
      for (const [i, m] of machines.entries()) {
        const { record, complete } = parseRecord(m.record);
        const options = { draws: SHOWN_DRAWS, seed: SHOWN_SEED };
        caps[i] =
          record && complete
            ? (await estimateWorker().banded({ record, lab }, options)).caps
            : null;
        if (!open) return;
        setFound({ key, lab, caps: [...caps] });
      }
    };
    void all();
    return () => {
      open = false;
    };
    // by the machines themselves: the list is made anew each time
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, lab]);
  return found?.key === key && found.lab === lab ? found.caps : machines.map(() => undefined);
}
