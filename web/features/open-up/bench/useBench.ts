import { useEffect, useMemo, useRef, useState } from 'react';
import { pauseClocks, waitingHoles } from '@zugluft/core/service/benchEdits';
import type { Place } from '@zugluft/core/service/holeAt';
import { editScrew, turnScrew } from '@zugluft/core/service/logEdits';
import type { StepKind } from '@zugluft/core/service/openUpLog';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { standardLayers, standardSteps } from '@zugluft/core/service/standardSteps';
import { factsOfStepKind, stepKindOf } from '@zugluft/core/service/stepKinds';
import { useMachineFile } from '../../../documents/record/MachineFile';
import { useOpenUp } from '../OpenUpLog';
import { backActions } from './backActions';
import type { BenchContext, Cursor } from './benchContext';
import { benchPlan, keyOfBack } from './benchPlan';
import { clockStopped, keepPlace, readPlace, type BenchSide } from './benchPlace';
import { openActions } from './openActions';

const HEARTBEAT_MS = 5000;
export type Bench = ReturnType<typeof useBench>;

/** What stands on the bench: the side (opening or way back), the step, the group of the last screw, and all that keys do. */
export function useBench() {
  const { machine, draft } = useMachineFile();
  const { log, change, undo, canUndo, rules, rulesKnown, outline } = useOpenUp();
  const [kept] = useState(() => readPlace(machine.id));
  const [side, setSide] = useState<BenchSide>(kept?.side ?? 'open');
  const [wanted, setWanted] = useState<string | null>(kept?.stepId ?? null);
  // the group of the last key; at another step that of its own last screw
  const [chosen, setLetter] = useState<string | null>(null);
  const [cursor, setCursor] = useState<Cursor | null>(null);
  const [said, setSaid] = useState('');
  const [sure, setSure] = useState<string | null>(null);
  const plan = useMemo(() => benchPlan(log, rules, side, wanted), [log, rules, side, wanted]);
  const { step, index, way, back, backIndex } = plan;

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

  const go = (id: string | null) => {
    setWanted(id);
    setLetter(null);
    setCursor(null);
    setSaid('');
    setSure(null);
  };
  const context: BenchContext = {
    ...plan,
    log,
    change,
    side,
    letter: chosen ?? plan.lastLetter ?? 'A',
    setLetter,
    cursor,
    setCursor,
    say: setSaid,
    go,
    sure,
    setSure,
  };

  const actions = openActions(context);

  return {
    ...plan,
    log,
    side,
    letter: context.letter,
    cursor,
    said,
    sure: back !== undefined && sure === keyOfBack(back),
    canUndo,
    /** There is a screw of which one can say that it was missing. */
    canMiss: step !== undefined,
    nameOf: (act: StepKind) => factsOfStepKind(act).name,
    /** Kinds of steps that were done. */
    doneActs: new Set(log.steps.filter((s) => s.state === 'done').map(stepKindOf)),
    /** The usual steps, where they are not there yet. */
    plan: rulesKnown
      ? () =>
          actions.usualSteps(
            standardSteps(draft as Partial<CaseRecord>, rules),
            standardLayers(outline),
          )
      : undefined,
    ...actions,
    ...backActions(context),

    say: setSaid,
    undo() {
      const step = undo();
      setSaid(step ? `Undone: ${step.label}` : 'There is nothing to undo.');
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
    before() {
      if (side === 'open') {
        const one = log.steps[index - 1];
        if (one) go(one.id);
      } else if (backIndex > 0) go(keyOfBack(way[backIndex - 1]!));
    },
    turn(to: BenchSide) {
      const now = Date.now();
      change((l) => pauseClocks(l, now));
      setSide(to);
      go(null);
    },
  };
}
