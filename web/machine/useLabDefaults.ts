import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { labDefaultsOf } from '@zugluft/core/record/labDefaults';
import type { LabDefaults } from '@zugluft/core/record/resolver';
import { defaultsKey, listDefaults } from '../api/defaults';

const NONE: LabDefaults = {};

/** The lab's own defaults as the core takes them; none while they are not read yet. */
export function useLabDefaults(): LabDefaults {
  const { data } = useQuery({ queryKey: defaultsKey, queryFn: listDefaults, staleTime: 60_000 });
  return useMemo(() => (data ? labDefaultsOf(Object.entries(data.items)) : NONE), [data]);
}
