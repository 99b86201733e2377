import { lookFirst } from './drawClient';
import { betterOf, type LeverJob, type LeverPart } from './leverPart';
import type { LeverMessage, LeverRequest } from './runLevers';

interface Told {
  gains: (all: LeverPart[]) => void;
  done: () => void;
  failed: (message: string) => void;
}

/** So long the passes to come wait for the first look. */
const LONGEST_MS = 400;

/** Of all jobs and places of the page; from 1. */
let count = 0;
let places = 0;

/**
 * A worker that computes gains of levers for one place of the page, kept from one job to the next. The first pass of a job is
 * made by the worker that made the draws of the ladder: this one has yet to start, and its code to get warm.
 */
export function leverComputer(): {
  start: (job: LeverJob, tell: Told) => () => void;
  end: () => void;
} {
  const place = ++places;
  let worker: Worker | null = null;
  let listening: { number: number; tell: Told; most: Map<string, number> } | null = null;
  let looked = () => {};
  /** Gains as they come from either worker, never ones from fewer draws after those from more. */
  const take = ({ tell, most }: NonNullable<typeof listening>, all: LeverPart[]): void => {
    const better = betterOf(all, most);
    if (better.length > 0) tell.gains(better);
  };
  const made = (): Worker => {
    if (worker) return worker;
    worker = new Worker(new URL('./leverWorker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<LeverMessage>) => {
      if (data.number !== listening?.number) return;
      if (data.kind === 'gains') return take(listening, data.all);
      const { tell } = listening;
      listening = null;
      if (data.kind === 'done') tell.done();
      else tell.failed(data.message);
    };
    worker.onerror = (event) => {
      const { tell } = listening ?? {};
      worker?.terminate();
      worker = null;
      listening = null;
      tell?.failed(event.message || 'the computation broke off');
    };
    return worker;
  };
  const stopLooking = () => {
    looked();
    looked = () => {};
  };
  return {
    /** @returns gives this job up */
    start(job, tell) {
      const number = ++count;
      const own = { number, tell, most: new Map<string, number>() };
      listening = own;
      stopLooking();
      const [first, ...rest] = job.passes;
      const look = { number, job: { ...job, passes: [first!] } };
      let begun = false;
      /** The passes to come, once the first look says something: a worker that starts takes a core from it. */
      const goOn = () => {
        if (begun || listening !== own) return;
        begun = true;
        made().postMessage({ number, job: { ...job, passes: rest } } satisfies LeverRequest);
      };
      // the other worker may have draws to make first
      const waiting = setTimeout(goOn, LONGEST_MS);
      // a fault of the job is told by the passes to come
      looked = lookFirst(place, look, (message) => {
        if (message.number !== number || listening !== own) return;
        if (message.kind === 'gains') take(own, message.all);
        goOn();
      });
      return () => {
        clearTimeout(waiting);
        if (listening?.number !== number) return;
        listening = null;
        stopLooking();
        const next = ++count;
        worker?.postMessage({ number: next, job: null } satisfies LeverRequest);
      };
    },
    end() {
      listening = null;
      stopLooking();
      worker?.terminate();
      worker = null;
    },
  };
}
