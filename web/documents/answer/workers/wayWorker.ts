import { expose } from 'comlink';
import { leastSteps, wayFaults } from '@zugluft/core/service/leastSteps';
import { serviceScore } from '@zugluft/core/service/serviceScore';

const api = { leastSteps, wayFaults, serviceScore };

export type WayWorker = typeof api;

expose(api);
