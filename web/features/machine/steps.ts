/** Steps of a machine's file in the order of work, each with its key. */
export const STEPS = [
  { path: 'identify', name: 'Identify', key: 'i' },
  { path: 'outside', name: 'Outside', key: 'o' },
  { path: 'open-up', name: 'Open up', key: 'l' },
  { path: 'cooling', name: 'Cooling', key: 'k' },
  { path: 'estimate', name: 'Estimate', key: 'e' },
] as const;

export type StepPath = (typeof STEPS)[number]['path'];

/** Which step shows a field of the record. */
export function stepOf(path: string): StepPath {
  const first = path.split('.')[0];
  if (first === 'identity' || first === 'power' || first === 'settings') return 'identify';
  if (first === 'shell' || first === 'room' || first === 'noise') return 'outside';
  return 'cooling';
}
