import {
  acknowledge,
  addNote,
  endStep,
  liftStrip,
  markHidden,
  markMissing,
  pauseClocks,
  screwsOf,
  stamp,
  startClock,
  takeOne,
  takePart,
  tellConnector,
  unplugOne,
} from '@zugluft/core/service/benchEdits';
import { holeAt } from '@zugluft/core/service/holeAt';
import { addLayer, addStep, editScrew, editStep, fresh } from '@zugluft/core/service/logEdits';
import { stepKindOf } from '@zugluft/core/service/stepKinds';
import type {
  Connector,
  LoggedPart,
  LoggedStrip,
  Screw,
  StepKind,
} from '@zugluft/core/service/openUpLog';
import type { OpenUpLog } from '../../../api/openUp';
import type { BenchContext } from './benchContext';
import type { Step } from './benchPlan';

/** What keys do while the machine is opened. */
export function openActions({
  log,
  step,
  index,
  layer,
  letter,
  unread,
  cursor,
  change,
  go,
  say,
  setLetter,
  setCursor,
}: BenchContext) {
  const on = (make: (l: OpenUpLog, s: Step) => OpenUpLog) => {
    if (step) change((l) => make(l, step));
  };
  return {
    /** Moves the cursor by some millimetres, from the middle where nobody pointed yet. */
    nudge(dx: number, dy: number) {
      const w = layer.widthMm ?? 350;
      const h = layer.depthMm ?? 240;
      const from = cursor ?? { xMm: Math.round(w / 2), yMm: Math.round(h / 2) };
      setCursor(() => ({
        xMm: Math.min(w, Math.max(0, from.xMm + dx)),
        yMm: Math.min(h, Math.max(0, from.yMm + dy)),
        armed: true,
      }));
    },

    /** One screw of a group is out. */
    take(of: string) {
      setLetter(of);
      const at = cursor?.armed ? { xMm: cursor.xMm, yMm: cursor.yMm } : null;
      on((l, s) => takeOne(l, s.id, of, layer.id, at));
      setCursor((c) => c && { ...c, armed: false });
      say('');
    },
    /** Several of the last group at once, counted. */
    takeSeveral(count: number) {
      on((l, s) =>
        Array.from({ length: count }).reduce<OpenUpLog>(
          (x) => takeOne(x, s.id, letter, layer.id, null),
          l,
        ),
      );
    },
    missing() {
      if (!step) return;
      const at = cursor?.armed ? { xMm: cursor.xMm, yMm: cursor.yMm } : null;
      const { refused } = markMissing(log, step.id, letter, layer.id, at);
      if (refused === null) on((l, s) => markMissing(l, s.id, letter, layer.id, at).log);
      setCursor((c) => c && { ...c, armed: false });
      say(refused ?? '');
    },
    takeAllExpected() {
      on((l, s) =>
        screwsOf(l, s.id)
          .filter((x) => !x.out && x.onArrival !== 'missing')
          .reduce((x, { id }) => editScrew(x, id, { out: true, onArrival: 'there' }), l),
      );
    },
    hidden(under: NonNullable<Screw['hiddenUnder']> | 'captive') {
      const pointed = cursor?.armed ? holeAt(log, layer.id, cursor) : undefined;
      on((l, s) => markHidden(l, s.id, under, pointed));
    },
    /** What the connector that came off last is called, or where its lead goes. */
    tellPlug(about: { name: string } | { lead: string }) {
      on((l, s) => tellConnector(l, s.id, about));
    },
    /** A plan to begin with; steps that are there already stay in front. */
    usualSteps(steps: readonly Step[], layers: OpenUpLog['layers']) {
      change((l) => {
        const there = new Set(l.steps.map((s) => s.id));
        const known = new Set(l.steps.map(stepKindOf));
        const more = steps.filter((s) => !there.has(s.id) && !known.has(stepKindOf(s)));
        return {
          ...l,
          layers: l.screws.length || l.steps.length ? l.layers : layers,
          steps: [...l.steps, ...more],
        };
      });
    },
    unplug(release: NonNullable<Connector['release']>) {
      on((l, s) => unplugOne(l, s.id, release, layer.id));
    },
    part(kind: NonNullable<LoggedPart['kind']>) {
      on((l, s) => takePart(l, s.id, kind, layer.id));
    },
    strip(purpose: LoggedStrip['purpose']) {
      on((l, s) => liftStrip(l, s.id, purpose, layer.id));
      say(purpose === 'unknown' ? 'Written down; it stays where it is.' : '');
    },
    note(text: string) {
      on((l, s) => addNote(l, s.id, text));
    },
    stamp() {
      const now = Date.now();
      on((l, s) => stamp(l, s.id, s.name.slice(0, 60), now));
      say(`Time stamp ${new Date(now).toLocaleTimeString('en-GB')}.`);
    },
    posture(posture: Step['posture']) {
      on((l, s) => editStep(l, s.id, { posture }));
    },
    onLayer(id: string) {
      on((l, s) => editStep(l, s.id, { layer: id }));
      setCursor(() => null);
    },
    newLayer(name: string) {
      on((l, s) => {
        const next = addLayer(l, name);
        return editStep(next, s.id, { layer: next.layers.at(-1)!.id });
      });
      setCursor(() => null);
    },
    read() {
      change((l) => acknowledge(l, unread));
    },
    clock() {
      const now = Date.now();
      on((l, s) => (s.runningSince ? pauseClocks(l, now) : startClock(l, s.id, now)));
    },

    /** A step, after the one that stands here or before it where it was remembered late. */
    begin(name: string, act: StepKind | undefined, where: 'after' | 'before') {
      const id = fresh('step', log.steps);
      const now = Date.now();
      const after = where === 'after' ? undefined : index > 0 ? log.steps[index - 1]!.id : null;
      change((l) => {
        const late = where === 'before';
        const next = addStep(l, name.slice(0, 120), after, {
          ...(act ? { act } : {}),
          state: late ? 'done' : 'planned',
        });
        if (act !== 'cover' && act !== 'sink') return late ? next : startClock(next, id, now);
        const layerName = act === 'cover' ? 'base cover' : 'heat sink';
        const known = next.layers.find((x) => x.name === layerName);
        const withIt = known ? next : addLayer(next, layerName);
        const on = editStep(withIt, id, { layer: (known ?? withIt.layers.at(-1)!).id });
        return late ? on : startClock(on, id, now);
      });
      go(id);
    },
    /**
     * The step is over; the next one begins.
     *
     * @returns false where there is no next one
     */
    end(state: 'done' | 'skipped' | 'went-wrong'): boolean {
      if (!step) return false;
      const now = Date.now();
      const next = log.steps[index + 1];
      change((l) => {
        const kept = state === 'done' && step.state !== 'planned';
        const over = kept ? pauseClocks(l, now) : endStep(l, step.id, state, now);
        return next?.state === 'planned' ? startClock(over, next.id, now) : over;
      });
      if (next) go(next.id);
      return next !== undefined;
    },
  };
}
