/** Steps of a machine's file in the order of work. */
export const STEPS = [
  { path: 'identify', name: 'Identify' },
  { path: 'outside', name: 'Outside' },
  { path: 'open-up', name: 'Open up' },
  { path: 'cooling', name: 'Cooling' },
  { path: 'estimate', name: 'Estimate' },
  { path: 'runs', name: 'Runs' },
  { path: 'levers', name: 'Levers' },
  { path: 'verdict', name: 'Verdict' },
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

/** Kinds of parts in the order in which they are recorded. */
const ORDER = [
  'identity',
  'power',
  'settings',
  'shell',
  'room',
  'noise',
  'dies',
  'plates',
  'heatPipes',
  'finStacks',
  'fans',
  'vents',
];

const placeOf = (path: string) => {
  const i = ORDER.indexOf(path.split('.')[0]!);
  return i < 0 ? ORDER.length : i;
};

/** What is wrong with a record, in the order of work: what cannot be before what is missing, each from the first step on. */
export function inOrderOfWork<T extends { kind: string; path: string }>(issues: readonly T[]): T[] {
  const impossible = (i: T) => (i.kind === 'impossible' ? 0 : 1);
  return [...issues].sort(
    (a, b) =>
      impossible(a) - impossible(b) ||
      placeOf(a.path) - placeOf(b.path) ||
      a.path.localeCompare(b.path, 'en', { numeric: true }),
  );
}
