import { readFileSync, statSync } from 'node:fs';
import { unzipSync, type Unzipped } from 'fflate';
import { caseCalibration } from '@zugluft/core/calibration/caseCalibration';
import { fitMultipliers } from '@zugluft/core/calibration/fitMultipliers';
import type { SteadyRun } from '@zugluft/core/calibration/steadyRun';
import type { CaseCalibration } from '@zugluft/core/case/calibrated';
import { openCase, type CaseRequest } from '@zugluft/core/case/openCase';
import type { LogMap } from '@zugluft/core/logs/logLayout';
import type { Log } from '@zugluft/core/logs/readLog';
import { readLogBytes } from '@zugluft/core/logs/readLogBytes';
import { limitsOf } from '@zugluft/core/runs/against';
import { joinLogs, placeLogs } from '@zugluft/core/runs/alignLogs';
import { analyseLog } from '@zugluft/core/runs/analyseLog';
import { partIdsOf, withPartIds } from '@zugluft/core/runs/partIds';
import { parseRun, type RunDocument } from '@zugluft/core/runs/runDocument';
import { steadyRunOf } from '@zugluft/core/runs/steadyRunOf';
import { loadDone, type LoadDone } from '@zugluft/core/runs/workDone';
import { BadInput } from './badInput';

const LARGEST_ZIP = 200e6;
const LARGEST_FILE = 100e6;
const RUN_FILE = 'run.json';

/** A steady state, and what its load told. */
export type SteadyOfRun = SteadyRun & { done: LoadDone | null };

/**
 * What the runs of a zip teach of a machine: one run, or several in folders of their own; those held out or left out are not seen.
 *
 * @param file the zip
 * @param request the machine
 * @param tell told of what each run holds
 * @returns what was learned, and the steady states it was learned from
 * @throws BadInput where it is no such zip, or no run can be used
 */
export async function calibrationOfRuns(
  file: string,
  request: CaseRequest,
  tell: (line: string) => void,
): Promise<{ calibration: CaseCalibration; steady: SteadyOfRun[] }> {
  const files = unzipped(file);
  const runs = Object.keys(files).filter((n) => n === RUN_FILE || n.endsWith(`/${RUN_FILE}`));
  if (runs.length === 0) throw new BadInput('--runs', `the zip holds no ${RUN_FILE}`);
  const steady: SteadyOfRun[] = [];
  for (const name of runs.sort()) {
    const found = await statesIn(files, name, request);
    if ('message' in found) tell(`${name}: ${found.message}`);
    else steady.push(...found.steady);
  }
  if (steady.length === 0)
    throw new BadInput('--runs', 'no run of the zip has a steady state to fit');
  try {
    const fit = fitMultipliers(openCase({ ...request, calibration: null }), steady);
    return { calibration: caseCalibration(fit), steady };
  } catch (cause) {
    if (cause instanceof RangeError) throw new BadInput('--runs', cause.message);
    throw cause;
  }
}

function unzipped(file: string): Unzipped {
  try {
    if (statSync(file).size > LARGEST_ZIP)
      throw new BadInput('--runs', 'the zip is larger than 200 MB');
    return unzipSync(readFileSync(file), {
      filter: ({ originalSize, name }) => {
        if (originalSize > LARGEST_FILE) {
          throw new BadInput('--runs', `${name} unpacks to more than 100 MB`);
        }
        // samples are the same as the logs once more
        return !name.endsWith('samples.csv');
      },
    });
  } catch (cause) {
    if (cause instanceof BadInput) throw cause;
    const code = (cause as NodeJS.ErrnoException).code;
    throw new BadInput(
      '--runs',
      typeof code === 'string' ? `cannot read ${file}: ${code}` : 'the zip cannot be unpacked',
    );
  }
}

async function statesIn(
  files: Unzipped,
  name: string,
  request: CaseRequest,
): Promise<{ steady: SteadyOfRun[] } | { message: string }> {
  const run = runOf(files[name]!, name);
  if (run.use === 'hold-out' || run.use === 'leave-out') return { message: 'is not for the fit' };
  const known = request.record.settings?.some((s) => s.id === run.setting);
  const open = openCase({ ...request, ...(known ? { setting: run.setting } : {}) });
  const folder = name.slice(0, -RUN_FILE.length);
  const logs: Log[] = [];
  for (const [i, log] of (run.logs ?? []).entries()) {
    if (log.kind !== 'csv') continue;
    const bytes = logBytes(files, folder, i + 1, log.file);
    if (!bytes) return { message: `${log.file} is not in the zip` };
    const read = await readLogBytes([bytes], {
      map: (log.layout ?? {}) as LogMap,
      bytes: bytes.length,
    });
    if ('fault' in read) {
      const { row, column, message } = read.fault;
      throw new BadInput(`--runs.${name}.${log.file}:row ${row}:column ${column}`, message);
    }
    logs.push(read.log);
  }
  if (logs.length === 0) return { message: 'holds no log' };
  const places = placeLogs(logs);
  if (!Array.isArray(places)) return { message: places.message };
  const joined = joinLogs(logs, places);
  const log = { ...joined, columns: withPartIds(joined.columns, partIdsOf(open)) };
  const window = run.steady?.find((w) => w.chosenBy === 'person') ?? null;
  const found = analyseLog(log, {
    limits: limitsOf(open),
    backgroundDbA: run.backgroundDbA ?? null,
    window,
  });
  const states = found.steady.map((s) => {
    const state = steadyRunOf(run, s, open);
    return 'message' in state ? state : { ...state, done: loadDone(run.load, s.means) };
  });
  const steady = states
    .filter((s): s is SteadyOfRun => !('message' in s))
    // a score is one of the whole run: it stands beside the watts that were left in the end
    .map((s, i, all) => (i === all.length - 1 ? s : { ...s, done: null }));
  if (steady.length > 0) return { steady };
  const lacks = states.find((s) => 'message' in s);
  return { message: lacks?.message ?? `never settled: ${found.whyNot ?? 'no load'}` };
}

function runOf(bytes: Uint8Array, name: string): RunDocument {
  let json: unknown;
  try {
    json = JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    throw new BadInput(`--runs.${name}`, 'is not well-formed JSON');
  }
  const read = parseRun(json);
  if ('run' in read) return read.run;
  const [issue] = read.issues;
  throw new BadInput(`--runs.${name}.${issue!.path}`, issue!.message);
}

/** A log by its number in the run, or by its own name. */
function logBytes(
  files: Unzipped,
  folder: string,
  number: number,
  file: string,
): Uint8Array | null {
  const numbered = Object.keys(files).find((n) => n.startsWith(`${folder}logs/${number}-`));
  return (
    files[numbered ?? ''] ?? files[`${folder}logs/${file}`] ?? files[`${folder}${file}`] ?? null
  );
}
