import { correctForBackground } from '@zugluft/core/sound/background';
import type { KeptRun } from '../../api/runs';
import { useCommands } from '../../documents/commands';
import { keeperOf } from '../../documents/keepers';
import { runName } from '../../documents/runName';
import { FieldRow } from '../../kit/FieldRow';
import { Kbd } from '../../kit/Kbd';
import { useKeptText } from '../../kit/useKeptText';
import { useState } from 'react';
import { NumberInput } from './NumberInput';
import { useMicrophone } from './useMicrophone';

/** A tone is looked at once it was heard for so long, s. */
const TONE_S = 3;

/** A level meter by the microphone of this computer, in figures that can be read across the bench. */
export function LiveMeter({ run }: { run: KeptRun | null }) {
  const { state, level, disobeyed, problem, start, stop, again } = useMicrophone();
  const [[scale = ''], setScale] = useKeptText('meter-full-scale');
  const [said, setSaid] = useState<string | null>(null);
  const fullScaleDb = scale === '' ? null : Number(scale);
  const shown = (x: number | undefined) =>
    x === undefined || fullScaleDb === null || !Number.isFinite(x)
      ? '–'
      : (x + fullScaleDb).toFixed(1);
  const background = run?.run.backgroundDbA ?? null;
  const heard = level && level.heardS > 0 ? level : null;
  const own =
    heard && fullScaleDb !== null && background !== null
      ? correctForBackground(heard.slowDbA + fullScaleDb, background)
      : null;
  const calibrate = (toneDb: number) => {
    if (!heard || heard.heardS < TONE_S) {
      setSaid(`put the calibrator on and let it sound for ${TONE_S} s`);
      return;
    }
    setScale([(toneDb - heard.slowDbA).toFixed(1)]);
    setSaid(null);
  };
  const keepBackground = async () => {
    if (!run || !heard || fullScaleDb === null) return;
    const dbA = Number((heard.leqDbA + fullScaleDb).toFixed(1));
    const keeper = await keeperOf('run', run.id);
    keeper.change((now) => ({ ...now, backgroundDbA: dbA }), 'background');
    await keeper.flush();
    setSaid(`${dbA} dB(A) is the background of ${runName(run.run)}`);
  };
  const toggle = () => (state === 'off' ? start() : stop());
  useCommands({ 'meter-listen': toggle, 'meter-again': again });
  return (
    <section aria-label="live meter" className="max-w-3xl">
      <div className="flex flex-wrap gap-x-4 items-baseline">
        <h2 className="font-semibold">Level at the microphone of this computer</h2>
        <button type="button" className="btn btn-sm" onClick={toggle}>
          {state === 'off' ? 'Listen' : state === 'asked' ? 'Asking' : 'Stop'} <Kbd>4</Kbd>
        </button>
        {state === 'on' && (
          <button type="button" className="btn btn-sm btn-ghost" onClick={again}>
            mean anew <Kbd>5</Kbd>
          </button>
        )}
      </div>
      {problem && (
        <p role="alert" className="text-heat">
          {problem}.
        </p>
      )}
      {disobeyed.length > 0 && (
        <p role="alert" className="text-heat">
          This browser keeps {disobeyed.join(' and ')} on: what it shows is not the level. Use a
          meter, or another browser.
        </p>
      )}
      <p className="my-3" aria-live="off">
        <span className="figure text-[clamp(4rem,16vw,9rem)] leading-none" data-testid="live-slow">
          {shown(heard?.slowDbA)}
        </span>{' '}
        <span className="unit text-xl">dB(A) slow</span>
      </p>
      <dl className="grid grid-cols-[8rem_1fr] max-w-md text-[1.05rem]">
        <dt className="text-quiet">fast</dt>
        <dd className="figure" data-testid="live-fast">
          {shown(heard?.fastDbA)}
        </dd>
        <dt className="text-quiet">energy mean</dt>
        <dd data-testid="live-mean">
          <span className="figure">{shown(heard?.leqDbA)}</span>
          {heard && (
            <span className="text-quiet">
              {' '}
              over <span className="figure">{Math.round(heard.heardS)}</span> s
            </span>
          )}
        </dd>
        {own && (
          <>
            <dt className="text-quiet">machine alone</dt>
            <dd>
              {own.upperBound && 'at most '}
              <span className="figure">{own.levelDbA.toFixed(1)}</span>{' '}
              <span className="text-quiet">background {background} taken off</span>
            </dd>
          </>
        )}
      </dl>
      {heard && heard.clipped > 0 && (
        <p className="text-heat">
          The microphone is overdriven: turn its gain down and calibrate again.
        </p>
      )}
      <div className="mt-4 max-w-xl">
        <FieldRow name="full scale" unit="dB">
          <NumberInput
            label="level of a sine of full scale"
            value={fullScaleDb}
            low={-200}
            high={300}
            set={(x) => setScale(x === null ? [] : [String(x)])}
          />
        </FieldRow>
        <p className="text-[0.9rem] py-1 flex flex-wrap gap-x-4">
          {[94, 114].map((tone) => (
            <button
              key={tone}
              type="button"
              className="underline cursor-pointer"
              disabled={state !== 'on'}
              onClick={() => calibrate(tone)}
            >
              a calibrator of {tone} dB sounds now
            </button>
          ))}
          {run && (
            <button
              type="button"
              className="underline cursor-pointer disabled:opacity-60"
              disabled={!heard || fullScaleDb === null}
              onClick={() => void keepBackground()}
            >
              the mean is the background of {runName(run.run)}
            </button>
          )}
        </p>
        {fullScaleDb === null && (
          <p className="text-small text-quiet">
            Until a calibrator, or a typed level of full scale, says what the microphone hears,
            there is no level.
          </p>
        )}
        {said && <p role="status">{said}.</p>}
      </div>
    </section>
  );
}
