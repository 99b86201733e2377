import { useCommands } from '../../documents/commands';
import { openCase } from '@zugluft/core/case/openCase';
import { useMemo, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { LazyEnvelopeChart } from '../../documents/answer/LazyEnvelopeChart';
import {
  NoiseLadder,
  StoredLadder,
  READOUTS,
  READOUT_WORDS,
  type ReadoutName,
} from '../../documents/answer/NoiseLadder';
import { useOverlay } from '../../documents/answer/overlay';
import { splitsOf } from '../../documents/answer/splits';
import { ruledLimits } from '../../documents/answer/ruledLimits';
import { partsOf } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { Kbd } from '../../kit/Kbd';
import { useTheme } from '../../kit/theme';
import { Announcement } from './Announcement';
import { AssumedList } from './AssumedList';
import { DrawStatus } from './DrawStatus';
import { MissingList } from './MissingList';
import { NoteList } from './NoteList';
import { QuietFor } from './QuietFor';
import { RatioChoice } from './RatioChoice';
import { StandsOn } from './StandsOn';

/** The answer beside whatever is typed: the noise ladder and, small, the envelope. */
export function ReadoutPanel() {
  const {
    live,
    stored,
    provisional,
    draws,
    stale,
    complete,
    issues,
    draft,
    settingId,
    chooseSetting,
    machine,
    calibration,
    marks,
  } = useMachineFile();
  const [name, setName] = useState<ReadoutName>('together');
  const overlay = useOverlay();
  const { theme } = useTheme();
  // the estimate step shows the envelope in full
  const { pathname } = useLocation();
  const beside = !pathname.endsWith('/estimate');
  // what a count still needs stands at its fields
  const counting = pathname.endsWith('/count');
  const caps = live.estimate?.caps;
  const hasGpu = caps?.some((c) => c.gpuAlone) ?? true;
  const hasBoth = hasGpu && (caps?.some((c) => c.cpuAlone) ?? true);
  const shown = hasBoth ? name : 'together';
  useCommands({
    readout: () => setName((n) => READOUTS[(READOUTS.indexOf(n) + 1) % READOUTS.length]!),
  });
  const settings = partsOf(draft, 'settings');
  const setting = live.record?.settings?.find((s) => s.id === settingId);
  const splits = useMemo(() => splitsOf(live.request), [live.request]);
  const outlined = live.outlines?.caps;
  const ruled = useMemo(
    () => (live.request ? ruledLimits(openCase(live.request)) : null),
    [live.request],
  );
  const numbered = useMemo(() => outlined?.filter((c) => typeof c.cap === 'number'), [outlined]);
  return (
    <div>
      <Announcement caps={caps} readout={shown} />
      <div className="flex items-baseline justify-between gap-2">
        <h2 className="text-base font-semibold">
          Sustained {hasBoth ? READOUT_WORDS[shown] : 'watts'}
        </h2>
        {hasBoth && (
          <button
            type="button"
            className="text-small text-quiet cursor-pointer hover:text-ink"
            onClick={() => setName((n) => READOUTS[(READOUTS.indexOf(n) + 1) % READOUTS.length]!)}
          >
            {READOUT_WORDS[READOUTS[(READOUTS.indexOf(shown) + 1) % READOUTS.length]!]} <Kbd>t</Kbd>
          </button>
        )}
      </div>
      {settings.length > 0 && (
        <label className="flex items-center gap-1 text-small text-quiet">
          setting
          <select
            className="select select-xs bg-transparent border-transparent hover:border-rule w-40 pl-1 text-small text-ink"
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
      {calibration && <StandsOn {...calibration} machineId={machine.id} />}
      {!complete && (
        <div className="text-[0.9rem] my-1.5 border-l-2 border-heat pl-2" role="status">
          <span className="text-heat font-semibold">
            {caps ? 'Last good answer. ' : issues.length > 0 ? 'No answer yet. ' : ''}
          </span>
          {counting ? 'It appears with the fans and the fins.' : <MissingList />}
        </div>
      )}
      {live.error && <p className="text-heat my-1.5">The estimate failed: {live.error}</p>}
      {hasBoth && caps && shown === 'together' && <RatioChoice setting={setting} />}
      {caps && (
        <NoiseLadder
          caps={caps}
          readout={shown}
          stale={!complete}
          provisional={provisional}
          splits={splits}
          marks={marks}
          over={shown === 'together' ? overlay : null}
        />
      )}
      {!caps &&
        complete &&
        !live.error &&
        (stored?.length ? (
          <StoredLadder bands={stored} />
        ) : (
          <p className="text-quiet my-2">Computing.</p>
        ))}
      {caps && stale && complete && <p className="sr-only">computing</p>}
      {caps && complete && <DrawStatus draws={draws} />}
      {caps && complete && shown === 'together' && <QuietFor splits={splits} />}
      {live.estimate && <NoteList notes={live.estimate.notes} />}
      {beside && hasBoth && numbered && ruled && (
        <section aria-label="envelope" className="border-t border-rule mt-2 pt-2">
          <div className="flex justify-between text-small text-quiet">
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
              runs={marks}
              large={false}
              theme={theme}
            />
          </div>
        </section>
      )}
      {live.estimate && <AssumedList assumed={live.estimate.assumed} />}
      <p className="text-small text-quiet mt-2">
        Skin and junction figures are estimates, no safety certificate. Do not raise power limits or
        stop fans beyond the maker’s settings on their strength.
      </p>
    </div>
  );
}
