/** Steps of a machine's file in the order of work. */
export const STEPS = [
  { path: 'identify', name: 'Identify' },
  { path: 'outside', name: 'Outside' },
  { path: 'open-up', name: 'Open up' },
  { path: 'cooling', name: 'Cooling' },
  { path: 'estimate', name: 'Estimate' },
] as const;

export type StepPath = (typeof STEPS)[number]['path'];

/** Which step shows a field of the record. */
export function stepOf(path: string): StepPath {
  const first = path.split('.')[0];
  if (first === 'identity' || first === 'power' || first === 'settings') return 'identify';
  if (first === 'shell' || first === 'room' || first === 'noise') return 'outside';
  return 'cooling';
}

/** Every step that shows a field of the record, the usual one first. */
export function stepsOf(path: string): StepPath[] {
  return path.startsWith('vents') ? ['outside', 'cooling'] : [stepOf(path)];
}
