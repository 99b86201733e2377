import { expose } from 'comlink';
import { estimate, readPoint, type EstimateOptions } from '@zugluft/core/estimate';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';

const api = {
  estimate: (record: CaseRecord, options: EstimateOptions) => estimate(record, options),
  readPoint: (record: CaseRecord, cap: Cap, cpuW: number, gpuW: number) =>
    readPoint(record, cap, cpuW, gpuW),
};

export type EstimateWorker = typeof api;

expose(api);
