import { stepKindOf } from './stepKinds';
import type { StepKind, Step } from './openUpLog';

/** Cautions of the trade, each shown at the step where it matters. Common practice, no source. */
export const CAUTIONS = {
  battery:
    'Lithium battery: never pry, bend or puncture it. Swollen, hot or smelling: stop, outdoors onto a fire-proof surface; local rules for hazardous waste apply.',
  mains:
    'Never open a mains adapter. Mains parts are for qualified persons under the local electrical code.',
  static: 'Static discharge kills parts: strap or mat, touch bare metal first.',
  'liquid-metal':
    'Liquid metal conducts and attacks aluminium: mask around the die, wear gloves, never on aluminium.',
  alcohol:
    'Isopropyl alcohol is flammable and its vapor heavier than air: ventilate, no flame, no power until dry.',
  'compressed-air':
    'Compressed air: hold the fan blades (over-speed, back-voltage), protect the eyes, keep the can upright.',
  edges: 'Fin edges and shields cut.',
  hot: 'Heat sinks stay hot after a load, and surfaces above the touch limits burn (IEC 62368-1, ISO 13732-1).',
  'bent-pipe': 'A bent heat pipe counts as a dead one: twist old paste loose, never lever.',
  'wires-pulled':
    'Work a plug out by its ears, never by its wires; a latch opens before its ribbon.',
  'metal-lever': 'A metal lever shorts and scratches: only in the corner, never near the battery.',
  seal: 'What breaking a warranty seal means depends on the country.',
  strip: 'What a strip is for comes first: one of unknown purpose stays.',
  limits:
    'Raising power limits or stopping fans beyond the maker’s settings can damage machine and battery.',
} as const;
export type CautionId = keyof typeof CAUTIONS;

const BY_STEP_KIND: Partial<Record<StepKind, readonly CautionId[]>> = {
  'make-safe': ['mains', 'static'],
  cover: ['static', 'battery'],
  battery: ['battery', 'wires-pulled'],
  'battery-out': ['battery'],
  plugs: ['wires-pulled'],
  leads: ['wires-pulled'],
  card: ['static'],
  strip: ['strip'],
  clean: ['compressed-air', 'edges'],
  'fan-out': ['edges', 'wires-pulled'],
  sink: ['hot', 'bent-pipe', 'edges'],
  renew: ['alcohol', 'liquid-metal'],
  pads: ['alcohol'],
  jack: ['mains', 'static'],
  board: ['static'],
};

/** What to mind while a step is undone, or at the check that follows; each was read on the way in, but for the last. */
export function cautionsBack(
  step: Pick<Step, 'act' | 'name' | 'cautions'> | undefined,
  check: string | null,
): CautionId[] {
  if (check === 'firmware') return ['limits'];
  return step ? cautionsOf(step) : [];
}

export const isCaution = (id: string): id is CautionId => Object.hasOwn(CAUTIONS, id);

/** The cautions of a step: those of what is done in it, then those that were added to it. */
export function cautionsOf(step: Pick<Step, 'act' | 'name' | 'cautions'>): CautionId[] {
  const own = step.cautions.filter(isCaution);
  return [...new Set([...(BY_STEP_KIND[stepKindOf(step)] ?? []), ...own])];
}
