import { useCommands } from '../../documents/commands';
import { openCase } from '@zugluft/core/case/openCase';
import { useMemo, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { LazyEnvelopeChart } from '../../documents/answer/LazyEnvelopeChart';
import {
  NoiseLadder,
  READOUTS,
  READOUT_WORDS,
  type ReadoutName,
} from '../../documents/answer/NoiseLadder';
import { ruledLimits } from '../../documents/answer/ruledLimits';
import { partsOf, type Draft } from '../../documents/record/draft';
import { figureWords, unitAt } from '../../documents/record/figureWords';
import { issueWords } from '../../documents/record/issueWords';
import { useMachineFile } from '../../documents/record/MachineFile';
import { MANY, type Draws } from '../../documents/record/useDraws';
import { Kbd } from '../../kit/Kbd';
import { useTheme } from '../../kit/theme';

/** The answer beside whatever is typed: the noise ladder and, small, the envelope. */
export function ReadoutPanel() {
  const { live, draws, stale, complete, issues, draft, settingId, chooseSetting, machine } =
    useMachineFile();
  const [name, setName] = useState<ReadoutName>('together');
  const [showAssumed, setShowAssumed] = useState(false);
  const { theme } = useTheme();
  // the estimate step shows the envelope in full
  const beside = !useLocation().pathname.endsWith('/estimate');
  const caps = live.estimate?.caps;
  const hasGpu = caps?.some((c) => c.gpuAlone) ?? true;
  const hasBoth = hasGpu && (caps?.some((c) => c.cpuAlone) ?? true);
  const shown = hasBoth ? name : 'together';
  useCommands({
    readout: () => setName((n) => READOUTS[(READOUTS.indexOf(n) + 1) % READOUTS.length]!),
  });
  const settings = partsOf(draft, 'settings');
  const outlined = live.outlines?.caps;
  const ruled = useMemo(
    () => (live.request ? ruledLimits(openCase(live.request)) : null),
    [live.request],
  );
  const numbered = useMemo(() => outlined?.filter((c) => typeof c.cap === 'number'), [outlined]);
  return (
    <div aria-live="polite">
      <div className="flex items-baseline justify-between gap-2">
        <h2 className="text-base font-semibold">
          Sustained {hasBoth ? READOUT_WORDS[shown] : 'watts'}
        </h2>
        {hasBoth && (
          <button
            type="button"
            className="text-[0.85rem] text-quiet cursor-pointer hover:text-ink"
            onClick={() => setName((n) => READOUTS[(READOUTS.indexOf(n) + 1) % READOUTS.length]!)}
          >
            {READOUT_WORDS[READOUTS[(READOUTS.indexOf(shown) + 1) % READOUTS.length]!]} <Kbd>t</Kbd>
          </button>
        )}
      </div>
      {settings.length > 0 && (
        <label className="flex items-center gap-1 text-[0.85rem] text-quiet">
          setting
          <select
            className="select select-xs bg-transparent border-transparent hover:border-rule w-40 pl-1 text-[0.85rem] text-ink"
            value={settingId ?? ''}
            onChange={(e) => chooseSetting(e.currentTarget.value)}
          >
            {settings.map((s) => (
              <option key={s.id} value={s.id}>
                {String(s['preset'] ?? s.id)}
              </option>
            ))}
          </select>
        </label>
      )}
      {!complete && (
        <p className="text-[0.9rem] my-1.5 border-l-2 border-heat pl-2" role="status">
          <span className="text-heat font-semibold">
            {caps ? 'Last good answer. ' : 'No answer yet. '}
          </span>
          {whatIsMissing(draft, issues.length, issues[0])}
        </p>
      )}
      {live.error && <p className="text-heat my-1.5">The estimate failed: {live.error}</p>}
      {caps && <NoiseLadder caps={caps} readout={shown} stale={!complete} />}
      {!caps && complete && !live.error && <p className="text-quiet my-2">Computing.</p>}
      {caps && stale && complete && <p className="sr-only">computing</p>}
      {caps && complete && <DrawStatus draws={draws} />}
      {live.estimate && live.estimate.notes.length > 0 && (
        <ul
          aria-label="notes"
          className="text-[0.85rem] border-l-2 border-heat pl-2 my-1.5 space-y-0.5"
        >
          {live.estimate.notes.slice(0, MAX_NOTES).map((n) => (
            <li key={n.path + n.message}>
              <span className="text-heat">{n.path.split('.').pop()}</span>: {n.message}
            </li>
          ))}
        </ul>
      )}
      {beside && hasBoth && numbered && ruled && (
        <section aria-label="envelope" className="border-t border-rule mt-2 pt-2">
          <div className="flex justify-between text-[0.85rem] text-quiet">
            <span>Envelope, CPU across, GPU up</span>
            <Link to={`/machines/${machine.id}/estimate`} className="hover:text-ink">
              open <Kbd>e</Kbd>
            </Link>
          </div>
          <div className={`h-44 ${complete ? '' : 'opacity-60'}`}>
            <LazyEnvelopeChart
              caps={numbered}
              ruled={ruled}
              marked={null}
              large={false}
              theme={theme}
            />
          </div>
        </section>
      )}
      {live.estimate && (
        <section className="border-t border-rule mt-2 pt-2 text-[0.85rem]">
          <button
            type="button"
            aria-expanded={showAssumed}
            className="text-quiet cursor-pointer hover:text-ink underline underline-offset-2"
            onClick={() => setShowAssumed((x) => !x)}
          >
            {live.estimate.assumed.length} figures assumed
          </button>
          {showAssumed && (
            <ul className="mt-1 space-y-0.5">
              {live.estimate.assumed.map((a) => (
                <li key={a.path} className="flex justify-between gap-2">
                  <Link
                    to={`/method?find=${encodeURIComponent(a.path)}`}
                    className="text-quiet break-words hover:text-ink"
                  >
                    {figureWords(a.path)}
                  </Link>
                  <span className="figure whitespace-nowrap">
                    {short(a.value)}{' '}
                    <span className="unit">
                      {short(a.low)}–{short(a.high)} {unitAt(a.path)}
                    </span>
                  </span>
                </li>
              ))}
            </ul>
          )}
        </section>
      )}
      <p className="text-[0.8rem] text-quiet mt-2">
        Skin and junction figures are estimates, no safety certificate. Do not raise power limits or
        stop fans beyond the maker’s settings on their strength.
      </p>
    </div>
  );
}

/** How the bands stand: being made, made from so many draws, or not to be had. */
function DrawStatus({ draws }: { draws: Draws }) {
  const { progress, summary, error, cancel, make } = draws;
  useCommands({ band: () => (progress ? cancel() : make(MANY)) });
  return (
    <p
      className="text-[0.8rem] text-quiet flex justify-between gap-2 mt-1 min-h-[1.3rem]"
      data-testid="draw-status"
      aria-live="off"
    >
      {error ? (
        <span className="text-heat">No band: {error}</span>
      ) : progress ? (
        <>
          <span>
            band:{' '}
            <span className="figure">
              {progress.made} of {progress.of}
            </span>{' '}
            draws
          </span>
          <button type="button" className="cursor-pointer hover:text-ink" onClick={cancel}>
            cancel <Kbd>b</Kbd>
          </button>
        </>
      ) : (
        <>
          <span>
            {summary ? (
              <>
                5–95 % of <span className="figure">{summary.draws}</span> draws
              </>
            ) : (
              'no band yet'
            )}
          </span>
          <button
            type="button"
            className="cursor-pointer hover:text-ink"
            onClick={() => make(MANY)}
            title={`make ${MANY} draws`}
          >
            finer <Kbd>b</Kbd>
          </button>
        </>
      )}
    </p>
  );
}

/** Further notes would push the ladder out of sight. */
const MAX_NOTES = 3;

function short(x: number): string {
  return String(Number(x.toPrecision(3)));
}

/** “Depth, fins-left: needs a number, and 3 more.” */
function whatIsMissing(
  draft: Draft,
  count: number,
  first: { path: string; message: string } | undefined,
): string {
  if (!first) return '';
  const words = issueWords(draft, first);
  const rest = count > 1 ? `, and ${count - 1} more` : '';
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}${rest}.`;
}
