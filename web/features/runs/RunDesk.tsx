import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useMemo, useRef, useState } from 'react';
import {
  readAnalysis,
  readSeries,
  runKeys,
  type KeptRun,
  type RunAnalysis,
  type RunDocument,
} from '../../api/runs';
import { useCommands } from '../../documents/commands';
import { useDocument } from '../../documents/useDocument';
import { Kbd } from '../../kit/Kbd';
import { useTheme } from '../../kit/theme';
import { useUnits } from '../../kit/units';
import { Foretold } from './Foretold';
import { InboxPanel } from './InboxPanel';
import { HeardPanel } from './HeardPanel';
import { LogLayoutPanel } from './LogLayoutPanel';
import { LogPlaces } from './LogPlaces';
import { RecordingPanel } from './RecordingPanel';
import { RunFindings } from './RunFindings';
import { RunBar } from './RunBar';
import { RunSays } from './RunSays';
import { RunSheet } from './RunSheet';
import { clockWords, eventWords, SEGMENT_WORDS, USES } from './runWords';
import { PIXELS, useUnderRun } from './useUnderRun';
import { useRunLogs } from './useRunLogs';
import { useShown } from './useShown';
import { useWindow } from './useWindow';

const RunChart = lazy(() => import('../../documents/answer/RunChart'));

const LOOK_AGAIN_MS = 2000;

/** One run: its sheet, its logs, what they say. */
export function RunDesk({
  machineId,
  start,
  others,
}: {
  machineId: string;
  start: KeptRun;
  /** All runs of the machine. */
  others: readonly KeptRun[];
}) {
  const { id } = start;
  const { theme } = useTheme();
  const { units } = useUnits();
  const { view, keeper, error } = useDocument('run', id, {
    revision: start.revision,
    value: start.run,
    at: new Date(start.createdAt),
  });
  const run = view?.value ?? start.run;
  const logs = run.logs ?? [];
  const picker = useRef<HTMLInputElement>(null);
  const [looksIn, setLooksIn] = useState(false);
  const change = (next: Partial<RunDocument>, what: string) =>
    keeper?.change((now) => ({ ...now, ...next }), what);
  const { take, takeFollowed, sending, giveUp, problem, asked, say, leave } = useRunLogs(
    machineId,
    id,
    keeper,
  );
  const nextUse = () =>
    change(
      { use: USES[(USES.indexOf(run.use ?? 'fit') + 1) % USES.length]! },
      'what the run is for',
    );

  // what the server has of it: its answers are of that revision
  const revision = view?.revision ?? start.revision;
  const follows = start.run.follows ?? [];
  // what is there on the server, and was not taken out here
  const hasLogs = ((start.run.logs?.length ?? 0) > 0 && logs.length > 0) || follows.length > 0;
  // a log that grows is looked at again and again
  const again = follows.length > 0 ? LOOK_AGAIN_MS : false;
  const analysis = useQuery({
    queryKey: runKeys.analysis(id, revision),
    queryFn: ({ signal }) => readAnalysis(machineId, id, signal),
    enabled: hasLogs,
    placeholderData: (before) => before,
    retry: false,
    refetchInterval: again,
  });
  // what was said of logs that were taken out is said no more
  const said = hasLogs ? (analysis.data ?? null) : null;
  const lastS = said?.log.durationS ?? 0;
  const { shown, show, isWhole } = useShown(lastS);
  const series = useQuery({
    queryKey: runKeys.series(
      id,
      revision,
      isWhole ? null : shown.fromS,
      isWhole ? null : shown.toS,
    ),
    queryFn: ({ signal }) =>
      readSeries(
        machineId,
        id,
        { fromS: isWhole ? null : shown.fromS, toS: isWhole ? null : shown.toS, pixels: PIXELS },
        signal,
      ),
    enabled: hasLogs,
    placeholderData: (before) => before,
    retry: false,
    refetchInterval: again,
  });
  const drawn =
    hasLogs && Object.keys(series.data?.channels ?? {}).length > 0 ? series.data : undefined;
  const loadFromS =
    said?.segments.find((s) => s.kind === 'short' || s.kind === 'sustained')?.fromS ?? 0;
  const loadToS =
    said?.segments.findLast((s) => s.kind === 'sustained' || s.kind === 'later')?.toS ?? lastS;
  const beside = others.filter((r) => r.id !== id && (r.run.logs?.length ?? 0) > 0);
  const under = useUnderRun({
    machineId,
    run,
    others: beside,
    analysis: said,
    load: { fromS: loadFromS, toS: loadToS },
  });
  const { window, moveWindow, step, isChosen, release } = useWindow(said, run, (steady, what) =>
    change({ steady }, what),
  );
  useCommands({
    'add-log': () => picker.current?.click(),
    inbox: () => setLooksIn((x) => !x),
    'run-use': nextUse,
    'run-zoom': () =>
      isWhole && window
        ? show({
            fromS: Math.max(0, window.fromS - 0.02 * (window.toS - window.fromS)),
            toS: Math.min(lastS, window.toS + 0.02 * (window.toS - window.fromS)),
          })
        : show({ fromS: 0, toS: lastS }),
    'run-window': (key) => step(key ?? ''),
    'run-overlay': under.nextOther,
    'run-simulation': under.toggleSimulation,
  });
  const marks = useMemo(
    () => ({
      steady: window ? [window] : [],
      segments: (said?.segments ?? []).map((s) => ({
        fromS: s.fromS,
        toS: s.toS,
        words: SEGMENT_WORDS[s.kind] ?? s.kind,
      })),
      events: (said?.events ?? [])
        .filter((e) => e.kind === 'short-limit-ends' || e.kind === 'later-limit')
        .map((e) => ({ atS: e.atS, words: `${clockWords(e.atS)} ${eventWords(e)}` })),
    }),
    [said, window],
  );
  // a file that says nothing yet, or a server that is away for a moment, is no fault while it is followed
  const waits = follows.length > 0 && !problem && !error;
  const failed = problem ?? error?.message ?? (waits ? null : (analysis.error?.message ?? null));
  // what cannot be read yet comes before what only wants a look
  const first = asked.find((x) => x.taken === null) ?? asked[0];
  // what is typed before it can be kept would be lost
  if (!keeper) {
    return error ? (
      <p role="alert" className="text-heat">
        {error.message}.
      </p>
    ) : (
      <p className="text-quiet">Opening the run.</p>
    );
  }
  const button = 'cursor-pointer hover:text-ink';
  return (
    <div
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void take([...e.dataTransfer.files]);
      }}
      onPaste={(e) => {
        const pasted = e.clipboardData.files.length
          ? [...e.clipboardData.files]
          : pastedLog(e.clipboardData.getData('text/plain'), e.target);
        if (pasted.length === 0) return;
        e.preventDefault();
        void take(pasted);
      }}
    >
      <input
        ref={picker}
        type="file"
        multiple
        accept=".csv,.tsv,.txt,.log,.wav,text/csv,text/plain,audio/wav"
        className="sr-only"
        aria-label="logs of this run"
        onChange={(e) => {
          void take([...(e.currentTarget.files ?? [])]);
          e.currentTarget.value = '';
        }}
      />
      <RunBar
        kept={start}
        keeper={keeper}
        run={run}
        sending={sending}
        giveUp={giveUp}
        pick={() => picker.current?.click()}
        looksIn={looksIn}
        lookIn={() => setLooksIn((x) => !x)}
        nextUse={nextUse}
        under={drawn && beside.length > 0 ? under : null}
        simulation={drawn ? under : null}
        removeLog={(log) => change({ logs: logs.filter((x) => x.id !== log) }, 'a log taken out')}
      />
      {(looksIn || follows.length > 0) && (
        <InboxPanel
          run={run}
          follow={(name) =>
            change({ follows: [...new Set([...(run.follows ?? []), name])] }, `followed ${name}`)
          }
          leave={(name) =>
            change(
              { follows: (run.follows ?? []).filter((f) => f !== name) },
              `${name} no longer followed`,
            )
          }
          take={takeFollowed}
        />
      )}
      {first && (
        <LogLayoutPanel
          key={first.sha256}
          asked={first}
          more={asked.length - 1}
          say={(layout) => say(first, layout)}
          leave={() => leave(first)}
        />
      )}
      {failed && (
        <p role="alert" className="text-heat py-1">
          {failed}.
        </p>
      )}
      {logs.length === 0 && follows.length === 0 && (
        <p className="text-[0.95rem] max-w-prose py-1">
          Load the machine until nothing moves for five minutes, then drop its logs here, of the
          load and of the level meter, add them with <Kbd>a</Kbd>, or follow one that grows with{' '}
          <Kbd>j</Kbd>.
        </p>
      )}
      {under.problem && <p className="text-heat text-small">{under.problem}</p>}
      {drawn && (
        <>
          <div
            className="h-[min(26rem,52vh)] mt-1"
            role="group"
            aria-label="power, temperature and level over time; the same in words below"
          >
            <Suspense fallback={<p className="text-quiet p-4">drawing</p>}>
              <RunChart
                series={drawn}
                marks={marks}
                under={under.lines}
                shown={shown}
                show={show}
                window={window}
                moveWindow={moveWindow}
                theme={theme}
                units={units}
              />
            </Suspense>
          </div>
          <p className="text-small text-quiet flex flex-wrap gap-x-4 no-print">
            <span>
              window <Kbd>←</Kbd> <Kbd>→</Kbd> wider, narrower <Kbd>+</Kbd> <Kbd>−</Kbd>
            </span>
            {isChosen && (
              <button type="button" className={button} onClick={release}>
                back to the window that was found
              </button>
            )}
            <span>
              {isWhole ? 'zoom to it' : 'the whole run'} <Kbd>z</Kbd>, wheel with Ctrl, drag
            </span>
          </p>
        </>
      )}
      <div className="grid lg:grid-cols-2 gap-x-6 gap-y-4 pt-2">
        <div>
          {said && said.log.rows > 0 && <RunSays analysis={said} run={run} />}
          {said && (
            <RunFindings
              machineId={machineId}
              id={id}
              revision={revision}
              run={run}
              analysis={said}
            />
          )}
          <Foretold machineId={machineId} kept={start} run={run} result={said?.foretold ?? null} />
          {(said?.log.logs?.length ?? 0) > 1 && (
            <LogPlaces run={run} places={said!.log.logs!} change={change} />
          )}
          {(said?.recordings.length ?? 0) > 0 && (
            <RecordingPanel run={run} recordings={said!.recordings} change={change} />
          )}
          <HeardPanel {...heardOf(said)} />
        </div>
        <RunSheet run={run} change={change} />
      </div>
    </div>
  );
}

/** What a recording tells: bands once its full scale is known, tones before too. */
function heardOf(said: RunAnalysis | null) {
  const recorded = said?.recordings.find((r) => !r.tone);
  return {
    bands: said?.sound?.thirdOctavesDb ?? [],
    tones: recorded?.tones ?? [],
    isRecorded: recorded !== undefined,
  };
}

/** Text that is a table, pasted beside the fields, as a log. */
function pastedLog(text: string, target: EventTarget): File[] {
  if (target instanceof HTMLElement && /^(INPUT|TEXTAREA)$/.test(target.tagName)) return [];
  if (text.split('\n').length < 3) return [];
  return [new File([text], 'pasted.csv', { type: 'text/csv' })];
}
