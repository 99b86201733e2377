import type { StepKind } from '@zugluft/core/service/openUpLog';
import type { Bench } from './useBench';

interface Choice {
  key: string;
  words: string;
  run: () => void;
}

export interface Panel {
  title: string;
  choices: Choice[];
  /** A line that can be typed instead. */
  typed?: { label: string; run: (text: string) => void };
}

export type PanelName =
  | 'next'
  | 'earlier'
  | 'name'
  | 'name-earlier'
  | 'count'
  | 'connector'
  | 'part'
  | 'strip'
  | 'note'
  | 'more'
  | 'posture'
  | 'layer'
  | 'layer-name';

const NEXT_ACTS: readonly StepKind[] = [
  'cover',
  'battery',
  'plugs',
  'leads',
  'card',
  'sink',
  'clean',
  'renew',
  'layer',
];
const LAYER_NAMES = [
  'hatch',
  'rear cover',
  'keyboard',
  'palm rest',
  'mid-frame',
  'heat sink',
  'board',
  'display',
];

/** Choices by digit, the first being 1; a tenth is 0. */
const numbered = (list: readonly { words: string; run: () => void }[]): Choice[] =>
  list.slice(0, 10).map((c, i) => ({ ...c, key: String((i + 1) % 10) }));

/**
 * What a panel of the bench offers; each is chosen by one digit.
 *
 * @param bench what the choices do
 * @param ui opens another panel, the camera, the end of the step
 */
export function benchPanel(
  name: PanelName,
  bench: Bench,
  ui: {
    open: (panel: PanelName) => void;
    photo: () => void;
    end: (state: 'skipped' | 'went-wrong') => void;
    turn: () => void;
  },
): Panel {
  switch (name) {
    case 'next':
    case 'earlier': {
      const where = name === 'next' ? 'after' : 'before';
      return {
        title: name === 'next' ? 'What comes next?' : 'What was done before this?',
        choices: [
          ...numbered(
            NEXT_ACTS.map((act) => ({
              words: bench.nameOf(act),
              run: () => bench.begin(bench.nameOf(act), act, where),
            })),
          ),
          {
            key: '0',
            words: 'something else, typed',
            run: () => ui.open(name === 'next' ? 'name' : 'name-earlier'),
          },
          ...(name === 'next' && bench.log.steps.length > 0
            ? [{ key: 'v', words: 'all open: the way back', run: ui.turn }]
            : []),
        ],
      };
    }
    case 'name':
    case 'name-earlier':
      return {
        title: 'What is the step called?',
        choices: [],
        typed: {
          label: 'name of the step',
          run: (text) => bench.begin(text, undefined, name === 'name' ? 'after' : 'before'),
        },
      };
    case 'count':
      return {
        title: `How many more ${bench.letter}?`,
        choices: Array.from({ length: 9 }, (_, i) => ({
          key: String(i + 1),
          words: `${i + 1} × ${bench.letter}`,
          run: () => bench.takeSeveral(i + 1),
        })),
      };
    case 'connector':
      return {
        title: 'How does it let go?',
        choices: numbered([
          { words: 'slides out', run: () => bench.unplug('slide-out') },
          { words: 'pull tab', run: () => bench.unplug('pull-tab') },
          { words: 'by its ears, never by the wires', run: () => bench.unplug('by-its-ears') },
          { words: 'flip the latch', run: () => bench.unplug('flip-latch') },
          { words: 'pressed on, an antenna lead', run: () => bench.unplug('press-on') },
          { words: 'hold-down bar', run: () => bench.unplug('hold-down-bar') },
          { words: 'otherwise', run: () => bench.unplug('other') },
        ]),
      };
    case 'part':
      return {
        title: 'Which part?',
        choices: numbered(
          (
            [
              'battery',
              'fan',
              'heat-sink',
              'memory',
              'storage',
              'wireless-card',
              'port',
              'power-jack',
              'keyboard',
              'other',
            ] as const
          ).map((kind) => ({ words: kind.replace(/-/g, ' '), run: () => bench.part(kind) })),
        ),
      };
    case 'strip':
      return {
        title: 'What is the strip for?',
        choices: numbered([
          { words: 'seals the duct', run: () => bench.strip('duct-seal') },
          { words: 'shielding film', run: () => bench.strip('shielding-film') },
          { words: 'holds a cable', run: () => bench.strip('cable-hold') },
          { words: 'not known: it stays', run: () => bench.strip('unknown') },
        ]),
      };
    case 'note':
      return {
        title: 'Note',
        choices: [],
        typed: { label: 'note on the step', run: (text) => bench.note(text) },
      };
    case 'posture':
      return {
        title: 'How does it lie?',
        choices: numbered([
          { words: 'base up', run: () => bench.posture('base-up') },
          { words: 'lid up', run: () => bench.posture('lid-up') },
          { words: 'lid at a right angle', run: () => bench.posture('lid-at-right-angle') },
          { words: 'standing on its edge', run: () => bench.posture('standing') },
        ]),
      };
    case 'layer': {
      const known = bench.log.layers.slice(0, 6);
      const others = LAYER_NAMES.filter((n) => !bench.log.layers.some((l) => l.name === n));
      return {
        title: 'Which layer?',
        choices: [
          ...numbered(
            [
              ...known.map((l) => ({ words: l.name, run: () => bench.onLayer(l.id) })),
              ...others.map((n) => ({ words: `new: ${n}`, run: () => bench.newLayer(n) })),
            ].slice(0, 9),
          ),
          { key: '0', words: 'another one, typed', run: () => ui.open('layer-name') },
        ],
      };
    }
    case 'layer-name':
      return {
        title: 'What is the layer called?',
        choices: [],
        typed: { label: 'name of the layer', run: (text) => bench.newLayer(text.slice(0, 80)) },
      };
    case 'more':
      return {
        title: 'What is to be logged?',
        choices: [
          ...numbered([
            { words: 'a part', run: () => ui.open('part') },
            { words: 'a photo', run: ui.photo },
            { words: 'a note', run: () => ui.open('note') },
            { words: 'a time stamp', run: () => bench.stamp() },
            { words: 'step skipped', run: () => ui.end('skipped') },
            { words: 'step went wrong', run: () => ui.end('went-wrong') },
            { words: 'an earlier step, remembered late', run: () => ui.open('earlier') },
            { words: 'layer', run: () => ui.open('layer') },
            { words: 'posture', run: () => ui.open('posture') },
            { words: 'a strip', run: () => ui.open('strip') },
          ]),
          { key: 'c', words: `several ${bench.letter} at once`, run: () => ui.open('count') },
          { key: 'a', words: 'all expected screws are out', run: () => bench.takeAllExpected() },
          { key: 'v', words: 'the way back', run: ui.turn },
        ],
      };
  }
}
