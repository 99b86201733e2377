import type { KeptRun, UsualOfRuns } from '@zugluft/core/library/runAnswers';
import { usualDone, type DoneElsewhere } from '@zugluft/core/runs/usualDone';
import { loadDone, workDone, type WorkDone } from '@zugluft/core/runs/workDone';
import type { Database } from '../database/openDatabase';
import type { RunStore } from './runStore';
import type { RunSummaries } from './runSummaries';

/** Runs of other machines that are looked at, the newest: each takes a tenth of a second at first. */
const MOST_LOOKED_AT = 200;

const SAME_LOADS = `SELECT r.id, r.machineId FROM runs r
  JOIN machines m ON m.id = r.machineId AND m.putAsideAt IS NULL
  JOIN documents d ON d.kind = 'run' AND d.id = r.id
  JOIN document_revisions v ON v.kind = d.kind AND v.id = d.id AND v.revision = d.revision
  WHERE r.putAsideAt IS NULL AND r.machineId <> $machineId
    AND lower(trim(json_extract(v.value, '$.load.name'))) IN (SELECT lower(trim(value)) FROM json_each($loads))
  ORDER BY r.createdAt DESC, r.id LIMIT ${MOST_LOOKED_AT}`;

export type UsualRuns = ReturnType<typeof createUsualRuns>;

const nameOf = (load: string): string => load.trim().toLowerCase();

/**
 * What is usual for the watts of a machine's runs: scores and frame rates of other machines under loads of the same name.
 *
 * @param db an open library
 * @param runs of all machines
 * @param summaries what each run sustained
 */
export function createUsualRuns(db: Database, runs: RunStore, summaries: RunSummaries) {
  const doneIn = async (kept: KeptRun): Promise<WorkDone[]> => {
    const { run } = kept;
    if (run.use === 'leave-out' || run.load?.on === 'none') return [];
    const { states } = await summaries.statesOf(kept);
    const means = states.at(-1)?.means;
    if (!means) return [];
    const power = (channel: string) => Math.max(0, means[channel]?.mean ?? 0);
    return workDone([
      {
        run: kept.id,
        cpuW: power('cpuPowerW'),
        gpuW: power('gpuPowerW'),
        done: loadDone(run.load, means),
      },
    ]).filter((d) => d.load !== '');
  };

  return async (machineId: string): Promise<UsualOfRuns> => {
    const own: WorkDone[] = [];
    for (const kept of await runs.all(machineId)) own.push(...(await doneIn(kept)));
    if (own.length === 0) return { items: [] };
    const loads = JSON.stringify([...new Set(own.map((d) => d.load))]);
    const rows = await db.read<{ id: string; machineId: string }>(SAME_LOADS, {
      machineId,
      loads,
    });
    const elsewhere: (DoneElsewhere & { load: string })[] = [];
    for (const row of rows) {
      const kept = await runs.read(row.machineId, row.id);
      for (const { load, watts, done, unit } of await doneIn(kept)) {
        elsewhere.push({ machineId: row.machineId, watts, done, unit, load: nameOf(load) });
      }
    }
    return {
      items: own.map((d) => ({
        run: d.run,
        unit: d.unit,
        usual: usualDone(
          d,
          elsewhere.filter((e) => e.load === nameOf(d.load)),
        ),
      })),
    };
  };
}
