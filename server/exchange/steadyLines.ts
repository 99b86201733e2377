import type { KeptRun, RunSteady } from '@zugluft/core/library/runAnswers';
import { safeCell } from '@zugluft/core/exchange/cells';
import type { Database } from '../database/openDatabase';
import type { DocumentStore } from '../documents/documentStore';
import type { RunStore } from '../runs/runStore';
import type { RunSummaries } from '../runs/runSummaries';
import { line } from './exportLibrary';
import { libraryMachines, type LibraryMachine } from './libraryPages';

/** Channels of parts differ from machine to machine: they stand in one cell, `fanRpm.left 4200 ± 21; …`. */
const PLAIN = [
  'cpuPowerW',
  'gpuPowerW',
  'cpuC',
  'gpuC',
  'levelDbA',
  'wallW',
  'skinC',
  'roomC',
] as const;
const ABOUT = [
  'machine',
  'maker',
  'model',
  'variant',
  'state',
  'run',
  'name',
  'load',
  'on',
  'setting',
  'firmware',
  'use',
  'fromS',
  'toS',
  'chosenBy',
] as const;
const DIGITS = 6;
const figure = (x: number) => String(Number(x.toPrecision(DIGITS)));

/** The CSV with a row for each steady state of each run, means with their ±. */
export function steadyOf(summaries: RunSummaries) {
  const header = [
    ...ABOUT,
    ...PLAIN.flatMap((c) => [c, `${c} ±`]),
    'level is upper bound',
    'parts',
  ];
  return {
    header: `\ufeff${line(header)}`,
    async linesOf({ row, record }: LibraryMachine, kept: KeptRun): Promise<string> {
      const { run } = kept;
      const { maker, model, variant } = record.identity ?? {};
      const { states } = await summaries.statesOf(kept);
      return states
        .map((state) => {
          const about = [
            row.id,
            maker,
            model,
            variant,
            row.stateName,
            kept.id,
            run.name,
            run.load?.kind,
            run.load?.on,
            run.setting,
            run.firmware,
            run.use ?? 'fit',
            figure(state.fromS),
            figure(state.toS),
            state.chosenBy,
          ];
          return line([...about.map((x) => safeCell(x ?? '')), ...cellsOf(state)]);
        })
        .join('');
    },
  };
}

/** Lines of that CSV. */
export async function* steadyLines(
  db: Database,
  documents: DocumentStore,
  runs: RunStore,
  summaries: RunSummaries,
): AsyncGenerator<string> {
  const csv = steadyOf(summaries);
  yield csv.header;
  for await (const machine of libraryMachines(db, documents)) {
    if (!machine.hasRuns) continue;
    for (const kept of await runs.all(machine.row.id)) yield csv.linesOf(machine, kept);
  }
}

function cellsOf({ means }: RunSteady): string[] {
  const plain = PLAIN.flatMap((c) => {
    const m = means[c];
    return m ? [figure(m.mean), figure(m.plusMinus)] : ['', ''];
  });
  const parts = Object.entries(means)
    .filter(([is]) => is.includes('.') && !is.startsWith('other.'))
    .map(([is, m]) => `${is} ${figure(m.mean)} ± ${figure(m.plusMinus)}`);
  return [...plain, means['levelDbA']?.upperBound ? 'yes' : '', safeCell(parts.join('; '))];
}
