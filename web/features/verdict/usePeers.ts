import { useQuery } from '@tanstack/react-query';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { PeersAnswer } from '@zugluft/core/library/peersAnswer';
import { fetchJson } from '../../api/http';

const AGAIN_MS = 2000;

/**
 * A machine's place among those of its kind, and what counting says of it; asked again until its watts are there.
 *
 * @param caps of the laboratory, at which the library has watts
 */
export const usePeers = (machineId: string, cap: Cap, made: boolean, caps: readonly Cap[]) =>
  useQuery({
    queryKey: ['machines', 'peers', machineId, cap],
    queryFn: ({ signal }) =>
      fetchJson<PeersAnswer>(`/api/machines/${machineId}/peers?cap=${cap}`, { signal }),
    enabled: made,
    // a machine that was just changed is in the list once its watts are computed
    refetchInterval: ({ state }) =>
      state.data?.peers === null && caps.includes(cap) ? AGAIN_MS : false,
    retry: false,
  });
