import { LIST_CAPS, type ListCap } from '@zugluft/core/library/answers';

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
] as const;
export type Filter = (typeof FILTERS)[number];

export const PAGE_SIZE = 100;

export function capOf(view: URLSearchParams): ListCap {
  const cap = view.get('cap');
  return LIST_CAPS.find((c) => c === cap) ?? '36';
}

/** A number filter as the server takes it; undefined where what stands there is none. */
export function readBound(text: string | null): number | undefined {
  if (text === null || text.trim() === '') return undefined;
  const value = Number(text.trim().replace(',', '.'));
  return Number.isFinite(value) && value >= 0 && value <= 1e6 ? value : undefined;
}

/**
 * The server's query for one page of a view; filters that are no numbers are left out, which their fields say.
 *
 * @param page from 1
 */
export function listParams(view: URLSearchParams, page: number): string {
  const params = new URLSearchParams({
    q: (view.get('q') ?? '').slice(0, 200),
    sort: view.get('sort') ?? 'maker',
    page: String(page),
    pageSize: String(PAGE_SIZE),
    putAside: view.get('aside') === '1' ? '1' : '0',
    cap: capOf(view),
  });
  for (const f of FILTERS) {
    const text = view.get(f);
    if (!text) continue;
    if (f === 'tag') params.set(f, text.slice(0, 40));
    else if (f === 'chamber') params.set(f, text === '1' ? '1' : '0');
    else {
      const value = readBound(text);
      if (value !== undefined) params.set(f, String(value));
    }
  }
  return params.toString();
}

/** How many filters are set. */
export function filtersSet(view: URLSearchParams): number {
  return FILTERS.filter((f) => view.get(f)).length;
}
