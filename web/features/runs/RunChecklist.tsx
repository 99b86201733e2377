import { useRef } from 'react';
import { benchSteps, lastStep, nextStep, withChecked } from '@zugluft/core/runs/benchChecklist';
import { useQuery } from '@tanstack/react-query';
import type { KeptRun, RunDocument } from '../../api/runs';
import { estimateWorker } from '../../documents/answer/workers/estimateClient';
import { useCommands } from '../../documents/commands';
import { useMachineFile } from '../../documents/record/MachineFile';
import { onWords, runName } from '../../documents/runName';
import { SavedWords } from '../../documents/SavedWords';
import { useDocument } from '../../documents/useDocument';
import { StepChecklist } from '../../kit/StepChecklist';
import { NumberInput } from './NumberInput';
import { capWords } from './runWords';
import { COMPUTED_HERE } from '../../documents/answer/computedHere';

/** A run at the bench: one step after the other in big type, by two keys; what is read is typed where it is read. */
export function RunChecklist({ kept, leave }: { kept: KeptRun; leave: () => void }) {
  const { live } = useMachineFile();
  const { view, keeper } = useDocument('run', kept.id, {
    revision: kept.revision,
    value: kept.run,
    at: new Date(kept.createdAt),
  });
  const run = view?.value ?? kept.run;
  const { prediction } = kept;
  const on = run.load?.on ?? 'both';
  const cap = prediction?.cap ?? 'full';
  const { request } = live;
  const { data: times } = useQuery({
    queryKey: ['runs', 'minutes', kept.id, request, on, cap],
    queryFn: () => estimateWorker().runMinutes(request!, on, cap),
    enabled: request !== null,
    ...COMPUTED_HERE,
  });
  const steps = benchSteps({
    load: onWords(on),
    setting: run.setting ?? 'as it stands',
    fans: prediction ? capWords(prediction.cap) : (run.fanMode ?? 'as they turn'),
    settleMin: times ? Math.max(1, Math.round(times.settleS / 60)) : null,
  });
  const next = nextStep(steps, run.checked);
  const last = lastStep(steps, run.checked);
  const change = (update: (run: RunDocument) => RunDocument, what: string) =>
    keeper?.change(update, what);
  const away = useRef<HTMLButtonElement>(null);
  const done = () => {
    // Enter on the way out goes out
    if (document.activeElement === away.current) return leave();
    if (!next) return;
    const at = new Date().toISOString();
    change((r) => withChecked(r, next.id, at), next.words);
  };
  const back = () => last && change((r) => withChecked(r, last.id, null), `not yet: ${last.words}`);
  // before Enter leads into the first field
  useCommands({ 'check-next': done, 'check-back': back }, true);
  return (
    <section aria-label={`at the bench: ${runName(run)}`} className="bench">
      <div className="flex flex-wrap items-baseline gap-x-4 mb-2">
        <h2 className="text-lg font-semibold grow">{runName(run)}</h2>
        <span role="status" className="text-small text-quiet">
          {view && <SavedWords view={view} />}
        </span>
        <button ref={away} type="button" className="btn btn-sm" onClick={leave}>
          Sheet
        </button>
      </div>
      <StepChecklist
        steps={steps}
        next={next}
        last={last}
        allDone="All done. Drop the logs in the step Runs."
        doneAt={(s) => run.checked?.[s.id]}
        mark={(s, at) => change((r) => withChecked(r, s.id, at), s.words)}
        done={done}
        back={back}
        ready={keeper !== null}
        name="check-now"
        beside={(s) => s.figure && <Written run={run} figure={s.figure} change={change} />}
      />
    </section>
  );
}

const METER = 'meter-1';

/** A figure that is written down at a step: it belongs to the run’s sheet. */
function Written({
  run,
  figure,
  change,
}: {
  run: RunDocument;
  figure: 'room' | 'background' | 'check-before' | 'check-after';
  change: (update: (run: RunDocument) => RunDocument, what: string) => void;
}) {
  if (figure === 'room') {
    return (
      <Figure
        label="room, °C"
        value={run.room?.temperatureC ?? null}
        low={-20}
        high={60}
        set={(x) =>
          change((r) => {
            const { temperatureC: _, ...rest } = r.room ?? {};
            return { ...r, room: x === null ? rest : { ...rest, temperatureC: x } };
          }, 'room')
        }
      />
    );
  }
  if (figure === 'background') {
    return (
      <Figure
        label="background, dB(A)"
        value={run.backgroundDbA ?? null}
        low={-20}
        high={120}
        set={(x) => change((r) => ({ ...r, backgroundDbA: x }), 'background')}
      />
    );
  }
  const key = figure === 'check-before' ? 'checkBeforeDb' : 'checkAfterDb';
  const id = run.microphone?.instrument ?? METER;
  const meter = run.instruments?.find((i) => i.id === id);
  return (
    <Figure
      label={figure === 'check-before' ? 'calibrator before, dB' : 'calibrator after, dB'}
      value={meter?.[key] ?? null}
      low={0}
      high={140}
      set={(x) =>
        change((r) => {
          const there = r.instruments ?? [];
          const own = there.find((i) => i.id === id) ?? {
            id,
            kind: 'sound-level-meter' as const,
          };
          return {
            ...r,
            microphone: { ...r.microphone, instrument: id },
            instruments: [...there.filter((i) => i.id !== id), { ...own, [key]: x }],
          };
        }, 'check of the meter')
      }
    />
  );
}

function Figure(props: {
  label: string;
  value: number | null;
  low: number;
  high: number;
  set: (value: number | null) => void;
}) {
  return (
    <span className="flex items-baseline gap-1">
      <NumberInput {...props} hint="write it here" />
      <span className="unit">{props.label.slice(props.label.lastIndexOf(' ') + 1)}</span>
    </span>
  );
}
