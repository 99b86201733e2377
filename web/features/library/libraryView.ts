import { wattsWanted } from '../../documents/answer/wattsWanted';
import { readFigure } from '@zugluft/core/record/readFigure';
import { MAX_CAP_DBA, MIN_CAP_DBA } from '@zugluft/core/case/laboratory';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { middleCap } from '../../documents/answer/caps';

/** How the library is looked at, as it stands in the address bar. */
export const FILTERS = [
  'tag',
  'chamber',
  'fansMin',
  'fansMax',
  'pipesMin',
  'pipesMax',
  'massMin',
  'massMax',
  'thicknessMin',
  'thicknessMax',
  'finAreaMin',
  'finAreaMax',
  'wattsMin',
  'wattsMax',
  'needW',
  'levelMax',
] as const;
export type Filter = (typeof FILTERS)[number];

export const PAGE_SIZE = 100;

/** A cap as it is typed: off, full, or a level within bounds; null where it is none. */
export function readCap(text: string): Cap | null {
  const plain = text.trim().replace(',', '.');
  if (plain === 'off' || plain === 'full') return plain;
  const level = Number(plain);
  if (!/^\d+(\.\d{1,2})?$/.test(plain) || level < MIN_CAP_DBA || level > MAX_CAP_DBA) return null;
  return level;
}

/** The cap the library is looked at; that of the laboratory in the middle where none is chosen. */
export function capOf(view: URLSearchParams, caps: readonly Cap[]): Cap {
  return readCap(view.get('cap') ?? '') ?? middleCap(caps);
}

/** Units of the number filters, where they have one. */
export const UNIT_OF: Partial<Record<Filter, string>> = {
  massMin: 'kg',
  massMax: 'kg',
  thicknessMin: 'mm',
  thicknessMax: 'mm',
  wattsMin: 'W',
  wattsMax: 'W',
  needW: 'W',
  levelMax: 'dB(A)',
};

/** Watts that are wanted, where the library is asked how quietly they are had; undefined where not. */
export function neededW(view: URLSearchParams): number | undefined {
  return wattsWanted(view.get('needW')) ?? undefined;
}

/**
 * A number filter as the server takes it, typed as any figure: “2,1 kg”, “1/2 in”, “~20”.
 *
 * @returns undefined where what stands there is none
 */
export function readBound(text: string | null, unit?: string): number | undefined {
  if (text === null || text.trim() === '') return undefined;
  const read = readFigure(text, unit);
  const value = typeof read === 'object' ? read.value : NaN;
  return Number.isFinite(value) && value >= 0 && value <= 1e6 ? value : undefined;
}

/**
 * The server's query for one page of a view; filters that are no numbers are left out, which their fields say.
 *
 * @param caps those of the laboratory
 * @param page from 1
 */
export function listParams(view: URLSearchParams, caps: readonly Cap[], page: number): string {
  const params = new URLSearchParams({
    q: (view.get('q') ?? '').slice(0, 200),
    sort: view.get('sort') ?? 'maker',
    page: String(page),
    pageSize: String(PAGE_SIZE),
    putAside: view.get('aside') === '1' ? '1' : '0',
    cap: String(capOf(view, caps)),
  });
  for (const f of FILTERS) {
    const text = view.get(f);
    if (!text) continue;
    if (f === 'tag') params.set(f, text.slice(0, 40));
    else if (f === 'chamber') params.set(f, text === '1' ? '1' : '0');
    else {
      const value = readBound(text, UNIT_OF[f]);
      if (value !== undefined) params.set(f, String(value));
    }
  }
  return params.toString();
}

/** How many filters are set. */
export function filtersSet(view: URLSearchParams): number {
  return FILTERS.filter((f) => view.get(f)).length;
}
