import type { LeverJob, LeverPart } from './leverPart';
import type { LeverMessage, LeverRequest } from './leverWorker';

interface Told {
  gains: (all: LeverPart[]) => void;
  done: () => void;
  failed: (message: string) => void;
}

/** A worker that computes gains of levers for one place of the page, kept from one job to the next. */
export function leverComputer(): {
  start: (job: LeverJob, tell: Told) => () => void;
  end: () => void;
} {
  let worker: Worker | null = null;
  let count = 0;
  let listening: { number: number; tell: Told } | null = null;
  const made = (): Worker => {
    if (worker) return worker;
    worker = new Worker(new URL('./leverWorker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<LeverMessage>) => {
      if (data.number !== listening?.number) return;
      const { tell } = listening;
      if (data.kind === 'gains') return tell.gains(data.all);
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
  return {
    /** @returns gives this job up */
    start(job, tell) {
      const number = ++count;
      listening = { number, tell };
      made().postMessage({ number, job } satisfies LeverRequest);
      return () => {
        if (listening?.number !== number) return;
        listening = null;
        worker?.postMessage({ number: ++count, job: null } satisfies LeverRequest);
      };
    },
    end() {
      listening = null;
      worker?.terminate();
      worker = null;
    },
  };
}
