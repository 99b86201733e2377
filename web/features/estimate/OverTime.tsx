import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { FirmwareEvent, Simulation } from '@zugluft/core/transient/simulateFirmware';
import { toShown } from '@zugluft/core/record/units';
import { useUnits } from '../../kit/units';
import { useTheme } from '../../kit/theme';
import { TimeTable } from './TimeTable';
import { capWord, wattsText } from '@zugluft/core/case/answerWords';
import { useMachineFile } from '../../documents/record/MachineFile';
import { CapSelect } from '../../documents/answer/CapSelect';
import { estimateWorker } from '../../documents/answer/workers/estimateClient';
import { latestOnly } from '../../documents/answer/workers/latestOnly';

const TimeChart = lazy(() => import('../../documents/answer/TimeChart'));
const MINUTES = [10, 30, 60];
const LOADS = { both: 'both dies', cpu: 'CPU alone', gpu: 'GPU alone' } as const;
type Load = keyof typeof LOADS;

/** When something happened, as minutes and seconds. */
function clock(seconds: number): string {
  const s = Math.round(seconds);
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
}

function partWord(part: string): string {
  return part === 'cpu' || part === 'gpu' ? part.toUpperCase() : part;
}

function eventWords(e: FirmwareEvent): string {
  const part = partWord(e.part);
  switch (e.kind) {
    case 'short-limit-ends':
      return `short-term limit of ${part} ends`;
    case 'later-limit':
      return `later limit of ${part} cuts in`;
    case 'junction':
      return `${part} junction at its limit, its watts are cut`;
    case 'skin':
      return 'skin at its limit, both dies are cut';
    case 'adapter':
      return 'adapter at its rating, both dies are cut';
    case 'fans':
      return 'fans at the most they may turn';
  }
}

/** A load from idle as the firmware of the chosen setting handles it: watts, junctions and noise over time. */
export function OverTime({ request }: { request: CaseRequest }) {
  const { record } = request;
  const { caps, addCap } = useMachineFile();
  const { theme } = useTheme();
  const { units } = useUnits();
  const degrees = (c: number) => toShown(c, '°C', units).toFixed(0);
  const [cap, setCap] = useState<Cap>('full');
  const [minutes, setMinutes] = useState(30);
  const [load, setLoad] = useState<Load>('both');
  const [run, setRun] = useState<Simulation | null>(null);
  /** Hottest skin once these watts have lasted for hours. */
  const [steadySkinC, setSteadySkinC] = useState<number | null>(null);
  const [error, setError] = useState<string | null>(null);
  const submit = useRef(latestOnly());
  const roles = new Set(record.dies?.map((d) => d.role));
  useEffect(() => {
    let open = true;
    submit.current(async () => {
      try {
        const found = await estimateWorker().simulateFirmware(request, {
          cap,
          durationS: minutes * 60,
          ...(load === 'cpu' ? { gpuLoadW: 0 } : {}),
          ...(load === 'gpu' ? { cpuLoadW: 0 } : {}),
        });
        if (!open) return;
        const { cpuW, gpuW, levelDbA } = found.sustained;
        const { skin } = await estimateWorker().readPoint(request, levelDbA ?? 'off', cpuW, gpuW);
        if (!open) return;
        setRun(found);
        setSteadySkinC(Math.max(...skin.map((x) => x.temperatureC)));
        setError(null);
      } catch (e) {
        if (open) setError(e instanceof Error ? e.message : String(e));
      }
    });
    return () => {
      open = false;
    };
  }, [request, cap, minutes, load]);
  const field = 'select select-xs bg-transparent border-rule w-auto pr-9 text-small';
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[minmax(0,1fr)_17rem] gap-x-6">
      <div>
        <div className="flex flex-wrap gap-x-4 gap-y-1 text-small text-quiet items-center">
          <label>
            load{' '}
            <select
              className={field}
              value={load}
              onChange={(e) => setLoad(e.currentTarget.value as Load)}
            >
              {(Object.keys(LOADS) as Load[])
                .filter((x) => x === 'both' || roles.size > 1)
                .map((x) => (
                  <option key={x} value={x}>
                    {roles.size > 1 ? LOADS[x] : 'the die'}
                  </option>
                ))}
            </select>
          </label>
          <label>
            fans{' '}
            <CapSelect
              label="fans"
              caps={caps}
              value={cap}
              choose={(c) => {
                addCap(c);
                setCap(c);
              }}
              name={(x) =>
                x === 'full' ? 'as the firmware likes' : x === 'off' ? 'off' : `up to ${x} dB(A)`
              }
            />
          </label>
          <label>
            for{' '}
            <select
              className={field}
              value={minutes}
              onChange={(e) => setMinutes(Number(e.currentTarget.value))}
            >
              {MINUTES.map((m) => (
                <option key={m} value={m}>
                  {m} min
                </option>
              ))}
            </select>
          </label>
        </div>
        <div
          className="h-[min(38rem,68vh)]"
          role="img"
          aria-label="watts, temperatures and fan speeds over time; the same as figures in the table below"
        >
          {run && (
            <Suspense fallback={<p className="text-quiet p-4">drawing</p>}>
              <TimeChart run={run} theme={theme} units={units} />
            </Suspense>
          )}
        </div>
        {run && <TimeTable run={run} />}
        <p className="text-small text-quiet">
          From idle, samples every half second. How this firmware steers its fans is assumed where
          the setting does not say.
        </p>
      </div>
      <aside aria-label="over time" className="pt-3 xl:pt-0">
        {error && (
          <p role="alert" className="text-secondary">
            No run: {error}.
          </p>
        )}
        {run && !error && (
          <>
            <h2 className="font-semibold">Sustained in the end</h2>
            <p className="figure text-2xl my-2" data-testid="sustained-watts">
              {roles.has('cpu') && (
                <>
                  {wattsText(run.sustained.cpuW)} <span className="unit">W CPU</span>{' '}
                </>
              )}
              {roles.has('gpu') && (
                <>
                  {wattsText(run.sustained.gpuW)} <span className="unit">W GPU</span>
                </>
              )}
            </p>
            <p className="text-[0.9rem]">
              {run.sustained.levelDbA === null ? (
                'fans off'
              ) : (
                <>
                  at <span className="figure">{run.sustained.levelDbA.toFixed(1)}</span>{' '}
                  <span className="unit">dB(A)</span>
                  {cap !== 'full' && cap !== 'off' && `, cap ${capWord(cap)}`}
                </>
              )}
            </p>
            <h3 className="text-small font-semibold mt-4 mb-0.5">What happened</h3>
            {run.events.length === 0 && (
              <p className="text-quiet text-[0.9rem]">
                Nothing was cut: the load gets all it asks.
              </p>
            )}
            <ol className="text-[0.9rem]">
              {[...run.events]
                .sort((a, b) => a.atS - b.atS)
                .map((e) => (
                  <li
                    key={`${e.kind} ${e.part}`}
                    className="border-b border-rule py-1 grid grid-cols-[3rem_1fr]"
                  >
                    <span className="figure text-quiet">{clock(e.atS)}</span>
                    <span>{eventWords(e)}</span>
                  </li>
                ))}
            </ol>
            <dl className="mt-4 text-small grid grid-cols-[1fr_auto] gap-x-3">
              {run.junctionC.map((j) => (
                <div key={j.id} className="contents">
                  <dt className="text-quiet">{partWord(j.id)} junction at the end</dt>
                  <dd className="figure text-right">
                    {degrees(j.temperatureC[run.steps - 1]!)}{' '}
                    <span className="unit">{units.temperature}</span>
                  </dd>
                </div>
              ))}
              <dt className="text-quiet">hottest skin</dt>
              <dd className="figure text-right">
                {degrees(run.skinC[run.steps - 1]!)}{' '}
                <span className="unit">{units.temperature}</span>
              </dd>
              {steadySkinC !== null && (
                <>
                  <dt className="text-quiet">once it lasts for hours</dt>
                  <dd className="figure text-right" data-testid="steady-skin">
                    {degrees(steadySkinC)} <span className="unit">{units.temperature}</span>
                  </dd>
                </>
              )}
            </dl>
            {steadySkinC !== null && steadySkinC > run.skin.limitC + 0.5 && (
              <p className="text-small mt-2" data-testid="skin-left-out">
                The skin limit of {degrees(run.skin.limitC)} {units.temperature} is left out here:{' '}
                {run.skin.held
                  ? 'this run ends before the skin is warm.'
                  : 'the setting does not say that the firmware holds the skin. At every cap it counts, so that less is sustained there.'}
              </p>
            )}
          </>
        )}
      </aside>
    </div>
  );
}
