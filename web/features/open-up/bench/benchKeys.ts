import { groupKeys, letterOf } from './groupKeys';
import type { StripKey } from './KeyStrip';
import type { PanelName } from './benchPanels';
import type { Bench } from './useBench';

const STEP_MM = 5;

/** What keys ask of the page around the bench. */
export interface BenchUi {
  open: (panel: PanelName) => void;
  photo: () => void;
  end: (state: 'done' | 'skipped' | 'went-wrong') => void;
  turn: () => void;
  leave: () => void;
}

/** Keys that are shown while the machine is opened. */
function openStrip(bench: Bench, { open, end }: BenchUi): StripKey[] {
  const { log, step } = bench;
  return [
    ...groupKeys(log, 'open').map(({ key, words, letter }) => ({
      key,
      words,
      run: () => bench.take(letter),
    })),
    { key: '+', words: `one more ${bench.letter}`, run: () => bench.take(bench.letter) },
    { key: '0', words: 'hole was empty', run: bench.missing, off: !bench.canMiss },
    { key: '*', words: 'connector', run: () => open('connector') },
    { key: '/', words: 'more', run: () => open('more') },
    { key: '.', words: step?.runningSince ? 'pause' : 'clock', run: bench.clock },
    { key: '-', words: 'step before', run: bench.before, off: bench.index < 1 },
    {
      key: 'Enter',
      words: bench.unread.length ? 'cautions read' : 'done, next',
      run: () => (bench.unread.length ? bench.read() : end('done')),
      main: true,
    },
  ];
}

/** Keys that are shown on the way back. */
function backStrip(bench: Bench, { leave }: BenchUi): StripKey[] {
  const { log } = bench;
  return bench.back
    ? [
        ...groupKeys(log, bench.back).map(({ key, words, letter }) => ({
          key,
          words,
          run: () => bench.putBack(letter),
        })),
        {
          key: '+',
          words: `one more ${bench.letter}`,
          run: () => bench.putBack(bench.letter),
          off: !bench.back.screws.length,
        },
        {
          key: 'a',
          words: 'all of this step',
          run: bench.putAllBack,
          off: !bench.back.screws.length,
        },
        { key: '0', words: 'one is lost', run: bench.lost, off: !bench.back.screws.length },
        { key: '*', words: 'plug in', run: bench.plug, off: !bench.back.connectors.length },
        { key: '-', words: 'before', run: bench.before, off: bench.backIndex < 1 },
        { key: 'Enter', words: 'done, next', run: bench.endBackStep, main: true },
      ]
    : [
        { key: '-', words: 'before', run: bench.before, off: bench.backIndex < 1 },
        { key: 'Enter', words: 'leave the bench', run: leave, main: true },
      ];
}

/** Keys that are shown. */
export const stripKeys = (bench: Bench, ui: BenchUi): StripKey[] =>
  bench.side === 'open' ? openStrip(bench, ui) : backStrip(bench, ui);

/**
 * Does what a key does at the bench while nothing is asked.
 *
 * @returns whether it does anything
 */
export function runBenchKey(key: string, bench: Bench, ui: BenchUi): boolean {
  const { side } = bench;
  const opening: Record<string, () => void> = {
    ArrowLeft: () => bench.nudge(-STEP_MM, 0),
    ArrowRight: () => bench.nudge(STEP_MM, 0),
    ArrowUp: () => bench.nudge(0, -STEP_MM),
    ArrowDown: () => bench.nudge(0, STEP_MM),
    ',': bench.clock,
    c: () => ui.open('count'),
    p: () => ui.open('part'),
    f: ui.photo,
    n: () => ui.open('note'),
    t: bench.stamp,
    s: () => ui.end('skipped'),
    w: () => ui.end('went-wrong'),
    e: () => ui.open('earlier'),
    l: () => ui.open('layer'),
    b: () => ui.open('posture'),
    r: () => ui.open('strip'),
    a: bench.takeAllExpected,
    h: () => ui.open('hidden'),
    k: () => ui.open('plug-name'),
    d: () => ui.open('lead'),
  };
  const run: Record<string, () => void> = {
    Escape: ui.leave,
    Backspace: bench.undo,
    v: ui.turn,
    ...(side === 'open' ? opening : {}),
    ...Object.fromEntries(stripKeys(bench, ui).map((k) => [k.key, k.run])),
  };
  if (/^[1-9]$/.test(key)) {
    if (side === 'open') bench.take(letterOf(key));
    else bench.putBack(letterOf(key));
    return true;
  }
  const does = run[key.length === 1 ? key.toLowerCase() : key];
  does?.();
  return does !== undefined;
}
