import { QueryTypes } from 'sequelize';
import { unlearned } from '@zugluft/core/calibration/calibrate';
import type { SteadyRun } from '@zugluft/core/calibration/steadyRun';
import { DOCUMENT_KINDS } from '@zugluft/core/documents/kinds';
import { wearRates } from '@zugluft/core/learned/wearRates';
import type { WearRead } from '@zugluft/core/learned/wearRead';
import type { LeverPlan } from '@zugluft/core/levers/plansDocument';
import type { WearAnswer } from '@zugluft/core/library/wearAnswer';
import type { MachineSummary } from '@zugluft/core/library/answers';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { Database } from '../database/openDatabase';
import type { DocumentHistory } from '../documents/documentHistory';
import type { MachineList } from '../machines/machineList';
import type { CalibrationStore } from '../runs/calibrationStore';
import type { DoRunJob } from '../runs/runLogs';
import type { RunStore } from '../runs/runStore';
import { Problem } from '../security/problem';
import { nameOf } from './machineName';

/** Renewals that are read, those of plans written last. */
const MOST_RENEWALS = 100;
/** What renewals told is kept at hand. */
const MOST_KEPT = 500;

const ALL = `SELECT d.id, r.value FROM documents d
  JOIN document_revisions r ON r.kind = d.kind AND r.id = d.id AND r.revision = d.revision
  WHERE d.kind = 'plans' ORDER BY d.updatedAt DESC, d.id`;

export type RenewalStore = ReturnType<typeof createRenewalStore>;
type Told = WearRead | { why: string };

/**
 * What renewals of the whole library tell of dust and ageing: every plan with a run before and one after, held against the record as it
 * stood when the plan was made. What one tells is kept as long as record, runs and plan stay.
 *
 * @param db an open library
 * @param history of all documents
 * @param list of machines
 * @param runs of all machines
 * @param calibrations tells a run's steady states
 * @param fit does what takes long
 */
export function createRenewalStore(
  db: Database,
  history: DocumentHistory,
  list: MachineList,
  runs: RunStore,
  calibrations: CalibrationStore,
  fit: DoRunJob,
) {
  const kept = new Map<string, Told>();

  const tell = async (machineId: string, plan: LeverPlan): Promise<Told> => {
    const all = await runs.all(machineId);
    const [before, after] = [plan.runBefore, plan.runAfter].map((id) =>
      all.find((r) => r.id === id),
    );
    if (!before || !after) return { why: 'one of its runs is no longer there' };
    const change = plan.levers.flatMap((l) => l.change.map(({ path, to }) => ({ path, to })));
    const hoursSince = plan.hoursSince ?? null;
    const key = JSON.stringify([
      machineId,
      plan.recordRevision,
      plan.setting,
      change,
      hoursSince,
      [before, after].map((r) => [r.id, r.revision]),
    ]);
    const known = kept.get(key);
    if (known) return known;
    const told = await read();
    kept.set(key, told);
    const [oldest] = kept.keys();
    if (kept.size > MOST_KEPT && oldest !== undefined) kept.delete(oldest);
    return told;

    async function read(): Promise<Told> {
      const then = await history
        .read('record', machineId, plan.recordRevision)
        .catch((cause: unknown) => {
          if (cause instanceof Problem) return null;
          throw cause;
        });
      const { record, complete } = parseRecord(then?.value);
      if (!record || !complete) return { why: 'the record as it was then is no longer there' };
      const states: SteadyRun[] = [];
      for (const [run, which] of [
        [before!, 'before'],
        [after!, 'after'],
      ] as const) {
        const { steady, lacks } = await calibrations.statesOf(machineId, run);
        const last = steady.at(-1);
        if (!last) return { why: `run ${which}: ${lacks ?? 'it never settled'}` };
        states.push(last);
      }
      const answer = await fit({
        do: 'wear',
        renewal: {
          request: unlearned({ record, setting: plan.setting ?? undefined }),
          change,
          before: states[0]!,
          after: states[1]!,
          hoursSince,
        },
      });
      if (!('wear' in answer)) throw new Error('no wear');
      return answer.wear;
    }
  };

  /**
   * Reads all renewals.
   *
   * @param gone ends it
   */
  return async (gone: AbortSignal): Promise<WearAnswer> => {
    const [documents, rows] = await Promise.all([
      db.sequelize.query<{ id: string; value: string }>(ALL, { type: QueryTypes.SELECT }),
      list.rows(),
    ]);
    const machines = new Map(rows.map((r) => [r.id, r]));
    const plans = documents
      .flatMap(({ id, value }): [MachineSummary, LeverPlan][] => {
        const machine = machines.get(id);
        const own = DOCUMENT_KINDS.plans.read(JSON.parse(value))?.plans ?? [];
        if (!machine || machine.putAsideAt !== null) return [];
        return own.filter((p) => p.runBefore && p.runAfter).map((p) => [machine, p]);
      })
      .slice(0, MOST_RENEWALS);
    const renewals: WearAnswer['renewals'] = [];
    const told: WearRead[] = [];
    for (const [machine, plan] of plans) {
      if (gone.aborted) throw new Problem(499, 'Cancelled', 'reading renewals was cancelled');
      const found = await tell(machine.id, plan);
      if ('evidence' in found) told.push(found);
      renewals.push({
        machineId: machine.id,
        machine: nameOf(machine),
        planId: plan.id,
        plan: plan.name ?? plan.levers.map((l) => l.name).join(', '),
        hoursSince: plan.hoursSince ?? null,
        rates: 'rates' in found ? found.rates : [],
        why: 'why' in found ? found.why : null,
      });
    }
    return { renewals, rates: wearRates(told.map((t) => t.evidence)) };
  };
}
