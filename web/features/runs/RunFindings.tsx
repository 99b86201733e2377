import { useState } from 'react';
import { heldBySetting } from '@zugluft/core/runs/heldBySetting';
import { useQuery } from '@tanstack/react-query';
import { takeFirmware } from '@zugluft/core/runs/takeFirmware';
import { readWhyOutside, runKeys, type RunAnalysis, type RunDocument } from '../../api/runs';
import { figureWords, unitAt } from '../../documents/record/figureWords';
import { useMachineFile } from '../../documents/record/MachineFile';
import { readingWords, sig } from './runWords';

const MIN_OFF = 0.02;

/** What a run shows beyond its watts: the firmware’s own figures, offered to the setting, and what would bring it back into its band. */
export function RunFindings({
  machineId,
  id,
  revision,
  run,
  analysis,
}: {
  machineId: string;
  id: string;
  revision: number;
  run: RunDocument;
  analysis: RunAnalysis;
}) {
  const { against } = analysis;
  // what the setting held below the band says nothing of the cooling
  const outside =
    against &&
    !against.inBand &&
    !(heldBySetting(analysis.events) && against.measuredW < against.p50);
  return (
    <>
      {outside && <WhyOutside machineId={machineId} id={id} revision={revision} />}
      {analysis.firmware.length > 0 && <Firmware run={run} figures={analysis.firmware} />}
    </>
  );
}

function Firmware({ run, figures }: { run: RunDocument; figures: RunAnalysis['firmware'] }) {
  const { draft, change } = useMachineFile();
  const settings = (draft['settings'] as { id: string }[] | undefined) ?? [];
  const setting = run.setting ?? settings[0]?.id ?? 'as-run';
  const stands = (path: string): number | null => {
    const own = settings.find((s) => s.id === setting) as Record<string, unknown> | undefined;
    const value = path
      .split('.')
      .reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], own);
    const plain = typeof value === 'object' && value ? (value as { value?: unknown }).value : value;
    return typeof plain === 'number' ? plain : null;
  };
  const open = figures.filter(({ path, value }) => {
    const now = stands(path);
    return now === null || Math.abs(value - now) > MIN_OFF * Math.abs(now) + 0.05;
  });
  return (
    <section aria-label="the firmware" className="mt-3">
      <h3 className="text-small font-semibold">The firmware, as this run shows it</h3>
      <ul className="text-[0.9rem]">
        {figures.map(({ path, value, plusMinus, how }) => {
          const full = `settings.${setting}.${path}`;
          const now = stands(path);
          return (
            <li key={path} className="border-b border-rule py-0.5" title={how}>
              {figureWords(full).replace(`, ${setting}`, '')}{' '}
              <span className="figure">{value.toFixed(1)}</span> ±&nbsp;{plusMinus.toFixed(1)}{' '}
              <span className="unit">{unitAt(full)}</span>
              <span className="text-quiet">
                {now === null ? ', blank in the record' : `, ${now} in the record`}
              </span>
            </li>
          );
        })}
      </ul>
      {open.length > 0 ? (
        <button
          type="button"
          className="underline cursor-pointer text-[0.9rem]"
          onClick={() => change((d) => takeFirmware(d, setting, open), 'firmware of a run')}
        >
          Take {open.length === 1 ? 'it' : `these ${open.length}`} into setting {setting}
        </button>
      ) : (
        <p className="text-small text-quiet">The setting {setting} says the same.</p>
      )}
    </section>
  );
}

function WhyOutside({
  machineId,
  id,
  revision,
}: {
  machineId: string;
  id: string;
  revision: number;
}) {
  const { kept } = useMachineFile();
  const [asked, setAsked] = useState(false);
  const { data, error, isFetching } = useQuery({
    // the record that it is explained by may change while the run stays
    queryKey: [...runKeys.why(id, revision), kept.revision],
    queryFn: ({ signal }) => readWhyOutside(machineId, id, signal),
    enabled: asked,
    retry: false,
    staleTime: Infinity,
  });
  return (
    <section aria-label="why it lies outside" className="mt-2 text-[0.9rem]">
      {!data && (
        <button
          type="button"
          className="underline cursor-pointer"
          disabled={isFetching}
          onClick={() => setAsked(true)}
        >
          {isFetching ? 'Fitting the machine to this run alone' : 'What would bring it back?'}
        </button>
      )}
      {error && (
        <p role="alert" className="text-heat">
          {error.message}.
        </p>
      )}
      {data && (
        <>
          <p>
            It would lie inside
            {data.moved.length > 0
              ? ' if, most of all:'
              : ' with no figure far from what is usual.'}
          </p>
          <ul data-testid="why-outside">
            {data.moved.map((m) => (
              <li key={m.name} className="border-b border-rule py-0.5">
                {figureWords(m.name)} were <span className="figure">{sig(m.value)}</span>
                <span className="unit"> {unitAt(m.name)}</span> instead of{' '}
                <span className="figure">{sig(m.prior)}</span>
                <span className="text-quiet">
                  {Math.abs(m.z) > 2 ? ', far from what is usual' : ''}
                </span>
              </li>
            ))}
          </ul>
          {data.suspicions.length > 0 && (
            <p className="text-heat mt-1">Or: {data.suspicions.join('; ')}.</p>
          )}
          {data.apart.length > 0 && (
            <p className="mt-1">
              Even then {data.apart.map((a) => readingWords(a.kind, a.part)).join(', ')} would stay
              apart.
            </p>
          )}
          <p className="text-small text-quiet mt-1">
            One run cannot tell these apart: the calibration weighs it against the others.
          </p>
        </>
      )}
    </section>
  );
}
