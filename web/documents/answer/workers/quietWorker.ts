import { expose } from 'comlink';
import { openCase, type CaseRequest } from '@zugluft/core/case/openCase';
import { leastLevel, type LeastLevel, type Need } from '@zugluft/core/uncertainty/leastLevel';

const api = {
  leastLevel: (
    request: CaseRequest,
    need: Need,
    options: { draws: number; seed: number },
  ): LeastLevel => leastLevel(openCase(request), need, options),
};

export type QuietWorker = typeof api;

expose(api);
