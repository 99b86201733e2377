import type { ReactNode } from 'react';
import { STEP_KIND_FACTS } from '@zugluft/core/service/stepKinds';
import { GOALS } from '@zugluft/core/service/goals';
import { editStep, removeStep } from '@zugluft/core/service/logEdits';
import { STEP_KINDS, POSTURES } from '@zugluft/core/service/openUpLog';
import type { OpenUpLog } from '../../api/openUp';
import { AttachmentStrip } from '../../documents/photos/AttachmentStrip';
import { ToggleChips } from '../../kit/ToggleChips';
import { idWords, NumberCell, SelectCell, TextCell } from './cells';
import { NeedsEditor } from './NeedsEditor';
import type { ChangeLog } from './OpenUpLog';
import { STEP_STATE_WORDS } from './StepList';

type Step = OpenUpLog['steps'][number];

const list = (text: string | undefined, most: number): string[] =>
  (text ?? '')
    .split(',')
    .map((x) => x.trim().slice(0, most))
    .filter(Boolean)
    .slice(0, 20);

/** Everything of one step that can be said at the desk. */
export function StepDetails({
  log,
  step,
  change,
  close,
}: {
  log: OpenUpLog;
  step: Step;
  change: ChangeLog;
  close: () => void;
}) {
  const edit = (to: Partial<Step>) => change((l) => editStep(l, step.id, to));
  return (
    <div className="mt-3 space-y-1 text-[0.95rem]" data-testid="step-details">
      <Row label="Name">
        <TextCell
          label="name of the step"
          value={step.name}
          required
          max={120}
          set={(name) => name && edit({ name })}
        />
      </Row>
      <Row label="It was">
        <SelectCell
          label="what became of the step"
          value={step.state}
          options={STEP_STATE_WORDS}
          set={(state) => state && edit({ state: state as Step['state'] })}
        />
      </Row>
      <Row label="About">
        <SelectCell
          label="what is done in the step"
          value={step.act}
          options={Object.fromEntries(STEP_KINDS.map((a) => [a, actWords(a)]))}
          empty="not said"
          set={(act) => edit({ act: act as Step['act'] })}
        />
      </Row>
      <Row label="Lies">
        <SelectCell
          label="posture"
          value={step.posture}
          options={idWords(POSTURES)}
          empty="not said"
          set={(posture) => edit({ posture: posture as Step['posture'] })}
        />
        <SelectCell
          label="layer of the step"
          value={step.layer}
          options={Object.fromEntries(log.layers.map((l) => [l.id, l.name]))}
          empty="no layer"
          set={(layer) => edit({ layer })}
        />
      </Row>
      <Row label="Needs">
        <NeedsEditor log={log} step={step} set={(needs) => edit({ needs })} />
      </Row>
      <Row label="Reaches">
        <ToggleChips
          label="Reaches"
          options={GOALS.map((g) => ({ id: g.id, words: g.name }))}
          chosen={step.reaches}
          toggle={(id, on) =>
            edit({
              reaches: on ? [...step.reaches, id] : step.reaches.filter((x) => x !== id),
            })
          }
        />
      </Row>
      <Row label="Took">
        <NumberCell
          label="time in minutes"
          value={step.seconds === undefined ? undefined : Math.round(step.seconds / 6) / 10}
          min={0}
          max={1440}
          unit="min"
          set={(min) => edit({ seconds: min === undefined ? undefined : Math.round(min * 60) })}
        />
        {step.seconds === undefined && step.expectedSeconds !== undefined && (
          <span className="text-quiet text-small">
            {Math.round(step.expectedSeconds / 60)} min on the sibling
          </span>
        )}
      </Row>
      <Row label="Tools">
        <TextCell
          label="tools, with commas between"
          value={step.tools.join(', ')}
          hint="screwdriver, plastic lever"
          max={400}
          set={(t) => edit({ tools: list(t, 60) })}
        />
      </Row>
      <Row label="Uses up">
        <TextCell
          label="consumables, with commas between"
          value={step.consumables.join(', ')}
          hint="paste, adhesive"
          max={400}
          set={(t) => edit({ consumables: list(t, 80) })}
        />
      </Row>
      <Row label="Note">
        <TextCell
          label="note on the step"
          value={step.note}
          max={2000}
          hint="what was seen"
          set={(note) => edit({ note })}
        />
      </Row>
      {step.stamps.length > 0 && (
        <Row label="Times">
          <ul className="figure text-small">
            {step.stamps.map((s) => (
              <li key={s.at}>
                {new Date(s.at).toLocaleTimeString('en-GB')} {s.words}
              </li>
            ))}
          </ul>
        </Row>
      )}
      <Row label="Photos">
        <AttachmentStrip path={`log.steps.${step.id}`} words={step.name} />
      </Row>
      <button
        type="button"
        className="underline underline-offset-2 cursor-pointer text-[0.9rem] text-quiet hover:text-ink"
        onClick={() => {
          change((l) => removeStep(l, step.id));
          close();
        }}
      >
        remove this step
      </button>
    </div>
  );
}

const actWords = (act: string) =>
  STEP_KIND_FACTS.find((a) => a.act === act)?.name.toLowerCase() ?? act;

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[4.5rem_minmax(0,1fr)] gap-2 items-baseline">
      <span className="text-quiet">{label}</span>
      <div className="flex flex-wrap gap-x-2 items-baseline min-w-0">{children}</div>
    </div>
  );
}
