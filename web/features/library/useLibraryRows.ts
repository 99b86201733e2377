import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { listMachines, machineKeys, type MachineSummary } from '../../api/machines';
import { listParams, PAGE_SIZE } from './libraryView';

/** Chosen at most at once: what the server takes. */
const MAX_CHOSEN = 1000;

/** Ids of all machines that a view shows, page by page, up to what may be chosen at once. */
export async function allIds(view: URLSearchParams, caps: readonly Cap[]): Promise<string[]> {
  const ids: string[] = [];
  for (let page = 1; ids.length < MAX_CHOSEN; page++) {
    const { items, total } = await listMachines(listParams(view, caps, page));
    ids.push(...items.map((m) => m.id));
    if (!items.length || ids.length >= total) break;
  }
  return ids.slice(0, MAX_CHOSEN);
}

/** Rows of a long list as far as they are looked at: the first page, and those that the window shows. */
export function useLibraryRows(
  view: URLSearchParams,
  caps: readonly Cap[],
  from: number,
  to: number,
) {
  const first = listParams(view, caps, 1);
  const head = useQuery({
    queryKey: machineKeys.list(first),
    queryFn: ({ signal }) => listMachines(first, signal),
    placeholderData: keepPreviousData,
  });
  const total = head.data?.total ?? 0;
  const pages: number[] = [];
  for (let p = Math.floor(from / PAGE_SIZE); p <= Math.floor(to / PAGE_SIZE); p++) {
    if (p > 0 && p * PAGE_SIZE < total) pages.push(p + 1);
  }
  const more = useQueries({
    queries: pages.map((page) => {
      const params = listParams(view, caps, page);
      return {
        queryKey: machineKeys.list(params),
        queryFn: ({ signal }: { signal: AbortSignal }) => listMachines(params, signal),
      };
    }),
  });
  const row = (index: number): MachineSummary | undefined => {
    if (index < PAGE_SIZE) return head.data?.items[index];
    const at = pages.indexOf(Math.floor(index / PAGE_SIZE) + 1);
    return at < 0 ? undefined : more[at]?.data?.items[index % PAGE_SIZE];
  };
  return { ...head, total, row };
}
