import { expose } from 'comlink';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { designSearch, type DesignFigure } from '@zugluft/core/levers/designSearch';
import { promiseKept } from '@zugluft/core/levers/promiseKept';
import { proposeSettings } from '@zugluft/core/levers/proposeSettings';
import type { Wanted } from '@zugluft/core/levers/splitWatts';
import { upkeep, type UpkeepOptions } from '@zugluft/core/levers/upkeep';
import { SHOWN_DRAWS, SHOWN_SEED } from '@zugluft/core/uncertainty/wattsBand';

const api = {
  proposeSettings: (request: CaseRequest, wanted: Wanted, caps: readonly [Cap, Cap, Cap]) =>
    proposeSettings(request, wanted, caps, { draws: SHOWN_DRAWS, seed: SHOWN_SEED }),
  promiseKept,
  upkeep: (request: CaseRequest, cap: Cap, options: UpkeepOptions) => upkeep(request, cap, options),
  designSearch: (
    request: CaseRequest,
    figure: DesignFigure,
    cap: Cap,
    need: { cpuW: number; gpuW: number },
  ) => designSearch(request, figure, cap, need),
};

export type PlanWorker = typeof api;

expose(api);
