import { turn } from './turn';

/** What a helper is told: a job to come, then one item of it after the other. */
export type HelperRequest<Job> = { number: number } & ({ job: Job } | { item: number });

export type HelperMessage<Part> = { number: number; item: number } & (
  { part: Part } | { failed: string }
);

/** What is asked of a worker that helps; a `Worker`, or what stands for one. */
export interface Helper {
  postMessage: (message: unknown) => void;
  onmessage: ((event: MessageEvent) => void) | null;
  onerror: ((event: ErrorEvent) => void) | null;
  terminate: () => void;
}

/** What a page takes at most beside its own. */
const MOST_HELPERS = 3;
/** The page and the worker that asks have a core each; on two cores a helper was measured to win nothing. */
const OWN_CORES = 2;

/**
 * Helpers of one worker, one for each core that is left, kept from one job to the next. None are started before they are
 * asked for.
 *
 * @param start starts one
 * @param cores of the machine
 */
export function helpersOf(start: () => Helper, cores: number): { all: () => Helper[] } {
  let made: Helper[] | null = null;
  return {
    all() {
      made ??= Array.from(
        { length: Math.min(MOST_HELPERS, Math.max(0, cores - OWN_CORES)) },
        start,
      );
      return made;
    },
  };
}

let count = 0;
/** Those that broke; they answer nothing any more. */
const broken = new WeakSet<Helper>();

/**
 * Does all items of a job, some here and some in helpers: whoever is free takes the next one. Helpers are asked from the first
 * item that was done here on, so that it waits for none; what a helper breaks off is done here.
 *
 * @param job as helpers are told of it
 * @param items how many
 * @param work does one here
 * @param helpers asked after the first item
 * @param isWanted false ends it with what is under way
 * @param done told of each part, in no order
 */
export async function shareOut<Job, Part>({
  job,
  items,
  work,
  helpers,
  isWanted,
  done,
  pause = turn,
}: {
  job: Job;
  items: number;
  work: (item: number) => Part;
  helpers: () => readonly Helper[];
  isWanted: () => boolean;
  done: (item: number, part: Part) => void;
  /** Between items done here; a turn of the event loop at least. */
  pause?: (() => Promise<void>) | undefined;
}): Promise<void> {
  const number = ++count;
  const again: number[] = [];
  let next = 0;
  const take = (): number | undefined => {
    if (!isWanted()) return undefined;
    return again.pop() ?? (next < items ? next++ : undefined);
  };
  const doHere = async (most = Infinity): Promise<void> => {
    for (let n = 0; n < most; n++) {
      const item = take();
      if (item === undefined) return;
      done(item, work(item));
      await pause();
    }
  };
  const doThere = (helper: Helper): Promise<void> =>
    new Promise((resolve) => {
      let under: number | undefined;
      const ask = () => {
        under = take();
        if (under === undefined) resolve();
        else helper.postMessage({ number, item: under } satisfies HelperRequest<Job>);
      };
      const giveUp = () => {
        if (under !== undefined) again.push(under);
        under = undefined;
        resolve();
      };
      helper.onmessage = ({ data }: MessageEvent<HelperMessage<Part>>) => {
        if (data.number !== number || data.item !== under) return;
        if ('failed' in data) return giveUp();
        if (isWanted()) done(data.item, data.part);
        ask();
      };
      helper.onerror = () => {
        broken.add(helper);
        giveUp();
      };
      helper.postMessage({ number, job } satisfies HelperRequest<Job>);
      ask();
    });
  await doHere(1);
  if (next < items && isWanted()) {
    const whole = helpers().filter((h) => !broken.has(h));
    await Promise.all([...whole.map(doThere), doHere()]);
  }
  // what helpers broke off; a fault of the job itself is told from here
  await doHere();
}

/**
 * The side of a helper.
 *
 * @param scope of the worker
 * @param begin prepares a job and gives what does one item of it
 */
export function helpWith<Job, Part>(
  scope: Pick<Helper, 'postMessage' | 'onmessage'>,
  begin: (job: Job) => (item: number) => Part,
): void {
  let work: ((item: number) => Part) | null = null;
  scope.onmessage = ({ data }: MessageEvent<HelperRequest<Job>>) => {
    if ('job' in data) {
      const { job } = data;
      let made: ((item: number) => Part) | null = null;
      // prepared with its first item, where a fault of it can be told
      work = (item) => (made ??= begin(job))(item);
      return;
    }
    const { number, item } = data;
    const tell = (message: HelperMessage<Part>) => scope.postMessage(message);
    try {
      tell({ number, item, part: work!(item) });
    } catch (cause) {
      tell({ number, item, failed: (cause as Error).message });
    }
  };
}
