import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { readSteady, runKeys } from '../../api/runs';
import { runMarks, type RunMark } from '../answer/runMarks';
import { onWords } from '../runName';

/** What the runs of a machine sustained, as marks; none until they are read. */
export function useRunMarks(machineId: string, made: boolean): readonly RunMark[] {
  const { data } = useQuery({
    queryKey: runKeys.steady(machineId),
    queryFn: ({ signal }) => readSteady(machineId, signal),
    enabled: made,
    staleTime: 10_000,
    retry: false,
  });
  return useMemo(
    () => (data ? runMarks(data.items, (r) => r.name || onWords(r.on as 'both')) : NONE),
    [data],
  );
}

const NONE: readonly RunMark[] = [];
