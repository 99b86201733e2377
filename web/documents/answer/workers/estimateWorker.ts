import { expose } from 'comlink';
import { estimate, type EstimateOptions } from '@zugluft/core/case/estimate';
import { explain } from '@zugluft/core/case/explain';
import { openCase, type CaseRequest, type OpenCase } from '@zugluft/core/case/openCase';
import { readPoint } from '@zugluft/core/case/readPoint';
import { stripStates } from '@zugluft/core/case/stripStates';
import { orderDay } from '@zugluft/core/benchday/orderDay';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { RunForetold } from '@zugluft/core/runs/foretell';
import { coolsDownInS, settledAfterS } from '@zugluft/core/runs/runTimes';
import { planRuns } from '@zugluft/core/runs/planRuns';
import { simulatedSeries } from '@zugluft/core/runs/simulatedSeries';
import type { DrawOptions } from '@zugluft/core/uncertainty/drawPlan';
import { estimateWithDraws } from '@zugluft/core/uncertainty/estimateWithDraws';
import { medianOutline } from '@zugluft/core/uncertainty/medianOutline';
import { simulateFirmware, type SimulationOptions } from '@zugluft/core/transient/simulateFirmware';

/** Every computation takes a case as plain data and opens it here. */
const on =
  <A extends unknown[], R>(compute: (open: OpenCase, ...rest: A) => R) =>
  (request: CaseRequest, ...rest: A): R =>
    compute(openCase(request), ...rest);

const api = {
  estimate: on((open, options: EstimateOptions) => estimate(open, options)),
  /** The three readouts with their bands, without outlines. */
  banded: on(
    (open, options: DrawOptions) =>
      estimateWithDraws(open, { ...options, envelopes: false }).estimate,
  ),
  /** The line of the medians at one cap, CPU watts against GPU watts; a point alone where there is one die. */
  outline: on((open, cap: Cap, options: Pick<DrawOptions, 'draws' | 'seed'>) =>
    medianOutline(estimateWithDraws(open, { ...options, caps: [cap] }).estimate.caps[0]!),
  ),
  readPoint: on(readPoint),
  explain: on(explain),
  stripStates: on(stripStates),
  /** A load as the firmware handles it, in the channels of a run's chart. */
  simulatedRun: on((open, options: SimulationOptions, pixels: number) =>
    simulatedSeries(simulateFirmware(open, options), open, pixels),
  ),
  planRuns: (request: CaseRequest) => planRuns(request),
  /** How long a load takes to settle, and the machine to cool down from it. */
  runMinutes: on((open, load: RunForetold['on'], cap: Cap) => ({
    settleS: settledAfterS(open, load, cap),
    coolsS: coolsDownInS(open, load, cap),
  })),
  orderDay,
  simulateFirmware: on((open, options: SimulationOptions) => simulateFirmware(open, options)),
};

export type EstimateWorker = typeof api;

expose(api);
