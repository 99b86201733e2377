import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { openCase } from '@zugluft/core/case/openCase';
import { toast } from 'sonner';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { Change } from '@zugluft/core/levers/lever';
import { BURST, BURST_S, type ProposedSetting } from '@zugluft/core/levers/proposeSettings';
import type { Wanted } from '@zugluft/core/levers/splitWatts';
import { readFigure } from '@zugluft/core/record/readFigure';
import { readRatio } from '@zugluft/core/record/readRatio';
import { CAUTIONS } from '@zugluft/core/service/cautions';
import { middleCap } from '../../documents/answer/caps';
import { planWorker } from '../../documents/answer/workers/planClient';
import { useCommands } from '../../documents/commands';
import { useMachineFile } from '../../documents/record/MachineFile';
import { Kbd } from '../../kit/Kbd';
import { requestAfter } from './BeforeAfter';
import { COMPUTED_HERE } from '../../documents/answer/computedHere';

const MAX_W = 1000;
const WAYS = ['ratio', 'worth', 'least'] as const;
type Way = (typeof WAYS)[number];
const WAY_WORDS: Record<Way, string> = {
  ratio: 'CPU to GPU as',
  worth: 'a watt of CPU to one of GPU is worth',
  least: 'at least so many CPU watts',
};
const WRONG: Record<Way, string> = {
  ratio: 'two figures above 0, such as 1 : 1.6',
  worth: 'two figures above 0, such as 1 : 2',
  least: `watts above 0 and up to ${MAX_W}`,
};

/** What a workload wants, as it is typed; null where it says nothing. */
export function readWanted(way: Way, text: string): Wanted | null {
  if (way === 'least') {
    const figure = readFigure(text, 'W');
    const atLeastCpuW = typeof figure === 'object' ? figure.value : NaN;
    return atLeastCpuW > 0 && atLeastCpuW <= MAX_W ? { atLeastCpuW } : null;
  }
  const read = readRatio(text);
  return read && (way === 'ratio' ? { ratio: read } : read);
}

/** Three settings to set by hand, each with its level and how long more is held, as a card that can be copied. */
export function SettingsCard({
  together,
  begin,
}: {
  together: readonly Change[] | null;
  /** False: not yet. */
  begin: boolean;
}) {
  const { live, caps } = useMachineFile();
  const [typed, setTyped] = useState('');
  const [way, setWay] = useState<Way>('ratio');
  const { request } = live;
  const levels = caps.filter((c) => typeof c === 'number');
  const three: [Cap, Cap, Cap] = [levels[0] ?? 'off', middleCap(caps), 'full'];
  const own = useMemo(() => (request ? { ...openCase(request).ratio } : EVEN), [request]);
  const usual: Wanted =
    way === 'ratio' ? { ratio: own } : way === 'worth' ? EVEN : { atLeastCpuW: 1 };
  const blank = typed.trim() === '';
  const wanted = blank ? usual : readWanted(way, typed);
  // half typed it is neither an answer nor a loss: the last one stands
  const last = useRef<Wanted>(usual);
  useEffect(() => {
    if (wanted) last.current = wanted;
  });
  const asked = wanted ?? last.current;
  const { data, error, isFetching, isPlaceholderData } = useQuery({
    queryKey: ['levers', 'settings', request, asked, together, three],
    queryFn: () =>
      planWorker().proposeSettings(
        together ? requestAfter(request!, together) : request!,
        asked,
        three,
      ),
    enabled: begin && request !== null,
    placeholderData: (before) => before,
    ...COMPUTED_HERE,
    staleTime: Infinity,
  });
  const copy = async () => {
    if (!data?.length) return;
    try {
      await navigator.clipboard.writeText(cardText(data));
      toast('The settings are copied');
    } catch {
      toast('The browser does not let the page copy: mark the table and copy it by hand');
    }
  };
  useCommands({ 'copy-settings': () => void copy() });
  if (data && data.length === 0) return null;
  return (
    <section aria-label="limits to set">
      <h2 className="font-semibold flex items-baseline gap-3">
        Limits to set
        {data && (
          <button
            type="button"
            className="text-small font-normal text-quiet cursor-pointer hover:text-ink"
            onClick={() => void copy()}
          >
            copy <Kbd>c</Kbd>
          </button>
        )}
      </h2>
      <p className="text-small text-quiet flex flex-wrap items-center gap-1.5">
        <select
          className="select select-xs w-auto pr-8"
          aria-label="what the workload wants"
          value={way}
          onChange={(e) => {
            setWay(e.currentTarget.value as Way);
            setTyped('');
          }}
        >
          {WAYS.map((w) => (
            <option key={w} value={w}>
              {WAY_WORDS[w]}
            </option>
          ))}
        </select>
        <input
          className={`input input-xs figure w-24 ${wanted ? '' : 'border-heat text-heat'}`}
          aria-label={WAY_WORDS[way]}
          aria-invalid={wanted ? undefined : true}
          aria-describedby={wanted ? undefined : 'wanted-wrong'}
          placeholder={way === 'ratio' ? ratioText(own) : way === 'worth' ? '1 : 1' : 'W'}
          maxLength={30}
          value={typed}
          onChange={(e) => setTyped(e.currentTarget.value)}
        />
        {!wanted && (
          <span id="wanted-wrong" className="text-heat">
            {WRONG[way]}
          </span>
        )}
      </p>
      {error && (
        <p role="alert" className="text-heat">
          The settings could not be computed: {error.message}.
        </p>
      )}
      {!data ? (
        !error && <p className="text-quiet">Computing.</p>
      ) : (
        <>
          <table className={`w-full text-[0.9rem] mt-1 ${isFetching ? 'opacity-60' : ''}`}>
            <thead>
              <tr className="text-small text-quiet border-b border-ink">
                <th className="font-normal text-left">setting</th>
                <th className="font-normal text-right">CPU W</th>
                <th className="font-normal text-right">GPU W</th>
                <th className="font-normal text-right">dB(A)</th>
                <th className="font-normal text-right">burst</th>
              </tr>
            </thead>
            <tbody>
              {data.map((s) => (
                <tr key={s.name} className="border-b border-rule">
                  <th scope="row" className="font-normal text-left py-1">
                    {s.name}
                  </th>
                  <td className="figure text-right">
                    {s.cpuW}
                    {s.beyondMaker.includes('cpu') && '*'}
                  </td>
                  <td className="figure text-right">
                    {s.gpuW}
                    {s.beyondMaker.includes('gpu') && '*'}
                  </td>
                  <td className="figure text-right">{levelText(s)}</td>
                  <td className="figure text-right whitespace-nowrap">{burstText(s)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="text-small text-quiet mt-1">
            {together && !isPlaceholderData && 'With the chosen levers. '}Burst: {BURST} times the
            watts, from idle, until a junction, the skin or the adapter holds it.
          </p>
          {data.some((s) => s.beyondMaker.length > 0) && (
            <p className="text-small border-l-2 border-heat pl-2 mt-1">
              * above what the maker has set. {CAUTIONS.limits}
            </p>
          )}
        </>
      )}
    </section>
  );
}

const EVEN = { cpu: 1, gpu: 1 };

const ratioText = ({ cpu, gpu }: { cpu: number; gpu: number }) =>
  cpu <= gpu ? `1 : ${Number((gpu / cpu).toFixed(2))}` : `${Number((cpu / gpu).toFixed(2))} : 1`;

const levelText = ({ cap, levelDbA }: ProposedSetting) =>
  levelDbA === null ? (cap === 'off' ? 'off' : '–') : levelDbA.toFixed(0);

const burstText = ({ burst }: ProposedSetting) =>
  `${Math.round(burst.cpuW + burst.gpuW)} W ${burst.seconds === null ? `> ${BURST_S / 60} min` : `${Math.round(burst.seconds)} s`}`;

/** The card as plain text, a line a setting. */
export function cardText(settings: readonly ProposedSetting[]): string {
  return settings
    .map(
      (s) =>
        `${s.name}: CPU ${s.cpuW} W, GPU ${s.gpuW} W, ${levelText(s)} dB(A), bursts of ${burstText(s)}${s.beyondMaker.length > 0 ? ' (above the maker’s limits)' : ''}`,
    )
    .join('\n');
}
