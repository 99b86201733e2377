import { useMemo, useRef } from 'react';
import type { Estimate } from '@zugluft/core/case/answer';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import { lastKnownBands } from '@zugluft/core/uncertainty/lastKnownBands';
import { medianOutline } from '@zugluft/core/uncertainty/medianOutline';
import { withBands, type DrawSummary } from '@zugluft/core/uncertainty/summary';
import type { LiveEstimate } from './useEstimate';

/**
 * The live answer with medians and bands: those of its own draws, or while they are made those of a moment ago in the same
 * proportion. Outlines are drawn in to the medians.
 *
 * @param plain the answer without bands
 * @param summary draws of `request`, or null while they are made
 * @param request what stands there now
 */
export function useBanded(
  plain: LiveEstimate,
  summary: DrawSummary | null,
  request: CaseRequest | null,
): { live: LiveEstimate; provisional: boolean } {
  const before = useRef<Estimate | null>(null);
  return useMemo(() => {
    const own = summary !== null && plain.request === request ? summary : null;
    const banded = (e: Estimate | null): Estimate | null => {
      if (!e) return null;
      if (own && own.bands.length === e.caps.length) return withBands(e, own);
      return before.current ? lastKnownBands(e, before.current) : e;
    };
    const estimate = banded(plain.estimate);
    if (own && estimate) before.current = estimate;
    const outlines = banded(plain.outlines);
    return {
      live: {
        ...plain,
        estimate,
        outlines: outlines && {
          ...outlines,
          caps: outlines.caps.map((c) => ({ ...c, envelope: medianOutline(c) })),
        },
      },
      provisional: !own,
    };
  }, [plain, summary, request]);
}
