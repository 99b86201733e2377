import { applyPatch, patchOf, type Patch } from '@zugluft/core/documents/patch';

/** One change that can be taken back: what it was, where, and how it leads there and back. */
export interface UndoStep {
  label: string;
  /** Path of the first field that it changed. */
  place: string;
  patch: Patch;
}

export interface UndoSteps {
  past: UndoStep[];
  future: UndoStep[];
}

/** A change, in words and with its place. */
export type DescribeChange = (before: unknown, after: unknown) => { label: string; place: string };

const MAX_STEPS = 300;
/** How many are kept over a reload. */
export const KEPT_STEPS = 100;

export const NO_STEPS: UndoSteps = { past: [], future: [] };

/** One more step; what could be redone is gone. */
export function addStep(
  { past }: UndoSteps,
  before: unknown,
  after: unknown,
  about: { label: string; place: string },
): UndoSteps {
  const step = { ...about, patch: patchOf(before, after) };
  return { past: [...past.slice(1 - MAX_STEPS), step], future: [] };
}

/** The last step reaches from its own beginning to a new end: changes to one field in quick succession. */
export function widenStep(
  steps: UndoSteps,
  before: unknown,
  after: unknown,
  about: DescribeChange,
): UndoSteps {
  const last = steps.past.at(-1);
  if (!last) return addStep(steps, before, after, about(before, after));
  const start = applyPatch(before, last.patch, 'back');
  const patch = patchOf(start, after);
  const past = steps.past.slice(0, -1);
  return patch.length
    ? { past: [...past, { ...about(start, after), patch }], future: [] }
    : { past, future: [] };
}

/** One step back: the value before it, and what it was; null where there is none. */
export function stepBack<T>(value: T, { past, future }: UndoSteps) {
  const step = past.at(-1);
  if (!step) return null;
  return {
    value: applyPatch(value, step.patch, 'back'),
    step,
    steps: { past: past.slice(0, -1), future: [step, ...future] },
  };
}

export function stepForward<T>(value: T, { past, future }: UndoSteps) {
  const [step, ...rest] = future;
  if (!step) return null;
  return {
    value: applyPatch(value, step.patch, 'forward'),
    step,
    steps: { past: [...past, step], future: rest },
  };
}
