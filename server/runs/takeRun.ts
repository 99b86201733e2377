import { randomUUID } from 'node:crypto';
import type { KeptRun } from '@zugluft/core/library/runAnswers';
import type { RunDocument } from '@zugluft/core/runs/runDocument';
import type { Database } from '../database/openDatabase';
import type { DocumentStore } from '../documents/documentStore';
import { Problem } from '../security/problem';
import { logNames } from './runFiles';
import type { RunLogs } from './runLogs';
import type { RunStore } from './runStore';

/** Takes a run that another library, or another program, wrote. */
export type TakeRun = (
  machineId: string,
  input: unknown,
  bytesOf: (name: string) => AsyncIterable<Uint8Array> | null,
  asNew?: boolean,
) => Promise<{ kept: KeptRun; made: boolean }>;

/**
 * Takes runs from outside: logs first, under their hash, then the run in one transaction; what was foretold of it comes along,
 * marked as such. One that is here already stays as it is; one whose id another machine has gets another.
 *
 * @throws Problem 422 where it is no run, or a log is not the one that the run names
 */
export function createTakeRun(
  db: Database,
  documents: DocumentStore,
  runs: RunStore,
  logs: RunLogs,
): TakeRun {
  return async (machineId, input, bytesOf, asNew = false) => {
    const read = documents.accept('run', input);
    const { prediction, follows: _, ...run } = read;
    const known = asUuid(run.id) ? await db.models.Run.findByPk(run.id) : null;
    if (known?.machineId === machineId && !asNew) {
      return runs.make(machineId, { ...run, id: run.id });
    }
    const id = known || asNew || !asUuid(run.id) ? randomUUID() : run.id;
    const names = logNames(run);
    const taken: NonNullable<RunDocument['logs']> = [];
    for (const log of run.logs ?? []) {
      const pieces = bytesOf(names.get(log.id)!) ?? bytesOf(`logs/${log.file}`);
      if (!pieces) {
        // it did not come along: its hash still says which one it was
        taken.push(log);
        continue;
      }
      const map = log.layout ?? {};
      const here = await logs.take(pieces, { file: log.file, map: map as never });
      if (log.sha256 !== undefined && log.sha256 !== here.sha256) {
        throw new Problem(422, 'Another log', `${log.file} is not the log that the run names`);
      }
      taken.push({ ...log, kind: here.kind, sha256: here.sha256 });
    }
    const done = await runs.make(machineId, { ...run, id, ...(run.logs ? { logs: taken } : {}) });
    if (done.made && prediction) {
      await db.write(async (transaction) => {
        await db.models.Run.update(
          { prediction: JSON.stringify({ ...prediction, imported: true }) },
          { where: { id }, transaction },
        );
      });
    }
    return done;
  };
}

const asUuid = (id: string) => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(id);
