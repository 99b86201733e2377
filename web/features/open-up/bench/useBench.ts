import { useEffect, useMemo, useRef, useState } from 'react';
import { stepKindOf, factsOfStepKind } from '@zugluft/core/service/stepKinds';
import { backTogether, type BackStep } from '@zugluft/core/service/backTogether';
import {
  acknowledge,
  addNote,
  endBack,
  endStep,
  lastTaken,
  liftStrip,
  openAt,
  pauseClocks,
  plugOne,
  putBackOne,
  screwsOf,
  stamp,
  startClock,
  takeOne,
  takePart,
  toggleMissing,
  unplugOne,
  waitingHoles,
} from '@zugluft/core/service/benchEdits';
import { holeAt, type Place } from '@zugluft/core/service/holeAt';
import { cautionsOf, type CautionId } from '@zugluft/core/service/cautions';
import { rulesAt } from '@zugluft/core/service/houseRules';
import {
  addLayer,
  addStep,
  editScrew,
  editStep,
  fresh,
  turnScrew,
} from '@zugluft/core/service/logEdits';
import { looseningOrder } from '@zugluft/core/service/tighteningOrder';
import {
  isPlaced,
  type StepKind,
  type Connector,
  type LoggedPart,
  type LoggedStrip,
} from '@zugluft/core/service/openUpLog';
import type { OpenUpLog } from '../../../api/openUp';
import { useMachineFile } from '../../../documents/record/MachineFile';
import { useOpenUp } from '../OpenUpLog';
import { clockStopped, keepPlace, readPlace, type BenchSide } from './benchPlace';

type Step = OpenUpLog['steps'][number];

const HEARTBEAT_MS = 5000;
export type Bench = ReturnType<typeof useBench>;

/** What stands on the bench: the side (opening or way back), the step, the group of the last screw, and all that keys do. */
export function useBench() {
  const { machine } = useMachineFile();
  const { log, change, undo, canUndo, rules } = useOpenUp();
  const [kept] = useState(() => readPlace(machine.id));
  const [side, setSide] = useState<BenchSide>(kept?.side ?? 'open');
  const [wanted, setWanted] = useState<string | null>(kept?.stepId ?? null);
  // the group of the last key; at another step that of its own last screw
  const [chosen, setLetter] = useState<string | null>(null);
  // the next screw is logged there; where nobody pointed it is only counted
  const [cursor, setCursor] = useState<(Place & { armed: boolean }) | null>(null);
  const [said, setSaid] = useState('');
  // the step of the way back whose open things were shown: Enter once more leaves them
  const [sure, setSure] = useState<string | null>(null);

  const step: Step | undefined =
    log.steps.find((s) => s.id === wanted) ??
    log.steps.find((s) => s.state === 'planned') ??
    log.steps.at(-1);
  const index = step ? log.steps.indexOf(step) : -1;
  const layer = log.layers.find((l) => l.id === step?.layer) ?? log.layers[0]!;
  const house = rulesAt(step ? stepKindOf(step) : 'other', rules);
  const cautions: CautionId[] = step ? [...new Set([...cautionsOf(step), ...house.cautions])] : [];
  const unread = cautions.filter((c) => !log.acknowledged.includes(c));

  // where the order matters: printed numbers, or a heat sink that must not tilt
  const loosening = useMemo(() => {
    const holes = step ? screwsOf(log, step.id).filter(isPlaced) : [];
    const printed = holes.length > 1 && holes.every((h) => h.printed !== undefined);
    return printed || (step && stepKindOf(step) === 'sink') ? looseningOrder(holes) : [];
  }, [log, step]);

  const last = step ? lastTaken(log, step.id) : undefined;
  const letterOfGroup = (id: string | null | undefined) =>
    log.groups.find((g) => g.id === id)?.letter;
  const way = useMemo(() => backTogether(log, rules), [log, rules]);
  const keyOf = (b: BackStep) => b.undoes ?? `check:${b.check}`;
  const ended = (b: BackStep) =>
    b.check
      ? log.checked.includes(b.check)
      : (log.steps.find((s) => s.id === b.undoes)?.back ?? false);
  const back =
    way.find((b) => keyOf(b) === wanted) ??
    (wanted === 'end' ? undefined : way.find((b) => !ended(b)));
  const backIndex = back ? way.indexOf(back) : way.length;

  // a clock that ran on while the page was closed stops where it was last seen
  const first = useRef(true);
  useEffect(() => {
    if (!first.current) return;
    first.current = false;
    const stopped = clockStopped(kept, Date.now());
    if (stopped === null || !log.steps.some((s) => s.runningSince)) return;
    change((l) => pauseClocks(l, stopped));
    setSaid('The clock stood while this page was away.');
  }, [kept, log, change]);
  const stepId = side === 'open' ? (step?.id ?? null) : (wanted ?? null);
  useEffect(() => {
    const beat = () => keepPlace(machine.id, { side, stepId, seenAt: Date.now() });
    beat();
    const timer = setInterval(beat, HEARTBEAT_MS);
    return () => clearInterval(timer);
  }, [machine.id, side, stepId]);

  const letter =
    chosen ?? letterOfGroup(side === 'open' ? last?.group : back?.screws[0]?.group) ?? 'A';

  const on = (make: (l: OpenUpLog, s: Step) => OpenUpLog) => {
    if (step) change((l) => make(l, step));
  };
  const go = (id: string | null) => {
    setWanted(id);
    setLetter(null);
    setCursor(null);
    setSaid('');
    setSure(null);
  };

  return {
    log,
    side,
    step,
    index,
    layer,
    letter,
    cursor,
    said,
    house,
    cautions,
    unread,
    way,
    back,
    backIndex,
    /** Holes in the order in which they are loosened, or tightened on the way back. */
    order: side === 'open' ? loosening : (back?.tightening?.order ?? []),
    sure: back !== undefined && sure === keyOf(back),
    canUndo,

    say: setSaid,
    undo() {
      undo();
      setSaid('Undone.');
    },
    point(at: Place) {
      if (side === 'open') setCursor({ ...at, armed: true });
    },
    /** A hole was touched: its screw comes out, or goes back. */
    touch(id: string) {
      if (side === 'open') change((l) => turnScrew(l, id));
      else if (back && waitingHoles(log, back).includes(id)) {
        change((l) => editScrew(l, id, { back: 'own' }));
      }
    },
    /** Moves the cursor by some millimetres, from the middle where nobody pointed yet. */
    nudge(dx: number, dy: number) {
      const w = layer.widthMm ?? 350;
      const h = layer.depthMm ?? 240;
      const from = cursor ?? { xMm: Math.round(w / 2), yMm: Math.round(h / 2) };
      setCursor({
        xMm: Math.min(w, Math.max(0, from.xMm + dx)),
        yMm: Math.min(h, Math.max(0, from.yMm + dy)),
        armed: true,
      });
    },

    /** One screw of a group is out. */
    take(of: string) {
      setLetter(of);
      const at = cursor?.armed ? { xMm: cursor.xMm, yMm: cursor.yMm } : null;
      on((l, s) => takeOne(l, s.id, of, layer.id, at));
      setCursor((c) => c && { ...c, armed: false });
      setSaid('');
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
      const pointed = cursor?.armed ? holeAt(log, layer.id, cursor) : undefined;
      on((l, s) => toggleMissing(l, s.id, pointed));
    },
    takeAllExpected() {
      on((l, s) =>
        screwsOf(l, s.id)
          .filter((x) => !x.out && x.onArrival !== 'missing')
          .reduce((x, { id }) => editScrew(x, id, { out: true, onArrival: 'there' }), l),
      );
    },
    unplug(release: NonNullable<Connector['release']>) {
      on((l, s) => unplugOne(l, s.id, release, layer.id));
    },
    part(kind: NonNullable<LoggedPart['kind']>) {
      on((l, s) => takePart(l, s.id, kind, layer.id));
    },
    strip(purpose: LoggedStrip['purpose']) {
      on((l, s) => liftStrip(l, s.id, purpose, layer.id));
      setSaid(purpose === 'unknown' ? 'Written down; it stays where it is.' : '');
    },
    note(text: string) {
      on((l, s) => addNote(l, s.id, text));
    },
    stamp() {
      const now = Date.now();
      on((l, s) => stamp(l, s.id, s.name.slice(0, 60), now));
      setSaid(`Time stamp ${new Date(now).toLocaleTimeString()}.`);
    },
    posture(posture: Step['posture']) {
      on((l, s) => editStep(l, s.id, { posture }));
    },
    onLayer(id: string) {
      on((l, s) => editStep(l, s.id, { layer: id }));
      setCursor(null);
    },
    newLayer(name: string) {
      on((l, s) => {
        const next = addLayer(l, name);
        return editStep(next, s.id, { layer: next.layers.at(-1)!.id });
      });
      setCursor(null);
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
    nameOf: (act: StepKind) => factsOfStepKind(act).name,

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
    before() {
      if (side === 'open') {
        const one = log.steps[index - 1];
        if (one) go(one.id);
      } else if (backIndex > 0) go(keyOf(way[backIndex - 1]!));
    },

    turn(to: BenchSide) {
      const now = Date.now();
      change((l) => pauseClocks(l, now));
      setSide(to);
      go(null);
    },

    putBack(of: string) {
      setLetter(of);
      setSure(null);
      if (back) change((l) => putBackOne(l, back, of));
    },
    putAllBack() {
      if (!back) return;
      change((l) =>
        waitingHoles(l, back).reduce((x, hole) => editScrew(x, hole, { back: 'own' }), l),
      );
    },
    plug() {
      setSure(null);
      if (back) change((l) => plugOne(l, back));
    },
    /** The next screw of the last group is lost. */
    lost() {
      if (!back) return;
      const group = log.groups.find((g) => g.letter === letter)?.id;
      const hole = waitingHoles(log, back).find(
        (id) => log.screws.find((s) => s.id === id)?.group === group,
      );
      if (hole) change((l) => editScrew(l, hole, { back: 'lost' }));
    },
    endBackStep() {
      if (!back) return;
      const open = openAt(log, back);
      if ((open.holes.length || open.connectors.length) && sure !== keyOf(back)) {
        setSure(keyOf(back));
        return;
      }
      change((l) => endBack(l, back));
      const next = way[backIndex + 1];
      go(next ? keyOf(next) : 'end');
    },
    /** There is a screw of which one can say that it was missing. */
    canMiss: step !== undefined && step.screws.length > 0,
  };
}
