import { useQuery } from '@tanstack/react-query';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { PeersAnswer } from '@zugluft/core/library/peersAnswer';
import { fetchJson } from '../../api/http';

/** A machine's place among those of its kind, and what counting says of it. */
export const usePeers = (machineId: string, cap: Cap, made: boolean) =>
  useQuery({
    queryKey: ['machines', 'peers', machineId, cap],
    queryFn: ({ signal }) =>
      fetchJson<PeersAnswer>(`/api/machines/${machineId}/peers?cap=${cap}`, { signal }),
    enabled: made,
    retry: false,
  });
