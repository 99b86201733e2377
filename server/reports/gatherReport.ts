import { withCalibration } from '@zugluft/core/calibration/caseKey';
import { capsOf } from '@zugluft/core/case/laboratory';
import { LABORATORY } from '@zugluft/core/documents/kinds';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { readRatio } from '@zugluft/core/record/readRatio';
import type { UsualOfRuns } from '@zugluft/core/library/runAnswers';
import type { UnitSystem } from '@zugluft/core/report/quantity';
import type { MeasuredState } from '@zugluft/core/report/report';
import { SHOWN_DRAWS, SHOWN_SEED } from '@zugluft/core/uncertainty/wattsBand';
import { middleOf } from '@zugluft/core/verdict/verdict';
import program from '../../package.json';
import type { DocumentStore } from '../documents/documentStore';
import { fileName } from '../exchange/exportLibrary';
import type { MachineList } from '../machines/machineList';
import type { CalibrationInUse } from '../runs/calibrationInUse';
import { machineCase } from '../runs/machineCase';
import type { RunSummaries } from '../runs/runSummaries';
import type { UsualRuns } from '../runs/usualRuns';
import { Problem } from '../security/problem';
import type { ReportJob } from './makeReport';
import { peersOfMachine } from './peersOfMachine';

/** What is asked of a report, whatever it is written as. */
export interface Asked {
  cap?: Cap | undefined;
  setting?: string | undefined;
  ratio?: string | undefined;
  units: UnitSystem;
}

export type GatherReport = ReturnType<typeof createGatherReport>;

/**
 * All that a report on a machine is made of, as it stands now.
 *
 * @returns the job but for its forms, what its files are called, and the record's revision
 * @throws Problem 409 where the record is not complete
 */
export function createGatherReport(
  documents: DocumentStore,
  list: MachineList,
  summaries: RunSummaries,
  usual: UsualRuns,
  readCalibration: (machineId: string) => Promise<CalibrationInUse | null>,
) {
  return async (
    id: string,
    { cap, setting, ratio, units }: Asked,
  ): Promise<{ job: Omit<ReportJob, 'forms'>; name: string; revision: number }> => {
    const machine = await machineCase(documents, id, setting);
    if (!machine) {
      throw new Problem(409, 'No report yet', 'the record is not complete: there are no watts');
    }
    const settings = (await documents.read('settings', LABORATORY)).value;
    const { request } = withCalibration(
      { ...machine.request, ratio: (ratio && readRatio(ratio)) || undefined },
      await readCalibration(id),
    );
    const caps = capsOf(request.lab).filter((c) => typeof c === 'number');
    const at = cap ?? middleOf(caps);
    return {
      job: {
        request,
        caps,
        cap: at,
        log: await logOf(documents, id),
        rubric: settings.rubric,
        threshold: settings.noticeable,
        measured: measuredOf(
          await summaries.steady(id),
          await usual(id),
          request.record.room?.temperatureC,
        ),
        peers: peersOfMachine(await list.rows(), id, at),
        article: (await documents.read('article', id)).value,
        units,
        trace: {
          record: `revision ${machine.revision}`,
          program: program.version,
          draws: SHOWN_DRAWS,
          seed: SHOWN_SEED,
          day: new Date().toISOString().slice(0, 10),
        },
      },
      name: fileName(request.record),
      revision: machine.revision,
    };
  };
}

async function logOf(documents: DocumentStore, id: string) {
  const { value } = await documents.read('log', id);
  return value.steps.length > 0 || value.screws.length > 0 ? value : null;
}

function measuredOf(
  { items }: Awaited<ReturnType<RunSummaries['steady']>>,
  usual: UsualOfRuns,
  room: unknown,
): MeasuredState[] {
  const roomC = typeof room === 'object' && room && 'value' in room ? Number(room.value) : null;
  return items.flatMap((run) => {
    const last = run.states[run.states.length - 1];
    const cpu = last?.means['cpuPowerW']?.mean;
    const gpu = last?.means['gpuPowerW']?.mean;
    if (!last || (cpu === undefined && gpu === undefined)) return [];
    return [
      {
        run: run.name || run.on,
        cpuW: Math.max(0, cpu ?? 0),
        gpuW: Math.max(0, gpu ?? 0),
        levelDbA: last.means['levelDbA']?.mean ?? null,
        roomC: last.means['roomC']?.mean ?? roomC,
        done: run.done,
        usual: usual.items.filter((u) => u.run === run.id),
      },
    ];
  });
}
