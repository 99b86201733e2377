import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { LEAST_TEACHERS, type Foretelling } from '@zugluft/core/library/learnedAnswer';
import { plural } from '@zugluft/core/record/plural';
import { learn, learnedKeys, readLearned, type LearnedAnswer } from '../../api/learned';
import { useLabDefaults } from '../../documents/useLaboratory';
import { PageFrame } from '../../kit/PageFrame';
import { LearnedFactors } from './LearnedFactors';
import { LearnedMachines } from './LearnedMachines';
import { LearnedWear } from './LearnedWear';
import { ReadingHead } from '../../kit/ReadingHead';

const percent = (share: number) => `${Math.round(100 * share)} %`;

/** What measured machines teach about the next one: how far computed watts are off, and defaults that are offered. */
export function LearnedPage() {
  const client = useQueryClient();
  const { data, error } = useQuery({
    queryKey: learnedKeys.last,
    queryFn: ({ signal }) => readLearned(signal),
    retry: false,
  });
  const [progress, setProgress] = useState<{ done: number; of: number } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const abort = useRef<AbortController | null>(null);
  const begin = async () => {
    const own = new AbortController();
    abort.current = own;
    setProblem(null);
    setProgress({ done: 0, of: 0 });
    try {
      const learned = await learn(own.signal, (done, of) => setProgress({ done, of }));
      client.setQueryData(learnedKeys.last, learned);
    } catch (cause) {
      if (!own.signal.aborted) setProblem((cause as Error).message);
    } finally {
      setProgress(null);
    }
  };
  const { keeper, view } = useLabDefaults();
  return (
    <PageFrame crumbs={['What it teaches']}>
      <main className="p-4 max-w-[78rem]">
        <h1 className="text-lg font-semibold">What the library teaches</h1>
        <p className="text-quiet max-w-prose mb-2">
          Machines that stand on runs tell how parts are built in here. Each of them is foretold
          from the others, as if it had never been measured; what that gains is offered as this
          laboratory’s defaults, and narrows the next machine before its first run.
        </p>
        <p className="flex flex-wrap items-center gap-3 mb-3">
          <button
            type="button"
            className="btn btn-sm btn-primary"
            disabled={progress !== null}
            onClick={() => void begin()}
          >
            {data ? 'Learn anew' : 'Learn from all machines with runs'}
          </button>
          {progress && (
            <>
              <span role="status" className="text-quiet">
                {progress.of === 0
                  ? 'Reading runs.'
                  : progress.done < progress.of
                    ? `${progress.done} of ${progress.of} machines read`
                    : 'Foretelling each from the others.'}
              </span>
              <button type="button" className="btn btn-xs" onClick={() => abort.current?.abort()}>
                Cancel
              </button>
            </>
          )}
        </p>
        {(problem ?? error) && (
          <p role="alert" className="text-heat">
            Nothing was learned: {problem ?? error!.message}.
          </p>
        )}
        {data === null && !problem && (
          <p className="text-quiet max-w-prose">
            Nothing was learned since the program began. It takes at least {LEAST_TEACHERS} machines
            whose runs are in use: fit them in the step Runs of their files.
          </p>
        )}
        {data && (
          <>
            <BeforeAfter learned={data} />
            <LearnedFactors learned={data} keeper={keeper} own={view?.value ?? null} />
            <Kinds learned={data} />
            <LearnedMachines learned={data} />
          </>
        )}
        <LearnedWear keeper={keeper} own={view?.value ?? null} />
        <p className="text-small text-quiet mt-4">
          <Link to="/runs" className="underline underline-offset-2">
            Every run against its record
          </Link>
        </p>
      </main>
    </PageFrame>
  );
}

function BeforeAfter({ learned }: { learned: LearnedAnswer }) {
  const { before, after, machines, madeAt } = learned;
  const rows: [string, (x: Foretelling) => string][] = [
    ['typically off', (x) => percent(x.offShare)],
    ['half the 5–95 % band, in the middle', (x) => `±${percent(x.halfBand)}`],
    ['inside the band', (x) => `${x.inside} of ${machines.length}`],
  ];
  return (
    <section aria-label="foretold from the others" className="mb-5">
      <h2 className="font-semibold">
        {plural(machines.length, 'machine')}, each foretold from the others
      </h2>
      <p className="text-small text-quiet">
        Learned on {new Date(madeAt).toLocaleDateString('en-CA')}.
      </p>
      <table className="text-[0.95rem] mt-1">
        <ReadingHead titles={['', 'as built in', 'by what the others taught']} />
        <tbody>
          {rows.map(([words, of]) => (
            <tr key={words} className="border-t border-rule">
              <th scope="row" className="font-normal text-left pr-6 py-1">
                {words}
              </th>
              <td className="figure pr-6">{of(before)}</td>
              <td className="figure">{of(after)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Kinds({ learned: { kinds } }: { learned: LearnedAnswer }) {
  const signed = (share: number) =>
    `${share >= 0 ? '+' : '−'}${percent(Math.abs(Math.expm1(share)))}`;
  return (
    <section aria-label="bias by kind" className="mb-5">
      <h2 className="font-semibold">Measured against computed, by kind of cooling</h2>
      <table className="text-[0.95rem] mt-1">
        <ReadingHead
          titles={['kind', 'machines', 'measured is', 'between machines', 'runs inside']}
        />
        <tbody>
          {kinds.map((k) => (
            <tr key={k.kind} className="border-t border-rule">
              <th scope="row" className="font-normal text-left pr-6 py-1">
                {k.kind}
              </th>
              <td className="figure pr-6">{k.machines}</td>
              <td className="figure pr-6">
                {signed(k.biasShare)}
                {k.biasDeviation !== null && ` ± ${percent(1.645 * k.biasDeviation)}`}
              </td>
              <td className="figure pr-6">
                {k.spreadShare === null ? '–' : percent(k.spreadShare)}
              </td>
              <td className="figure">
                {k.inside} of {k.runs}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
