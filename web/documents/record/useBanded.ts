import { useMemo, useRef } from 'react';
import type { Estimate } from '@zugluft/core/case/answer';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import { lastKnownBands } from '@zugluft/core/uncertainty/lastKnownBands';
import { medianOutline } from '@zugluft/core/uncertainty/medianOutline';
import { storedBands, type StoredBand } from '@zugluft/core/uncertainty/storedBands';
import { withBands, type DrawSummary } from '@zugluft/core/uncertainty/summary';
import type { Draws } from './useDraws';
import type { LiveEstimate } from './useEstimate';

/**
 * The live answer with medians and bands: those of its own draws, or while they are made those of a moment ago in the same
 * proportion. Outlines are drawn in to the medians. Before the first draws it is the bands that are stored of the record; without
 * them there is no answer: the central solution lies above what is to be expected.
 *
 * @param plain the answer without bands
 * @param draws of `request`; their summary is null while they are made
 * @param request what stands there now
 * @param stored bands of both dies together of just this case, where there are
 * @returns with the newest summary there is, for what need not follow each keystroke
 */
export function useBanded(
  plain: LiveEstimate,
  { summary, error }: Pick<Draws, 'summary' | 'error'>,
  request: CaseRequest | null,
  stored: readonly StoredBand[] | null = null,
): { live: LiveEstimate; provisional: boolean; summary: DrawSummary | null } {
  const before = useRef<Estimate | null>(null);
  const lastSummary = useRef<DrawSummary | null>(null);
  return useMemo(() => {
    const own = summary !== null && plain.request === request ? summary : null;
    const banded = (e: Estimate | null): Estimate | null => {
      if (!e) return null;
      if (own && own.bands.length === e.caps.length) return withBands(e, own);
      if (before.current) return lastKnownBands(e, before.current);
      // whoever types before the first draws goes on from these
      if (stored?.length) return (before.current = storedBands(e, stored));
      return error === null ? null : e;
    };
    const estimate = banded(plain.estimate);
    if (own && estimate) {
      before.current = estimate;
      lastSummary.current = own;
    }
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
      summary: lastSummary.current,
    };
  }, [plain, summary, error, request, stored]);
}
