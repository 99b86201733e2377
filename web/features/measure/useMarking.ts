import { useState, type KeyboardEvent } from 'react';
import { toast } from 'sonner';
import {
  KNOWN_THINGS,
  referenceItem,
  SHELL,
  type KnownThing,
} from '@zugluft/core/photo/knownThings';
import type { PhotoMarks, PhotoReference } from '@zugluft/core/photo/photoMarks';
import type { Proposal } from '../../api/measuring';
import type { PointPx } from '@zugluft/core/photo/point';
import {
  finish,
  letGo,
  MARK_KEYS,
  MARK_WORDS,
  nextHeld,
  placePoint,
  startOf,
  stepBack,
  takeTool,
  type Held,
  type Marking,
  type Tool,
} from './marking';
import { freshId, heldPoints, without, withPoints } from './useMarks';

/** As fine as a place in a photo can be told. */
const round = (x: number) => Math.round(x * 100) / 100;

const DEFAULT_SIZE = 10;
/** k1 of a lens and its ±, until they are typed. */
const UNBENT = [0, 0.01];

/**
 * The hand on a photo: tools, points, what is held, by keys and by pointer.
 *
 * @param snap the edge next to a place
 * @param takeAll takes all that differs into the record
 */
export function useMarking({
  size,
  marks,
  shellMm,
  change,
  snap,
  takeAll,
  proposed,
}: {
  size: readonly [number, number];
  marks: PhotoMarks;
  shellMm: readonly [number, number] | null;
  change: (make: (marks: PhotoMarks) => PhotoMarks, touched?: string | null) => void;
  snap: (at: PointPx) => Promise<PointPx | null>;
  takeAll: () => void;
  /** Asks for proposals; the one that is offered, taken or left. */
  proposed: { look: () => void; take: () => Proposal | null; leave: () => void };
}) {
  const [marking, setMarking] = useState<Marking>(() => startOf(size));
  const [thing, setThing] = useState<KnownThing>(KNOWN_THINGS[0]!);
  const [focus, setFocus] = useState(0);
  const [goingTo, setGoingTo] = useState(false);
  const add = (tool: Tool, points: readonly PointPx[]) => {
    const at = points.map((p): [number, number] => [round(p[0]), round(p[1])]);
    if (tool.as === 'mark') {
      const id = freshId(marks.marks, MARK_WORDS[tool.kind].name.replace(' ', '-'));
      setMarking((m) => ({
        ...m,
        tool: null,
        points: [],
        held: { list: 'marks', index: marks.marks.length, point: null },
      }));
      change((d) => ({
        ...d,
        marks: [...d.marks, { id, mark: { kind: tool.kind, points: at }, figure: null }],
      }));
      return;
    }
    const { what, kind, widthMm, heightMm, mm, diameterMm } = tool.thing;
    const sizes =
      kind === 'lens'
        ? UNBENT
        : what === SHELL
          ? (shellMm ?? [DEFAULT_SIZE, DEFAULT_SIZE])
          : [widthMm ?? mm ?? diameterMm ?? DEFAULT_SIZE, heightMm ?? DEFAULT_SIZE];
    const reference: PhotoReference = {
      id: freshId(marks.references, what),
      what,
      item: referenceItem(kind, at, sizes),
    };
    setMarking((m) => ({
      ...m,
      tool: null,
      points: [],
      held: { list: 'references', index: marks.references.length, point: null },
    }));
    change((d) => ({ ...d, references: [...d.references, reference] }));
  };
  const placed = ({
    marking: next,
    done,
  }: {
    marking: Marking;
    done: readonly PointPx[] | null;
  }) => {
    const { tool } = marking;
    setMarking(next);
    if (done && tool) add(tool, done);
  };
  const movePoint = (held: Held, at: PointPx) => {
    const points = heldPoints(marks, held).map((p, i) =>
      i === held.point ? ([round(at[0]), round(at[1])] as const) : p,
    );
    change((d) => withPoints(d, held, points), `${held.list}.${held.index}.${held.point}`);
  };
  const moveTo = (at: PointPx) => {
    setMarking((m) => ({ ...m, cursor: at }));
    const { held, tool } = marking;
    if (!tool && held && held.point !== null) movePoint(held, at);
  };
  const hold = (held: Held | null) =>
    setMarking((m) => {
      const at = held ? heldPoints(marks, held)[held.point ?? 0] : undefined;
      return { ...m, tool: null, points: [], held, cursor: at ?? m.cursor };
    });
  const take = (tool: Tool) => {
    // a lens is nothing to be clicked
    if (tool.as === 'reference' && tool.thing.kind === 'lens') add(tool, []);
    else setMarking((m) => takeTool(m, tool));
    setFocus((n) => n + 1);
  };
  const remove = (held: Held) => {
    hold(null);
    change((d) => without(d, held));
  };
  const cyclePoint = (by: 1 | -1) => {
    const { held } = marking;
    const n = held ? heldPoints(marks, held).length : 0;
    if (!held || n === 0) return;
    const point = held.point === null ? (by > 0 ? 0 : n - 1) : (held.point + by + n) % n;
    hold({ ...held, point });
  };
  const takeProposal = () => {
    const own = proposed.take();
    if (own) add({ as: 'mark', kind: own.kind }, own.points);
  };
  const back = () => setMarking(stepBack);
  const end = () => {
    const ended = finish(marking);
    if (ended) placed(ended);
  };
  const toEdge = () =>
    void snap(marking.cursor).then(
      (at) => at && moveTo(at),
      () => toast.error('The edge could not be looked for: the server does not answer.'),
    );
  const toPlace = () => setGoingTo(true);
  const key = (e: KeyboardEvent): boolean => {
    if (e.altKey || e.ctrlKey || e.metaKey) return false;
    const { held, tool } = marking;
    const acts: Record<string, () => void> = {
      Enter: () => placed(placePoint(marking)),
      ' ': () => placed(placePoint(marking)),
      Backspace: back,
      Escape: () => setMarking(letGo),
      d: end,
      r: () => take({ as: 'reference', thing }),
      '[': () =>
        hold(
          nextHeld(marking, { references: marks.references.length, marks: marks.marks.length }, -1),
        ),
      ']': () =>
        hold(
          nextHeld(marking, { references: marks.references.length, marks: marks.marks.length }, 1),
        ),
      ',': () => cyclePoint(-1),
      '.': () => cyclePoint(1),
      s: toEdge,
      g: toPlace,
      t: takeAll,
      q: proposed.look,
      y: takeProposal,
      u: proposed.leave,
      b: () => {
        const id = held?.list === 'marks' ? marks.marks[held.index]?.id : undefined;
        document.querySelector<HTMLElement>(`[data-figure="${id}"]`)?.focus();
      },
      Delete: () => held && remove(held),
    };
    const kind = MARK_KEYS[e.key];
    if (kind) take({ as: 'mark', kind });
    else if (e.key === 'r' && thing.what === SHELL && !shellMm) return false;
    else if (acts[e.key] && !(e.key === 'Escape' && !tool && !held)) acts[e.key]!();
    else return false;
    return true;
  };

  return {
    marking,
    thing,
    setThing,
    focus,
    goingTo,
    take,
    hold,
    remove,
    takeProposal,
    back,
    end,
    toEdge,
    toPlace,
    /** Ends the going to a place, there or where it was. */
    arrive(at: PointPx | null) {
      if (at) moveTo(at);
      setGoingTo(false);
      setFocus((n) => n + 1);
    },
    acts: {
      moveTo,
      place: (at?: PointPx) => placed(placePoint(marking, at)),
      hold,
      drag(held: Held, at: PointPx) {
        setMarking((m) => ({ ...m, held, cursor: at }));
        movePoint(held, at);
      },
      key,
    },
  };
}
