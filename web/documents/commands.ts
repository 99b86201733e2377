import { useEffect, useLayoutEffect, useRef, useSyncExternalStore } from 'react';
import { useKeys } from '../kit/useKeys';

/** Where a command can be given: everywhere, in the library, in a machine's file, or in one of its steps. */
export type CommandPlace =
  | 'anywhere'
  | 'library'
  | 'machine'
  | 'identify'
  | 'outside'
  | 'open-up'
  | 'cooling'
  | 'estimate'
  | 'runs'
  | 'levers'
  | 'verdict'
  | 'bench-day';

export interface CommandEntry {
  /** What it does, as the palette and the key sheet say it. */
  name: string;
  place: CommandPlace;
  /** Keys as `useKeys` names them. */
  keys?: readonly string[];
  /** As keys are written on the sheet, where that differs. */
  shown?: readonly string[];
  /** Other words by which people look for it. */
  words?: string;
  /** Has a key and stands on the sheet, but is no use from a list. */
  keyOnly?: true;
}

/** Every command of the program: what it is called, its keys and where it can be given. Keys, sheet and palette follow from it. */
const COMMANDS = {
  find: {
    name: 'Find a machine, part, equation or default, or do something',
    place: 'anywhere',
    keys: ['/', 'mod+k'],
    shown: ['/'],
    keyOnly: true,
  },
  keys: { name: 'Keys', place: 'anywhere', keys: ['?'], words: 'shortcuts help' },
  library: { name: 'Library', place: 'anywhere', words: 'machines list home' },
  overview: {
    name: 'Overview: what is in work, latest runs, care that is due',
    place: 'anywhere',
    words: 'start home next',
  },
  learned: {
    name: 'What the library teaches: bias by kind of cooling, defaults from runs',
    place: 'anywhere',
    words: 'learn statistics factors',
  },
  'new-machine': { name: 'New machine', place: 'anywhere', words: 'add create' },
  method: {
    name: 'Method and defaults',
    place: 'anywhere',
    keys: ['m'],
    words: 'equations physics',
  },
  laboratory: {
    name: 'House rules, noise caps, backup',
    place: 'anywhere',
    keys: ['h'],
    words: 'laboratory settings levels dB save restore',
  },
  'all-runs': {
    name: 'Runs of the library against the estimate',
    place: 'anywhere',
    words: 'residuals measured foretold',
  },
  'bench-day': {
    name: 'Bench day',
    place: 'anywhere',
    words: 'order timetable schedule runs openings calendar',
  },
  units: { name: 'Units', place: 'anywhere', keys: ['u'], words: 'mm inch celsius fahrenheit' },
  theme: { name: 'Light or dim screen', place: 'anywhere', words: 'theme dark night' },
  'library-new': { name: 'New machine', place: 'library', keys: ['n'], keyOnly: true },
  'library-count': {
    name: 'Quick count: a first answer in a minute',
    place: 'library',
    keys: ['q'],
    words: 'new machine fast fans pipes fins',
  },
  'library-find': { name: 'Search', place: 'library', keys: ['f'], keyOnly: true },
  'library-filter': {
    name: 'Filters',
    place: 'library',
    keys: ['g'],
    words: 'narrow chamber fans mass',
  },
  'library-exchange': {
    name: 'Import and export',
    place: 'library',
    keys: ['x'],
    words: 'files zip csv json backup',
  },
  'library-rows': {
    name: 'Into the list: arrows, Space chooses, Shift reaches, Enter opens',
    place: 'library',
    keys: ['ArrowDown'],
    shown: ['↓'],
    keyOnly: true,
  },
  'compare-chosen': {
    name: 'Compare the chosen machines',
    place: 'library',
    keys: ['c'],
    words: 'side by side difference',
  },
  'library-aside': { name: 'Show put aside', place: 'library', words: 'deleted removed archive' },
  undo: {
    name: 'Undo',
    place: 'machine',
    keys: ['mod+z'],
    shown: ['Ctrl', 'Z'],
    words: 'back revert',
  },
  redo: {
    name: 'Redo',
    place: 'machine',
    keys: ['shift+mod+z', 'mod+y'],
    shown: ['Ctrl', 'Shift', 'Z'],
  },
  identify: {
    name: 'Identify',
    place: 'machine',
    keys: ['i'],
    words: 'maker model unit serial state variant',
  },
  count: { name: 'Quick count', place: 'machine', keys: ['q'], words: 'fans pipes fins counted' },
  outside: {
    name: 'Outside',
    place: 'machine',
    keys: ['o'],
    words: 'shell vents room noise microphone',
  },
  'open-up': { name: 'Open up', place: 'machine', keys: ['l'], words: 'log screws steps' },
  cooling: { name: 'Cooling', place: 'machine', keys: ['k'], words: 'dies pipes fins fans' },
  estimate: { name: 'Estimate', place: 'machine', keys: ['e'], words: 'envelope watts' },
  runs: {
    name: 'Runs',
    place: 'machine',
    keys: ['g'],
    words: 'load logs bench sustained measured',
  },
  levers: {
    name: 'Levers',
    place: 'machine',
    keys: ['9'],
    words: 'what would help paste clean strip fan plan gain',
  },
  verdict: {
    name: 'Verdict',
    place: 'machine',
    keys: ['0'],
    words: 'judge publish report pdf peers opinions',
  },
  photos: {
    name: 'Photos and papers',
    place: 'machine',
    keys: ['p'],
    words: 'pictures images pdf',
  },
  history: { name: 'History', place: 'machine', keys: ['y'], words: 'revisions versions changes' },
  'bench-sheet': {
    name: 'Bench sheet: what is still open, to print',
    place: 'machine',
    words: 'print measure list open figures',
  },
  export: { name: 'Export this record', place: 'machine', words: 'save file json download' },
  'new-state': {
    name: 'New state of this unit',
    place: 'identify',
    words: 'copy cleaned repasted',
  },
  'new-unit': { name: 'Another unit of this variant', place: 'identify', words: 'copy serial' },
  'new-variant': { name: 'Sibling variant', place: 'identify', words: 'copy configuration' },
  'rename-state': { name: 'Name of this state', place: 'identify', words: 'rename' },
  compare: {
    name: 'Compare with another machine of its model',
    place: 'identify',
    words: 'side by side difference',
  },
  readout: { name: 'Ladder: together, CPU alone, GPU alone', place: 'machine', keys: ['t'] },
  band: {
    name: 'A finer band, or cancel it',
    place: 'machine',
    keys: ['b'],
    words: 'draws uncertainty',
  },
  'add-part': { name: 'Add a part', place: 'cooling', keys: ['n'], words: 'new fan pipe stack' },
  'copy-part': { name: 'Copy the last part', place: 'cooling', keys: ['c'], words: 'duplicate' },
  'part-kinds': {
    name: 'Dies, plates, heat pipes, fin stacks, fans, vents, strips, pads',
    place: 'cooling',
    keys: ['1', '2', '3', '4', '5', '6', '7', '8'],
    shown: ['1', '…', '8'],
    keyOnly: true,
  },
  'add-vent': { name: 'Add a vent', place: 'outside', keys: ['n'], words: 'new opening grille' },
  'over-time': {
    name: 'Over time, or the envelope',
    place: 'estimate',
    keys: ['w'],
    words: 'firmware simulation minutes',
  },
  'next-die': { name: 'The next die', place: 'estimate', keys: ['d'] },
  readings: {
    name: 'All readings, or where the kelvins go',
    place: 'estimate',
    keys: ['r'],
    words: 'temperatures',
  },
  along: {
    name: 'Along a line, quieter, louder',
    place: 'estimate',
    keys: ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'],
    shown: ['←', '→', '↑', '↓'],
    keyOnly: true,
  },
  'new-run': { name: 'New run', place: 'runs', keys: ['n'], words: 'load plan' },
  'next-run': { name: 'The next run', place: 'runs', keys: ['d'] },
  'add-log': { name: 'Add logs to the run', place: 'runs', keys: ['a'], words: 'file csv import' },
  'run-use': { name: 'Fit with the run, hold it out, leave it out', place: 'runs', keys: ['v'] },
  inbox: {
    name: 'Inbox: follow a log that grows',
    place: 'runs',
    keys: ['j'],
    words: 'folder share live logger watch',
  },
  'run-plan': {
    name: 'Plan of runs: what to run next',
    place: 'runs',
    keys: ['r'],
    words: 'loads order narrow',
  },
  calibration: {
    name: 'Calibration: what the runs taught',
    place: 'runs',
    keys: ['c'],
    words: 'fit multipliers calibrate versions',
  },
  'fan-sweep': {
    name: 'Fan sweep out of the runs',
    place: 'runs',
    keys: ['1'],
    words: 'rpm level noise speeds',
  },
  'take-sweep': { name: 'Take the sweep into the record', place: 'runs', keys: ['2'] },
  'live-meter': {
    name: 'Live level meter',
    place: 'runs',
    keys: ['3'],
    words: 'microphone sound calibrator background',
  },
  'meter-listen': { name: 'Listen, or stop', place: 'runs', keys: ['4'] },
  'meter-again': { name: 'Begin the mean anew', place: 'runs', keys: ['5'] },
  'bring-run': { name: 'Bring a run in from a zip', place: 'runs', words: 'import' },
  'check-next': {
    name: 'The step of the run is done',
    place: 'runs',
    keys: ['Enter'],
    keyOnly: true,
  },
  'check-back': {
    name: 'The step before is not',
    place: 'runs',
    keys: ['Backspace'],
    keyOnly: true,
  },
  'fit-now': { name: 'Fit to the runs, or cancel it', place: 'runs', keys: ['f'] },
  'use-fit': {
    name: 'Let the estimate stand on the newest fit, or on none',
    place: 'runs',
    keys: ['w'],
  },
  'run-zoom': { name: 'Zoom to the window, or the whole run', place: 'runs', keys: ['z'] },
  'run-overlay': {
    name: 'Another run under this one',
    place: 'runs',
    keys: ['x'],
    words: 'overlay compare',
  },
  'run-simulation': { name: 'The simulation under the run', place: 'runs', keys: ['s'] },
  'run-window': {
    name: 'Window of the steady state: earlier, later, wider, narrower',
    place: 'runs',
    keys: ['ArrowLeft', 'ArrowRight', '+', '-'],
    shown: ['←', '→', '+', '−'],
    keyOnly: true,
  },
  'lever-cap': {
    name: 'Louder, quieter',
    place: 'levers',
    keys: ['ArrowUp', 'ArrowDown'],
    shown: ['↑', '↓'],
    keyOnly: true,
  },
  'lever-order': {
    name: 'Order: by watts per minute, by watts, by work',
    place: 'levers',
    keys: ['r'],
    words: 'rank sort',
  },
  'lever-list': {
    name: 'Into the list: arrows, Space chooses, Enter opens',
    place: 'levers',
    keys: ['a'],
    keyOnly: true,
  },
  'lever-plan': {
    name: 'Make the chosen levers a plan',
    place: 'levers',
    keys: ['n'],
    words: 'checklist promise',
  },
  'next-plan': { name: 'The next plan, or back to the levers', place: 'levers', keys: ['d'] },
  'copy-settings': {
    name: 'Copy the proposed settings',
    place: 'levers',
    keys: ['c'],
    words: 'limits quiet balanced full card',
  },
  'plan-next': {
    name: 'The step of the plan is done',
    place: 'levers',
    keys: ['Enter'],
    keyOnly: true,
  },
  'plan-back': {
    name: 'The step before is not',
    place: 'levers',
    keys: ['Backspace'],
    keyOnly: true,
  },
  bench: { name: 'Bench mode', place: 'open-up', keys: ['f'], words: 'keypad full screen' },
  'way-back': { name: 'The way back', place: 'open-up', keys: ['v'], words: 'reassemble tighten' },
  steps: { name: 'Steps and screws', place: 'open-up', keys: ['1'] },
  parts: { name: 'Parts and connectors', place: 'open-up', keys: ['2'], words: 'ledger' },
  score: { name: 'Service score', place: 'open-up', keys: ['3'], words: 'repair' },
  guide: { name: 'Guide', place: 'open-up', keys: ['4'], words: 'print publish' },
  'day-order': { name: 'Put the day in order', place: 'bench-day', keys: ['o'] },
  'day-mark': {
    name: 'What is due begins, what is under way is done',
    place: 'bench-day',
    keys: ['d'],
  },
  'day-calendar': {
    name: 'Save the day as iCalendar',
    place: 'bench-day',
    keys: ['i'],
    words: 'ics export',
  },
} satisfies Record<string, CommandEntry>;

export type CommandId = keyof typeof COMMANDS;
export const COMMAND_IDS = Object.keys(COMMANDS) as CommandId[];
export const commandOf = (id: CommandId): CommandEntry => COMMANDS[id];

/** Keys that a field or a view has of its own, for the sheet. */
export const FIELD_KEYS: readonly [readonly string[], string][] = [
  [['Enter'], 'in a field: the next one; Shift goes back, Escape leaves'],
  [['Ctrl', 'Enter'], 'in a figure: its ±, origin, note and photos'],
  [['F1'], 'in a field of the record: how it is measured'],
  [['Space'], 'on a part’s grip along a pipe: pick up, move with arrows, put down'],
  [
    ['←', '→'],
    'in a photo: the one before, the next; c covers, l looked at, z full size, d a copy, Del puts aside',
  ],
  [['A'], 'on the screw map: the group; arrows move, Enter logs, takes out, puts back'],
  [
    ['1', '+', '*', '/'],
    'at the bench: a screw of group A to I, one more, a connector, everything else; . the clock, Enter on',
  ],
];

type Run = (key?: string) => void;
const standing = new Map<CommandId, Run[]>();
const told = new Set<() => void>();
let list: readonly CommandId[] = [];
/** Asked for from a list while its screen is not there yet. */
let waiting: CommandId | null = null;

const tell = () => {
  list = [...standing.keys()];
  for (const t of told) t();
};

function bind(id: CommandId, run: Run): () => void {
  standing.set(id, [...(standing.get(id) ?? []), run]);
  tell();
  if (waiting === id) {
    waiting = null;
    queueMicrotask(() => run());
  }
  return () => {
    const rest = (standing.get(id) ?? []).filter((r) => r !== run);
    if (rest.length) standing.set(id, rest);
    else standing.delete(id);
    tell();
  };
}

/** Gives a command; one whose screen is not there yet is given as soon as it is. */
export function giveCommand(id: CommandId): boolean {
  const run = standing.get(id)?.at(-1);
  if (run) run();
  else waiting = id;
  return run !== undefined;
}

/** Commands that can be given right now. */
export function useStanding(): readonly CommandId[] {
  return useSyncExternalStore(
    (t) => {
      told.add(t);
      return () => void told.delete(t);
    },
    () => list,
  );
}

/**
 * What commands do while this component is shown: their keys work, and the palette offers them.
 *
 * @param first before those of the page around it, such as an undo of its own
 */
export function useCommands(runs: Partial<Record<CommandId, Run>>, first = false): void {
  const latest = useRef(runs);
  useLayoutEffect(() => {
    latest.current = runs;
  });
  const ids = Object.keys(runs).join(' ');
  useEffect(() => {
    const ends = (ids.split(' ').filter(Boolean) as CommandId[]).map((id) =>
      bind(id, (key) => latest.current[id]?.(key)),
    );
    return () => ends.forEach((end) => end());
  }, [ids]);
  const keys = Object.fromEntries(
    (Object.keys(runs) as CommandId[]).flatMap((id) =>
      (commandOf(id).keys ?? []).map((key) => [key, () => runs[id]?.(key)]),
    ),
  );
  useKeys(keys, true, first);
}
