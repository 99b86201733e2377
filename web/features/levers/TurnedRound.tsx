import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { openCase, type CaseRequest } from '@zugluft/core/case/openCase';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { DESIGN_FIGURES, type DesignFigure } from '@zugluft/core/levers/designSearch';
import type { Change } from '@zugluft/core/levers/lever';
import { readFigure } from '@zugluft/core/record/readFigure';
import { SHOWN_DRAWS, SHOWN_SEED } from '@zugluft/core/uncertainty/wattsBand';
import { atCap } from '../../documents/answer/caps';
import { levelWords } from '../../documents/answer/levelWords';
import { shownW } from '@zugluft/core/case/answerWords';
import { planWorker } from '../../documents/answer/workers/planClient';
import { quietWorker } from '../../documents/answer/workers/quietClient';
import { useMachineFile } from '../../documents/record/MachineFile';
import { requestAfter } from './BeforeAfter';
import { DesignCurve } from './DesignCurve';
import { COMPUTED_HERE } from '../../documents/answer/computedHere';

const MAX_W = 2000;

/** The other way round: how quiet given watts can be, today and with the chosen, and the least machine that still would. */
export function TurnedRound({
  cap,
  together,
  begin,
}: {
  cap: Cap;
  together: readonly Change[] | null;
  /** False: nothing is computed yet. */
  begin: boolean;
}) {
  const { live } = useMachineFile();
  const { request } = live;
  const [typed, setTyped] = useState({ cpu: '', gpu: '' });
  const [designs, setDesigns] = useState(false);
  const own = live.estimate?.caps.find((c) => c.cap === cap);
  const usual = useMemo(() => {
    if (!own || !request) return null;
    const { model, ratio } = openCase(request);
    const whole = 0.9 * shownW(own.together);
    const cpu = model.hasCpu ? (model.hasGpu ? ratio.cpu : 1) : 0;
    const gpu = model.hasGpu ? (model.hasCpu ? ratio.gpu : 1) : 0;
    return { cpu: Math.round(whole * cpu), gpu: Math.round(whole * gpu) };
  }, [own, request]);
  if (!request || !usual) return null;
  const read = (key: 'cpu' | 'gpu') => {
    const text = typed[key].trim();
    if (text === '') return usual[key];
    const figure = readFigure(text, 'W');
    const watts = typeof figure === 'object' ? figure.value : NaN;
    return watts >= 0 && watts <= MAX_W ? watts : NaN;
  };
  const need = { cpuW: read('cpu'), gpuW: read('gpu') };
  const fits = need.cpuW + need.gpuW > 0;
  const field = (key: 'cpu' | 'gpu') => {
    const wrong = Number.isNaN(read(key));
    return (
      <label className="inline-flex items-baseline gap-1">
        <input
          className={`figure input input-xs w-16 text-right ${wrong ? 'border-heat text-heat' : ''}`}
          aria-label={`${key.toUpperCase()} watts needed`}
          aria-invalid={wrong || undefined}
          inputMode="decimal"
          autoComplete="off"
          maxLength={12}
          placeholder={String(usual[key])}
          value={typed[key]}
          onChange={(e) => {
            const text = e.currentTarget.value;
            setTyped((t) => ({ ...t, [key]: text }));
          }}
        />
        <span className="unit">W {key.toUpperCase()}</span>
      </label>
    );
  };
  return (
    <section aria-label="turned round" className="mt-5 border-t border-rule pt-3">
      <h2 className="font-semibold">Turned round</h2>
      <p className="flex flex-wrap gap-x-3 gap-y-1 items-baseline">
        {usual.cpu > 0 && field('cpu')}
        {usual.gpu > 0 && field('gpu')}
        {fits ? (
          <span data-testid="quietest">
            need <Quietest request={request} need={need} begin={begin} /> today
            {together && (
              <>
                , <Quietest request={request} change={together} need={need} begin={begin} /> with
                the chosen
              </>
            )}
            .
          </span>
        ) : (
          <span className="text-heat">watts from 0 to {MAX_W}, one of them above 0</span>
        )}
      </p>
      <p className="mt-2 no-print">
        <button
          type="button"
          aria-expanded={designs}
          className="text-small text-left underline cursor-pointer"
          onClick={() => setDesigns(!designs)}
        >
          {designs
            ? 'close'
            : `the smallest fans, fewest pipes, shallowest stacks, thinnest machine that still would ${atCap(cap)}`}
        </button>
      </p>
      {designs && fits && (
        <div className="grid sm:grid-cols-2 gap-x-8 gap-y-3 mt-2">
          {DESIGN_FIGURES.map((figure) => (
            <Design key={figure} figure={figure} request={request} cap={cap} need={need} />
          ))}
        </div>
      )}
    </section>
  );
}

interface Need {
  cpuW: number;
  gpuW: number;
}

function Quietest({
  request,
  change = null,
  need,
  begin,
}: {
  request: CaseRequest;
  change?: readonly Change[] | null;
  need: Need;
  begin: boolean;
}) {
  const { data, error } = useQuery({
    queryKey: ['levers', 'quietest', request, change, need.cpuW, need.gpuW],
    queryFn: () =>
      quietWorker().leastLevel(change ? requestAfter(request, change) : request, need, {
        draws: SHOWN_DRAWS,
        seed: SHOWN_SEED,
      }),
    enabled: begin,
    placeholderData: (before) => before,
    ...COMPUTED_HERE,
    staleTime: Infinity,
  });
  if (error) return <span className="text-heat">no answer: {error.message}</span>;
  if (!data) return <span className="text-quiet">…</span>;
  if (data.reached < 0.5) return <strong>more than any level gives</strong>;
  return (
    <>
      <strong className="figure">{levelWords(data.p50)}</strong> ({levelWords(data.p05)} to{' '}
      {levelWords(data.p95)})
    </>
  );
}

const TITLES: Record<DesignFigure, string> = {
  fans: 'Fans across',
  pipes: 'Heat pipes',
  stacks: 'Fin depth',
  machine: 'Thickness',
};

function Design({
  figure,
  request,
  cap,
  need,
}: {
  figure: DesignFigure;
  request: CaseRequest;
  cap: Cap;
  need: Need;
}) {
  const { data, error, isPending } = useQuery({
    queryKey: ['levers', 'design', figure, request, cap, need.cpuW, need.gpuW],
    queryFn: () => planWorker().designSearch(request, figure, cap, need),
    placeholderData: (before) => before,
    ...COMPUTED_HERE,
    staleTime: Infinity,
  });
  return (
    <figure aria-label={TITLES[figure]} data-testid={`design-${figure}`}>
      <figcaption className="text-[0.9rem]">
        {TITLES[figure]}:{' '}
        {error ? (
          <span className="text-heat">no answer: {error.message}</span>
        ) : isPending ? (
          <span className="text-quiet">computing</span>
        ) : !data ? (
          <span className="text-quiet">not recorded</span>
        ) : (
          <>
            <span className="figure">{data.today.size}</span> {data.unit} today,{' '}
            {data.least ? (
              <>
                <strong className="figure">{data.least.size}</strong> {data.unit} would do
              </>
            ) : (
              'none that was looked at would do'
            )}
          </>
        )}
      </figcaption>
      {data && data.curve.length > 1 && (
        <DesignCurve answer={data} neededW={need.cpuW + need.gpuW} />
      )}
    </figure>
  );
}
