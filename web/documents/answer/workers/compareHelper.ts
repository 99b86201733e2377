import { drawForComparison } from '@zugluft/core/compare/compareMachines';
import type { CompareJob } from './compareWorker';
import { helpWith } from './shareOut';

helpWith(
  self,
  ({ machines, ...options }: CompareJob) =>
    (item: number) =>
      drawForComparison(machines[item]!.request, item, options),
);
