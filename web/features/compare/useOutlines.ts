import { useEffect, useState } from 'react';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { EnvelopeCorner } from '@zugluft/core/envelope/envelope';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { SHOWN_DRAWS, SHOWN_SEED } from '@zugluft/core/uncertainty/wattsBand';
import { estimateWorker } from '../../documents/answer/workers/estimateClient';

/** The envelope of a machine's medians at a cap. */
export interface NamedOutline {
  name: string;
  /** Its place in the comparison: its line is stroked like that everywhere. */
  place: number;
  corners: readonly EnvelopeCorner[];
}

interface Made {
  cap: Cap;
  corners: readonly EnvelopeCorner[];
  /** Why there are none. */
  problem: string | null;
}

/**
 * Envelopes of some machines at one cap, made one after the other in a worker; those that are there already are not made again, and one
 * that cannot be made holds up no other.
 *
 * @param machines with their cases: the same objects as long as nothing of them changes
 * @returns those that are there, in the order asked for, and of the others why they cannot be made
 */
export function useOutlines(
  machines: readonly (Omit<NamedOutline, 'corners'> & { request: CaseRequest })[],
  cap: Cap,
): { outlines: NamedOutline[]; problems: { name: string; problem: string }[] } {
  const [made, setMade] = useState<ReadonlyMap<CaseRequest, Made>>(new Map());
  const next = machines.find((m) => made.get(m.request)?.cap !== cap)?.request;
  useEffect(() => {
    if (!next) return;
    let open = true;
    const keep = (of: Omit<Made, 'cap'>) => {
      if (open) setMade((before) => new Map(before).set(next, { cap, ...of }));
    };
    estimateWorker()
      .outline(next, cap, { draws: SHOWN_DRAWS, seed: SHOWN_SEED })
      .then(
        (corners) => keep({ corners, problem: null }),
        (cause: Error) => keep({ corners: [], problem: cause.message }),
      );
    return () => {
      open = false;
    };
  }, [next, cap]);
  const here = machines.flatMap(({ name, place, request }) => {
    const own = made.get(request);
    return own?.cap === cap ? [{ ...own, name, place }] : [];
  });
  return {
    outlines: here.filter((o) => o.corners.length > 0),
    problems: here.flatMap(({ name, problem }) => (problem ? [{ name, problem }] : [])),
  };
}
