import { capsOf } from '@zugluft/core/case/laboratory';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { SteadyRun } from '@zugluft/core/calibration/steadyRun';
import { biasByKind, coolingKind, type HeldAgainst } from '@zugluft/core/learned/biasByKind';
import type { FactorEvidence } from '@zugluft/core/learned/factorEvidence';
import type { Teacher } from '@zugluft/core/learned/learnFrom';
import { LEAST_TEACHERS, type LearnedAnswer } from '@zugluft/core/library/learnedAnswer';
import type { RunResidual } from '@zugluft/core/library/runAnswers';
import type { MachineSummary } from '@zugluft/core/library/answers';
import { plural } from '@zugluft/core/record/plural';
import type { DocumentStore } from '../documents/documentStore';
import type { MachineList } from '../machines/machineList';
import type { CalibrationStore } from '../runs/calibrationStore';
import { machineCase } from '../runs/machineCase';
import type { DoRunJob } from '../runs/runLogs';
import type { RunStore } from '../runs/runStore';
import type { RunSummaries } from '../runs/runSummaries';
import { Problem } from '../security/problem';
import { nameOf } from './machineName';

/** Machines that are learned from, those changed last. */
const MOST_TEACHERS = 200;
/** What runs of machines told is kept at hand. */
const MOST_KEPT = 1000;

export type TeacherStore = ReturnType<typeof createTeacherStore>;

/** A machine that teaches, or why not. */
type Found =
  | { teacher: Teacher; against: NonNullable<RunResidual['against']>[] }
  | { why: string; against: NonNullable<RunResidual['against']>[] };

/**
 * What the machines of a library teach about the next one. Each is fitted to its own runs without what was learned before, so that nothing
 * counts twice; that is kept as long as record and runs stay.
 *
 * @param documents the store
 * @param list of machines
 * @param runs of all machines
 * @param summaries what each run sustained beside what its record foretells
 * @param calibrations tells the steady states that a fit sees
 * @param calibrated ids of machines that stand on runs
 * @param fit does what takes long
 */
export function createTeacherStore(
  documents: DocumentStore,
  list: MachineList,
  runs: RunStore,
  summaries: RunSummaries,
  calibrations: CalibrationStore,
  calibrated: () => Promise<ReadonlySet<string>>,
  fit: DoRunJob,
) {
  const kept = new Map<string, FactorEvidence>();
  let last: LearnedAnswer | null = null;

  const evidenceOf = async (key: string, request: CaseRequest, states: SteadyRun[]) => {
    const known = kept.get(key);
    if (known) return known;
    const answer = await fit({ do: 'evidence', request, fit: states });
    if (!('evidence' in answer)) throw new Error('no evidence');
    kept.set(key, answer.evidence);
    const [oldest] = kept.keys();
    if (kept.size > MOST_KEPT && oldest !== undefined) kept.delete(oldest);
    return answer.evidence;
  };

  const find = async (id: string): Promise<Found> => {
    const all = await runs.all(id);
    const against: NonNullable<RunResidual['against']>[] = [];
    for (const run of all) {
      const told = run.run.use === 'leave-out' ? null : (await summaries.againstOf(run)).against;
      if (told) against.push(told);
    }
    const now = await machineCase(documents, id);
    if (!now) return { why: 'the record is not complete', against };
    const { fit: states } = await calibrations.seenByFit(id);
    if (states.length === 0) return { why: 'no run with a steady state', against };
    // what it is foretold for: the loudest state with both dies that the setting did not hold
    const both = states.filter(
      (s) =>
        s.cpuW + s.gpuW > 0 &&
        (s.gpuW > 0 || !now.request.record.dies?.some((d) => d.role === 'gpu')),
    );
    const free = against.filter((a) => !a.held);
    const measured = [...both].sort((a, b) => b.cpuW + b.gpuW - (a.cpuW + a.gpuW))[0];
    const told =
      measured &&
      free.find((a) => Math.abs(a.measuredW - measured.cpuW - measured.gpuW) < 0.01 * a.measuredW);
    if (!measured || !told)
      return { why: 'every run was held by its setting, or loads one die of two', against };
    const key = `${id} ${now.revision} ${all.map((r) => `${r.id}.${r.revision}`).join(' ')}`;
    const evidence = await evidenceOf(key, now.request, states);
    const request: CaseRequest = {
      ...now.request,
      ...(measured.cpuW > 0 && measured.gpuW > 0
        ? { ratio: { cpu: measured.cpuW, gpu: measured.gpuW } }
        : {}),
    };
    return {
      teacher: { request, evidence, cap: told.cap, measuredW: told.measuredW },
      against,
    };
  };

  return {
    /** What was learned last since the program began; null where nothing was. */
    last: (): LearnedAnswer | null => last,

    /**
     * Learns anew.
     *
     * @param gone ends it
     * @param tell told of each machine
     * @throws Problem 422 where too few machines stand on runs
     */
    async learn(
      gone: AbortSignal,
      tell: (done: number, of: number) => void,
    ): Promise<LearnedAnswer> {
      const learned = await calibrated();
      const rows = (await list.rows())
        .filter((m) => m.putAsideAt === null && learned.has(m.id))
        .sort((a, b) => b.updatedAt.localeCompare(a.updatedAt))
        .slice(0, MOST_TEACHERS);
      const teachers: { row: MachineSummary; teacher: Teacher }[] = [];
      const lacking: LearnedAnswer['lacking'] = [];
      const against: HeldAgainst[] = [];
      for (const [i, row] of rows.entries()) {
        if (gone.aborted) throw new Problem(499, 'Cancelled', 'learning was cancelled');
        const found = await find(row.id);
        for (const a of found.against) {
          against.push({ ...a, machineId: row.id, kind: coolingKind(row) });
        }
        if ('teacher' in found) teachers.push({ row, teacher: found.teacher });
        else lacking.push({ id: row.id, name: nameOf(row), why: found.why });
        tell(i + 1, rows.length);
      }
      if (teachers.length < LEAST_TEACHERS) {
        throw new Problem(
          422,
          'Too few machines',
          `at least ${LEAST_TEACHERS} machines with runs in use teach something about the next one; there are ${plural(teachers.length, 'machine')}${lacking[0] ? `; ${lacking[0].name}: ${lacking[0].why}` : ''}`,
        );
      }
      const caps = capsOf(teachers[0]!.teacher.request.lab).filter((c) => c !== 'off');
      const answer = await fit({ do: 'learn', teachers: teachers.map((t) => t.teacher), caps });
      if (!('learned' in answer)) throw new Error('nothing learned');
      const { machines, ...rest } = answer.learned;
      last = {
        ...rest,
        madeAt: new Date().toISOString(),
        machines: machines.map((m, i) => {
          const { row, teacher } = teachers[i]!;
          return {
            id: row.id,
            name: nameOf(row),
            kind: coolingKind(row),
            cap: shownCap(teacher.cap),
            measuredW: teacher.measuredW,
            ...m,
          };
        }),
        lacking,
        kinds: biasByKind(against),
      };
      return last;
    },
  };
}

/** A level as it is read, to a tenth. */
const shownCap = (cap: Cap): Cap => (typeof cap === 'number' ? Math.round(10 * cap) / 10 : cap);
