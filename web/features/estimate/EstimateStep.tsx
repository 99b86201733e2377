import { useCommands } from '../../documents/commands';
import { openCase } from '@zugluft/core/case/openCase';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Explanation } from '@zugluft/core/case/explain';
import type { PointReadout } from '@zugluft/core/envelope/pointReadout';
import { LazyEnvelopeChart } from '../../documents/answer/LazyEnvelopeChart';
import { nearestPlace, placeAlong, type Point } from '../../documents/answer/envelopeLines';
import { ruledLimits } from '../../documents/answer/ruledLimits';
import { useMachineFile } from '../../documents/record/MachineFile';
import { middleCap } from '../../documents/answer/caps';
import { Kbd } from '../../kit/Kbd';
import { toShown } from '@zugluft/core/record/units';
import { useUnits } from '../../kit/units';
import { useTheme } from '../../kit/theme';
import { bindingWords, capWord, wattsText } from '@zugluft/core/case/answerWords';
import { estimateWorker } from '../../documents/answer/workers/estimateClient';
import { latestOnly } from '../../documents/answer/workers/latestOnly';
import { EnvelopeTable } from './EnvelopeTable';
import { KelvinChain } from './KelvinChain';
import { LimitsAhead } from './LimitsAhead';
import { OneDie } from './OneDie';
import { OverTime } from './OverTime';

const STEP = 0.02;
const VIEWS = [
  ['caps', 'at every cap'],
  ['time', 'over time'],
] as const;

/** The estimate at length: the envelope read off point by point, or the same machine over half an hour. */
export function EstimateStep() {
  const [over, setOver] = useState<'caps' | 'time'>('caps');
  const { live } = useMachineFile();
  const swap = () => setOver((x) => (x === 'caps' ? 'time' : 'caps'));
  useCommands({ 'over-time': swap });
  return (
    <>
      {live.record && (
        <p className="flex gap-4 text-small text-quiet pb-1.5 no-print">
          {VIEWS.map(([name, words]) => (
            <button
              key={name}
              type="button"
              aria-pressed={over === name}
              className={`cursor-pointer hover:text-ink ${over === name ? 'text-ink font-semibold' : ''}`}
              onClick={() => setOver(name)}
            >
              {words}
            </button>
          ))}
          <Kbd>w</Kbd>
        </p>
      )}
      {over === 'time' && live.request ? <OverTime request={live.request} /> : <AtEveryCap />}
    </>
  );
}

/** The envelope in full, read off point by point with the pointer or the arrow keys. */
function AtEveryCap() {
  const { live, complete, caps: labCaps, marks } = useMachineFile();
  const { theme } = useTheme();
  const all = live.outlines?.caps;
  const caps = useMemo(
    // a cap beyond what the fans do has the same line as off or full
    () =>
      (all ?? []).filter((c) => (typeof c.cap === 'string' || !c.note) && c.envelope.length > 1),
    [all],
  );
  const [place, setPlace] = useState<{ capIndex: number | null; share: number }>({
    capIndex: null,
    share: 0.6,
  });
  const usual = Math.max(
    0,
    caps.findIndex((c) => c.cap === middleCap(labCaps)),
  );
  const capIndex = Math.min(place.capIndex ?? usual, caps.length - 1);
  const cap = caps[capIndex];
  const marked = useMemo(() => (cap ? placeAlong(cap, place.share) : null), [cap, place.share]);
  const ruled = useMemo(
    () => (live.request ? ruledLimits(openCase(live.request)) : null),
    [live.request],
  );
  const [found, setFound] = useState<{ readout: PointReadout; why: Explanation } | null>(null);
  const [view, setView] = useState<'why' | 'all'>('why');
  const [die, setDie] = useState(0);
  const submit = useRef(latestOnly());
  const level = cap?.cap;
  const cpu = marked?.point.cpu;
  const gpu = marked?.point.gpu;
  useEffect(() => {
    const request = live.request;
    if (!request || level === undefined || cpu === undefined || gpu === undefined) return;
    let open = true;
    submit.current(async () => {
      const worker = estimateWorker();
      const at = { cpuW: cpu, gpuW: gpu };
      const why = await worker.explain(request, level, at);
      const readout = await worker.readPoint(request, level, cpu, gpu);
      if (open) setFound({ readout, why });
    });
    return () => {
      open = false;
    };
  }, [live.request, level, cpu, gpu]);
  const along = (by: number) =>
    setPlace((p) => ({ ...p, share: Math.min(1, Math.max(0, p.share + by)) }));
  const louder = (by: number) =>
    setPlace((p) => ({ ...p, capIndex: Math.min(caps.length - 1, Math.max(0, capIndex + by)) }));
  const arrows: Record<string, () => void> = {
    ArrowLeft: () => along(-STEP),
    ArrowRight: () => along(STEP),
    ArrowUp: () => louder(1),
    ArrowDown: () => louder(-1),
  };
  useCommands({
    along: (key) => arrows[key ?? '']?.(),
    'next-die': () => setDie((x) => x + 1),
    readings: () => setView((x) => (x === 'why' ? 'all' : 'why')),
  });
  if (!all || !ruled) {
    return (
      <p className="text-quiet py-6">
        {complete
          ? 'Computing.'
          : 'No estimate yet. The cooling step says which figures are missing; the answer appears as soon as they stand.'}
      </p>
    );
  }
  if (!caps.length || !cap || !marked) return <OneDie />;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[minmax(0,1fr)_17rem] gap-x-6">
      <div>
        <p className="text-small text-quiet">
          Each line, a median of the draws, as loud as its number, dB(A), or fans off and at full
          speed · solid: GPU junction holds · dashed: CPU junction holds · dotted: a pipe or chamber
          runs dry · long dashes: skin or exhaust air
          {marks.length > 0 && ' · ◇ measured in a run, with its error'}
        </p>
        <div className={`h-[min(40rem,72vh)] ${complete ? '' : 'opacity-60'}`}>
          <LazyEnvelopeChart
            caps={caps}
            ruled={ruled}
            marked={marked.point}
            runs={marks}
            large
            theme={theme}
            onPoint={(p: Point) => setPlace(nearestPlace(caps, p))}
          />
        </div>
        <p className="sr-only" aria-live="polite" data-testid="marked-words">
          {`${capWord(cap.cap)}${typeof cap.cap === 'number' ? ' dB(A)' : ''}: ${wattsText(marked.point.cpu)} W CPU and ${wattsText(marked.point.gpu)} W GPU${marked.binding ? `, held by ${bindingWords(marked.binding)}` : ''}`}
        </p>
        <EnvelopeTable caps={caps} />
        <p className="flex flex-wrap gap-x-6 text-[0.9rem] text-quiet no-print">
          <span>
            step along a line <Kbd>←</Kbd> <Kbd>→</Kbd>
          </span>
          <span>
            quieter, louder <Kbd>↓</Kbd> <Kbd>↑</Kbd>
          </span>
        </p>
      </div>
      <aside aria-label="at the marked point" className="pt-3 xl:pt-0">
        <div className="flex justify-between items-baseline">
          <h2 className="font-semibold">At the marked point</h2>
          <span className="figure">
            {capWord(cap.cap)} {typeof cap.cap === 'number' && <span className="unit">dB(A)</span>}
          </span>
        </div>
        <p className="figure text-2xl my-2" data-testid="marked-watts">
          {wattsText(marked.point.cpu)} <span className="unit">W CPU</span>{' '}
          {wattsText(marked.point.gpu)} <span className="unit">W GPU</span>
        </p>
        {marked.binding && (
          <p className="text-[0.9rem]">
            Held by <strong>{bindingWords(marked.binding)}</strong>
          </p>
        )}
        <div className="flex justify-between text-small text-quiet mt-2 mb-1 no-print">
          <button
            type="button"
            className="cursor-pointer hover:text-ink"
            onClick={() => setView(view === 'why' ? 'all' : 'why')}
          >
            {view === 'why' ? 'all readings' : 'where the kelvins go'} <Kbd>r</Kbd>
          </button>
          {view === 'why' && (found?.why.chains.length ?? 0) > 1 && (
            <button
              type="button"
              className="cursor-pointer hover:text-ink"
              onClick={() => setDie(die + 1)}
            >
              next die <Kbd>d</Kbd>
            </button>
          )}
        </div>
        {found && view === 'all' && <PointTable readout={found.readout} />}
        {found && view === 'why' && (
          <>
            <h3 className="text-small font-semibold mb-0.5">Where the kelvins go</h3>
            <KelvinChain chain={found.why.chains[die % found.why.chains.length]!} />
            <h3 className="text-small font-semibold mt-3 mb-0.5">
              What binds, and what would be next
            </h3>
            <LimitsAhead why={found.why} />
            <FanLine readout={found.readout} />
          </>
        )}
      </aside>
    </div>
  );
}

/** Speed and air of each fan, in a line each. */
function FanLine({ readout }: { readout: PointReadout }) {
  return (
    <dl className="mt-3 text-small grid grid-cols-[1fr_auto_auto] gap-x-3">
      {readout.fans.map((f) => (
        <div key={f.id} className="contents">
          <dt className="text-quiet truncate">{f.id}</dt>
          <dd className="figure text-right">
            {f.rpm.toFixed(0)} <span className="unit">rpm</span>
          </dd>
          <dd className="figure text-right">
            {f.flowLps.toFixed(2)} <span className="unit">L/s</span>
          </dd>
        </div>
      ))}
    </dl>
  );
}

function PointTable({ readout }: { readout: PointReadout }) {
  const { units } = useUnits();
  const celsius = (t: number) => toShown(t, '°C', units).toFixed(0);
  const rows: [string, string, string, string][] = [
    ...readout.junctions.map((j): [string, string, string, string] => [
      `${j.id.toUpperCase()} junction`,
      celsius(j.temperatureC),
      units.temperature,
      `of ${celsius(j.limitC)}`,
    ]),
    ...readout.skin.map((s): [string, string, string, string] => [
      `Skin over ${s.id}`,
      celsius(s.temperatureC),
      units.temperature,
      `of ${celsius(s.limitC)}`,
    ]),
    ...readout.exhaust.map((x): [string, string, string, string] => [
      `Air out of ${x.id}`,
      celsius(x.temperatureC),
      units.temperature,
      `of ${celsius(x.limitC)}`,
    ]),
    ['Air drawn in', celsius(readout.intakeC), units.temperature, ''],
    ...readout.pipes.map((p): [string, string, string, string] => [
      `Load of ${p.id}`,
      (100 * p.shareOfLimit).toFixed(0),
      '%',
      `of ${p.kind}`,
    ]),
    ...readout.fans.map((f): [string, string, string, string] => [
      f.id,
      f.rpm.toFixed(0),
      'rpm',
      `${f.flowLps.toFixed(2)} L/s`,
    ]),
  ];
  return (
    <table className="w-full mt-3 text-[0.9rem]">
      <tbody>
        {rows.map(([name, value, unit, more]) => (
          <tr key={name} className="border-b border-rule">
            <th scope="row" className="font-normal text-left py-1">
              {name}
            </th>
            <td className="figure text-right whitespace-nowrap">
              {value} <span className="unit">{unit}</span>
            </td>
            <td className="figure text-right text-quiet whitespace-nowrap pl-2 text-small">
              {more}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
