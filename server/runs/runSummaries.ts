import type {
  KeptRun,
  ResidualPage,
  RunResidual,
  RunSteady,
  SteadyOfRuns,
} from '@zugluft/core/library/runAnswers';
import type { FanSweep } from '@zugluft/core/runs/fanSweep';
import { loadDone } from '@zugluft/core/runs/workDone';
import type { WhyOutside } from '@zugluft/core/runs/whyOutside';
import type { Database } from '../database/openDatabase';
import type { DocumentStore } from '../documents/documentStore';
import { Problem } from '../security/problem';
import { machineCase } from './machineCase';
import { apartProblem, type DoRunJob, type RunLogs } from './runLogs';
import { chosenWindow, type RunStore } from './runStore';

/** Runs of the library that are told at a time: each takes a tenth of a second at first. */
const RESIDUALS = 20;
/** Runs whose steady states are kept at hand. */
const MAX_STATES = 2000;

type States = { states: RunSteady[]; lacks: string | null };
type Residual = Pick<RunResidual, 'against' | 'lacks'>;
export type RunSummaries = ReturnType<typeof createRunSummaries>;

/**
 * What runs say beside each other: what each sustained, the sweep out of all of them, each against its record.
 *
 * @param db an open library
 * @param documents the store
 * @param runs of all machines
 * @param logs of all runs
 * @param work what reads logs, and what fits: a fit takes long and must not hold up a log that is looked at
 */
export function createRunSummaries(
  db: Database,
  documents: DocumentStore,
  runs: RunStore,
  logs: RunLogs,
  work: { read: DoRunJob; fit: DoRunJob },
) {
  const { Machine } = db.models;
  const residuals = new Map<string, Residual>();
  const states = new Map<string, States>();

  return {
    /** What each run of a machine sustained, the ones put aside left out. */
    async steady(machineId: string): Promise<SteadyOfRuns> {
      const items: SteadyOfRuns['items'] = [];
      for (const kept of await runs.all(machineId)) {
        const { run } = kept;
        const { states, lacks } = await this.statesOf(kept);
        items.push({
          id: kept.id,
          name: run.name ?? '',
          on: run.load?.on ?? 'both',
          setting: run.setting ?? null,
          done: loadDone(run.load, states[states.length - 1]?.means ?? {}),
          use: run.use ?? 'fit',
          states,
          lacks,
        });
      }
      return { items };
    },

    /** Steady states of a run, or in words why there are none; told once for a revision of run and record. */
    async statesOf(kept: KeptRun): Promise<States> {
      const { run, machineId } = kept;
      const now = await machineCase(documents, machineId, run.setting);
      const key = `${kept.id} ${kept.revision} ${now?.revision ?? 0}`;
      const known = states.get(key);
      if (known) return known;
      let found: States;
      try {
        const answer = await work.read({
          do: 'means',
          logs: await logs.of(run),
          backgroundDbA: run.backgroundDbA ?? null,
          window: chosenWindow(run),
          request: now?.request ?? null,
        });
        if ('apart' in answer) found = { states: [], lacks: answer.apart.message };
        else if ('means' in answer) {
          const lacks = answer.means.length > 0 ? null : `never settled: ${answer.whyNot ?? ''}`;
          found = { states: answer.means, lacks };
        } else throw new Error('no means');
      } catch (cause) {
        if (!(cause instanceof Problem)) throw cause;
        return { states: [], lacks: cause.message };
      }
      // one that grows is another one at each look
      if (!run.follows?.length) {
        states.set(key, found);
        const [oldest] = states.keys();
        if (states.size > MAX_STATES && oldest !== undefined) states.delete(oldest);
      }
      return found;
    },

    /** Every run of the library against what its record foretells, the newest first. */
    async residuals(page: number): Promise<ResidualPage> {
      const { items: newest, total } = await runs.newest(page, RESIDUALS);
      const items: ResidualPage['items'] = [];
      for (const kept of newest) {
        const { run, machineId } = kept;
        const machine = await Machine.findByPk(machineId);
        if (!machine || machine.putAsideAt) continue;
        const { against, lacks } = await this.againstOf(kept);
        items.push({
          id: kept.id,
          machineId,
          machine: [machine.maker, machine.model, machine.variant].filter(Boolean).join(' '),
          name: run.name ?? '',
          on: run.load?.on ?? 'both',
          use: run.use ?? 'fit',
          against,
          lacks,
        });
      }
      return { items, total, page, pageSize: RESIDUALS };
    },

    /** A run against what its record foretells; told once for a revision of run and record. */
    async againstOf(kept: KeptRun): Promise<Residual> {
      const { run, machineId } = kept;
      const now = await machineCase(documents, machineId, run.setting);
      // the laboratory’s own defaults count as much as the record
      const key = `${kept.id} ${kept.revision} ${now?.revision ?? 0} ${JSON.stringify(now?.request.lab)}`;
      const known = residuals.get(key);
      if (known) return known;
      if (!now) return { against: null, lacks: 'the record is not complete' };
      if (!run.logs?.length) return { against: null, lacks: 'this run holds no log yet' };
      let found: Residual;
      try {
        const answer = await work.read({
          do: 'against',
          logs: await logs.of(run),
          backgroundDbA: run.backgroundDbA ?? null,
          window: chosenWindow(run),
          request: now.request,
        });
        if ('apart' in answer) found = { against: null, lacks: answer.apart.message };
        else if ('against' in answer) found = answer;
        else throw new Error('nothing held against it');
      } catch (cause) {
        if (!(cause instanceof Problem)) throw cause;
        return { against: null, lacks: cause.message };
      }
      residuals.set(key, found);
      const [oldest] = residuals.keys();
      if (residuals.size > MAX_STATES && oldest !== undefined) residuals.delete(oldest);
      return found;
    },

    /** Fan speeds against level, out of all runs of a machine. */
    async sweep(machineId: string): Promise<FanSweep> {
      const now = await machineCase(documents, machineId, undefined);
      if (!now) throw new Problem(422, 'Not complete', 'the record is not complete');
      const read = [];
      for (const { run } of await runs.all(machineId)) {
        if (run.use === 'leave-out') continue;
        const own = await logs.of(run).catch((cause: unknown) => {
          if (cause instanceof Problem) return null;
          throw cause;
        });
        if (own) read.push({ run, backgroundDbA: run.backgroundDbA ?? null, logs: own });
      }
      const answer = await work.read({ do: 'sweep', request: now.request, runs: read });
      if (!('sweep' in answer)) throw new Error('no sweep');
      return answer.sweep;
    },

    /** What would bring a run back into its band: the machine fitted to it alone. */
    async whyOutside(machineId: string, id: string): Promise<WhyOutside> {
      const { run } = await runs.read(machineId, id);
      const request = (await machineCase(documents, machineId, run.setting))?.request;
      if (!request) throw new Problem(422, 'Not complete', 'the record is not complete');
      const steady = await work.read({
        do: 'steady',
        run,
        logs: await logs.of(run),
        backgroundDbA: run.backgroundDbA ?? null,
        window: chosenWindow(run),
        request,
      });
      if ('apart' in steady) throw apartProblem(steady.apart, run);
      if (!('steady' in steady)) throw new Error('no steady states');
      const last = steady.steady[steady.steady.length - 1];
      if (!last) throw new Problem(422, 'Nothing steady', steady.lacks ?? 'nothing is steady');
      const answer = await work.fit({ do: 'why-outside', request, run: last });
      if (!('why' in answer)) throw new Error('no reasons');
      return answer.why;
    },
  };
}
