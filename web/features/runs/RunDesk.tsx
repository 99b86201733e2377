import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useMemo, useRef, useState } from 'react';
import {
  readAnalysis,
  readSeries,
  runKeys,
  sendLog,
  type KeptRun,
  type RunDocument,
} from '../../api/runs';
import { useCommands } from '../../documents/commands';
import { useDocument } from '../../documents/useDocument';
import { Kbd } from '../../kit/Kbd';
import { useTheme } from '../../kit/theme';
import { useUnits } from '../../kit/units';
import { RunSays } from './RunSays';
import { RunSheet } from './RunSheet';
import { eventWords } from './runWords';

const RunChart = lazy(() => import('../../documents/answer/RunChart'));
const PIXELS = 700;
const USES = ['fit', 'hold-out', 'leave-out'] as const;

/** One run: its sheet, its logs, what they say. */
export function RunDesk({
  machineId,
  id,
  start,
}: {
  machineId: string;
  id: string;
  start: KeptRun;
}) {
  const { theme } = useTheme();
  const { units } = useUnits();
  const { view, keeper, error } = useDocument('run', id, {
    revision: start.revision,
    value: start.run,
    at: new Date(start.createdAt),
  });
  const run = view?.value ?? start.run;
  const logs = run.logs ?? [];
  const [sending, setSending] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const picker = useRef<HTMLInputElement>(null);
  const change = (next: Partial<RunDocument>, what: string) =>
    keeper?.change((now) => ({ ...now, ...next }), what);

  const take = async (files: readonly File[]) => {
    for (const file of files) {
      setSending(file.name);
      setProblem(null);
      try {
        const taken = await sendLog(machineId, id, file);
        keeper?.change((now) => {
          const there = (now.logs ?? []).filter((l) => l.sha256 !== taken.sha256);
          const log = {
            id: `log-${there.length + 1}`,
            file: taken.file,
            kind: taken.kind,
            sha256: taken.sha256,
            channels: taken.channels.filter((c) => !c.is.startsWith('other.')),
          };
          return { ...now, logs: [...there, log] };
        }, `log ${taken.file}`);
      } catch (cause) {
        setProblem((cause as Error).message);
      }
    }
    setSending(null);
    await keeper?.flush();
  };
  const nextUse = () =>
    change(
      { use: USES[(USES.indexOf(run.use ?? 'fit') + 1) % USES.length]! },
      'what the run is for',
    );
  useCommands({ 'add-log': () => picker.current?.click(), 'run-use': nextUse });

  // what the server has of it: its answers are of that revision
  const revision = view?.revision ?? start.revision;
  const hasLogs = start.run.logs?.length ?? 0;
  const analysis = useQuery({
    queryKey: runKeys.analysis(id, revision),
    queryFn: ({ signal }) => readAnalysis(machineId, id, signal),
    enabled: hasLogs > 0,
    placeholderData: (before) => before,
    retry: false,
  });
  const series = useQuery({
    queryKey: runKeys.series(id, revision, null, null),
    queryFn: ({ signal }) =>
      readSeries(machineId, id, { fromS: null, toS: null, pixels: PIXELS }, signal),
    enabled: hasLogs > 0,
    placeholderData: (before) => before,
    retry: false,
  });
  const marks = useMemo(
    () => ({
      steady: analysis.data?.steady ?? [],
      events: (analysis.data?.events ?? [])
        .filter((e) => e.kind === 'short-limit-ends' || e.kind === 'later-limit')
        .map((e) => ({ atS: e.atS, words: eventWords(e) })),
    }),
    [analysis.data],
  );
  const failed = problem ?? error?.message ?? analysis.error?.message ?? null;
  return (
    <div
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void take([...e.dataTransfer.files]);
      }}
    >
      <input
        ref={picker}
        type="file"
        multiple
        accept=".csv,.tsv,.txt,.log,text/csv,text/plain"
        className="sr-only"
        aria-label="logs of this run"
        onChange={(e) => {
          void take([...(e.currentTarget.files ?? [])]);
          e.currentTarget.value = '';
        }}
      />
      <p className="text-small text-quiet flex flex-wrap gap-x-4">
        <span>
          {logs.length === 0 ? 'no log yet' : logs.map((l) => l.file).join(', ')}
          {sending && `, reading ${sending}`}
        </span>
        <button
          type="button"
          className="cursor-pointer hover:text-ink"
          onClick={() => picker.current?.click()}
        >
          add logs <Kbd>a</Kbd>
        </button>
        <button type="button" className="cursor-pointer hover:text-ink" onClick={nextUse}>
          fit, hold out, leave out <Kbd>v</Kbd>
        </button>
      </p>
      {failed && (
        <p role="alert" className="text-heat py-1">
          {failed}.
        </p>
      )}
      {series.data && (
        <div
          className="h-[min(26rem,52vh)]"
          role="img"
          aria-label="power, temperature and level over time; the same in words below"
        >
          <Suspense fallback={<p className="text-quiet p-4">drawing</p>}>
            <RunChart series={series.data} marks={marks} theme={theme} units={units} />
          </Suspense>
        </div>
      )}
      <div className="grid lg:grid-cols-2 gap-x-6 gap-y-4 pt-2">
        {analysis.data && <RunSays analysis={analysis.data} run={run} />}
        <RunSheet run={run} change={change} />
      </div>
    </div>
  );
}
