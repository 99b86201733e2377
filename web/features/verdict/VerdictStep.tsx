import { toast } from 'sonner';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { CountedOpinion } from '@zugluft/core/compare/countedOpinion';
import type { PointsOpinion } from '@zugluft/core/compare/pointsOpinion';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { PeersAnswer } from '@zugluft/core/library/peersAnswer';
import type { Guess } from '@zugluft/core/opinion/guesses';
import { plural } from '@zugluft/core/record/plural';
import { readerRows } from '@zugluft/core/report/readerRows';
import { CAUTIONS, type CautionId } from '@zugluft/core/service/cautions';
import { beforePublishing } from '@zugluft/core/verdict/beforePublishing';
import type { Verdict } from '@zugluft/core/verdict/verdict';
import type { Band3 } from '@zugluft/core/verdict/bandWords';
import { readDocument } from '../../api/documents';
import { CapSelect } from '../../documents/answer/CapSelect';
import { useCommands } from '../../documents/commands';
import { atCap, middleCap } from '../../documents/answer/caps';
import type { RunMark } from '../../documents/answer/runMarks';
import { OnceStatus } from '../../documents/answer/OnceStatus';
import { useOnce } from '../../documents/answer/useOnce';
import { computeVerdict } from '../../documents/answer/workers/verdictClient';
import { useDocument } from '../../documents/useDocument';
import { useGuesses } from '../../documents/opinion/useGuesses';
import { useMachineFile } from '../../documents/record/MachineFile';
import { useLabSettings } from '../../documents/useLaboratory';
import { DoneWithWatts } from './DoneWithWatts';
import { Opinions, type Opinion } from './Opinions';
import { OwnWords } from './OwnWords';
import { PeersPanel } from './PeersPanel';
import { Publish } from './Publish';
import { usePeers } from './usePeers';

const PART_OF = { watts: 'text-heat', level: 'text-air' } as const;
/** A run belongs to a cap whose level is within this of its own, dB. */
const NEAR_DB = 1.5;
/** Guesses that stand among the opinions, the newest. */
const MOST_FELT = 4;

/** What the figures of this machine come to, in sentences that say no more than their bands, and the report made of it. */
export function VerdictStep() {
  const { live, machine, made, settingId, ratio, caps, marks, kept, calibration } =
    useMachineFile();
  const { settings } = useLabSettings();
  const [level, setLevel] = useState<Cap | null>(null);
  const { request } = live;
  const levels = useMemo(() => caps.filter((c) => typeof c === 'number'), [caps]);
  const cap = level ?? middleCap(caps);
  const { data: log, isFetched } = useQuery({
    queryKey: ['route', 'log', machine.id],
    queryFn: async () => (await readDocument('log', machine.id)).value,
    enabled: made,
    retry: false,
  });
  const opened = log && (log.steps.length > 0 || log.screws.length > 0) ? log : null;
  const ready = isFetched || !made;
  const options = useMemo(
    () =>
      ready
        ? {
            caps: levels,
            cap,
            log: opened,
            rubric: settings.rubric,
            threshold: settings.noticeable,
          }
        : null,
    [ready, levels, cap, opened, settings.rubric, settings.noticeable],
  );
  const article = useDocument('article', machine.id);
  const { error: articleError, again: readArticle } = article;
  useEffect(() => {
    if (made && articleError) readArticle();
    // once when the machine is there
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [made]);
  const wrote = useRef(false);
  const stepBack = (by: 'undo' | 'redo') => () => {
    // what was written here; else it is the record's
    const step = (wrote.current ? article.keeper?.[by]() : null) ?? kept.keeper[by]();
    if (step) toast(`${by === 'undo' ? 'Undone' : 'Done again'}: ${step.label}`, { id: 'undo' });
  };
  useCommands({ undo: stepBack('undo'), redo: stepBack('redo') }, true);
  const { data: guesses } = useGuesses(machine.id, made);
  const { data: peers } = usePeers(machine.id, cap, made, caps);
  const job = useMemo(() => (request && options ? { request, options } : null), [request, options]);
  const once = useOnce(job, computeVerdict);
  const { result: verdict, progress, problem, cancelled } = once;
  if (!request) {
    return (
      <section aria-label="verdict">
        <h2 className="text-lg font-semibold">No verdict yet</h2>
        <p className="text-quiet max-w-prose mt-1">
          The record lacks what a watt could be computed from.{' '}
          <Link className="underline underline-offset-2" to={`/machines/${machine.id}/count`}>
            Count what there is
          </Link>{' '}
          for a first answer in a minute.
        </p>
      </section>
    );
  }
  const open = beforePublishing(request, {
    runs: marks.length,
    hasLog: opened !== null,
    calibrationLapsed: calibration?.lapsed ?? false,
  });
  const opinions = verdict ? opinionsOf(verdict, marks, peers, guesses?.guesses ?? []) : [];
  return (
    <section aria-label="verdict">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 mb-2 text-small text-quiet">
        <CapSelect caps={levels} value={cap} choose={setLevel} label="judged at" />
        <OnceStatus once={once} what="figures" />
      </div>
      {!verdict && !problem && !cancelled && <p className="text-quiet">Judging.</p>}
      {verdict && (
        <div className={progress ? 'opacity-60' : ''}>
          <p className="text-2xl font-semibold leading-snug max-w-[46rem]" data-testid="headline">
            {verdict.headlineParts.map(({ text, of }, i) => (
              <span key={i} className={of ? PART_OF[of] : undefined}>
                {text}
              </span>
            ))}
          </p>
          <p className="text-quiet mt-1 max-w-prose">{verdict.reasons.join(' ')}</p>
          <div className="grid xl:grid-cols-[2fr_3fr] gap-x-8 gap-y-5 mt-5">
            <section aria-label="opinions">
              <h2 className="font-semibold mb-2">Opinions, {atCap(cap)}</h2>
              <Opinions
                opinions={opinions}
                most={Math.max(1, ...opinions.map((o) => o.band?.p95 ?? o.watts ?? 0)) * 1.05}
              />
            </section>
            <PeersPanel machineId={machine.id} cap={cap} made={made} caps={caps} />
          </div>
          <DoneWithWatts machineId={machine.id} marks={marks} />
          <h2 className="font-semibold mt-6 mb-1">For the reader</h2>
          <table className="table [&_td]:text-[0.95rem] [&_th]:text-[0.95rem] [&_td]:py-1.5 [&_th]:py-1.5">
            <tbody>
              {readerRows(verdict).map(([what, words], i) => (
                <tr key={i}>
                  <th scope="row" className="text-quiet font-normal align-top w-56">
                    {what}
                  </th>
                  <td>{words}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <Cautions
            ids={[
              ...new Set([
                ...verdict.advice.flatMap((a) => a.cautions),
                ...verdict.care.flatMap((c) => (c.caution ? [c.caution] : [])),
              ]),
            ]}
          />
        </div>
      )}
      {made && (
        <OwnWords
          view={article.view}
          keeper={article.keeper}
          problem={articleError?.message ?? null}
          again={readArticle}
          wrote={() => (wrote.current = true)}
        />
      )}
      <Publish
        machineId={machine.id}
        cap={cap}
        setting={settingId}
        ratio={ratio}
        open={open}
        made={made}
        saved={
          made &&
          kept.state.kind === 'saved' &&
          (article.view === null || article.view.state.kind === 'saved')
        }
      />
    </section>
  );
}

function Cautions({ ids }: { ids: readonly CautionId[] }) {
  if (ids.length === 0) return null;
  return (
    <details className="mt-3">
      <summary className="text-heat cursor-pointer">Cautions that belong to this advice</summary>
      <ul className="list-disc pl-5 text-[0.95rem] max-w-prose">
        {ids.map((id) => (
          <li key={id}>{CAUTIONS[id]}</li>
        ))}
      </ul>
    </details>
  );
}

/** What counting says, or why it says nothing. */
const countedRow = (counted: CountedOpinion): Opinion =>
  counted.refused
    ? {
        name: 'counted',
        note: `needs ${counted.needs} other machines with runs to learn from; there are ${counted.machines}`,
        band: null,
      }
    : {
        name: 'counted',
        note: `fins, fans and pipes of ${counted.machines} machines; leave-one-out ±${Math.round(100 * counted.leaveOneOutShare)} %`,
        band: counted.band,
      };

/** What somebody felt before the answer was uncovered. */
const feltRow = ({ by, at, watts }: Guess, p50: number): Opinion => ({
  name: 'felt',
  note: `${by}, ${at.slice(0, 10)}, ${percentBeside(watts, p50)}`,
  band: null,
  watts,
});

function percentBeside(watts: number, p50: number): string {
  const off = Math.round(100 * (watts / p50 - 1));
  return off === 0
    ? 'on the median'
    : `${Math.abs(off)} % ${off > 0 ? 'above' : 'below'} the median`;
}

/** What the laboratory's own rule says; it knows no level, and its error only from runs. */
const pointsRow = ({ watts, machines, offShare }: PointsOpinion): Opinion => ({
  name: 'points',
  note: `this house’s watts for each fan, pipe and fin, whatever the level${
    offShare === null
      ? ''
      : `; off by ${Math.round(100 * offShare)} % on ${plural(machines, 'machine')} with runs`
  }`,
  band: null,
  watts,
});

/** From the mean to the ends of its 5–95 % band. */
const errorOf = (m: RunMark): number => 1.645 * Math.hypot(m.cpuPlusMinus, m.gpuPlusMinus);

function opinionsOf(
  verdict: Verdict,
  marks: readonly RunMark[],
  counting: Pick<PeersAnswer, 'counted' | 'points'> | undefined,
  guesses: readonly Guess[],
): Opinion[] {
  const main = verdict.at.find((a) => a.cap === verdict.cap)!;
  const both = marks.filter((m) => m.readout === 'together' && m.levelDbA !== null);
  const near = both.filter(
    (m) => typeof verdict.cap === 'number' && Math.abs(m.levelDbA! - verdict.cap) <= NEAR_DB,
  );
  const read: Band3 | null = near.length
    ? {
        p05: Math.min(...near.map((m) => m.cpuW + m.gpuW - errorOf(m))),
        p50: near.reduce((s, m) => s + m.cpuW + m.gpuW, 0) / near.length,
        p95: Math.max(...near.map((m) => m.cpuW + m.gpuW + errorOf(m))),
      }
    : null;
  return [
    ...guesses
      .filter((g) => g.cap === verdict.cap)
      .slice(-MOST_FELT)
      .map((g) => feltRow(g, main.watts.p50)),
    ...(counting?.points ? [pointsRow(counting.points)] : []),
    ...(counting?.counted ? [countedRow(counting.counted)] : []),
    {
      name: 'computed',
      note: verdict.isCalibrated ? 'before any run' : 'from the record',
      band: verdict.beforeRuns ?? main.watts,
    },
    ...(verdict.isCalibrated
      ? [{ name: 'fitted', note: 'narrowed by its runs', band: main.watts, isMeasured: true }]
      : []),
    {
      name: 'measured',
      note: read
        ? `${near.length} of ${both.length} runs lie at this level`
        : both.length
          ? 'no run lies at this level'
          : 'no run has a steady state yet',
      band: read,
      isMeasured: true,
    },
  ];
}
