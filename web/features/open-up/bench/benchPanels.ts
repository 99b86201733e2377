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
  | 'further'
  | 'hidden'
  | 'plug-name'
  | 'plug-typed'
  | 'lead'
  | 'lead-typed'
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

const PLUG_NAMES = [
  'battery',
  'left fan',
  'right fan',
  'display',
  'keyboard',
  'touchpad',
  'speakers',
  'port board',
  'aerial',
];
const LEAD_ENDS = [
  'black to main',
  'white to aux',
  'black to 1',
  'white to 2',
  'grey to the third',
  'rear edge',
  'front edge',
  'left edge',
  'right edge',
];

/** The connector that is spoken of. */
const plugWords = (bench: Bench) => bench.lastPlug?.name ?? 'the last connector';

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
            // what was done already is the least likely to come next
            [...NEXT_ACTS]
              .sort((a, b) => Number(bench.doneActs.has(a)) - Number(bench.doneActs.has(b)))
              .map((act) => ({
                words: bench.nameOf(act),
                run: () => bench.begin(bench.nameOf(act), act, where),
              })),
          ),
          {
            key: '0',
            words: 'something else, typed',
            run: () => ui.open(name === 'next' ? 'name' : 'name-earlier'),
          },
          ...(name === 'next' && bench.plan
            ? [{ key: '+', words: 'the usual steps', run: bench.plan }]
            : []),
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
            { words: 'something else', run: () => ui.open('further') },
          ]),
          { key: 'c', words: `several ${bench.letter} at once`, run: () => ui.open('count') },
          { key: 'a', words: 'all expected screws are out', run: () => bench.takeAllExpected() },
          { key: 'v', words: 'the way back', run: ui.turn },
        ],
      };
    case 'further':
      return {
        title: 'What else?',
        choices: numbered([
          { words: 'a strip', run: () => ui.open('strip') },
          { words: 'the last screw was hidden, or is captive', run: () => ui.open('hidden') },
          { words: `what ${plugWords(bench)} is called`, run: () => ui.open('plug-name') },
          { words: `where ${plugWords(bench)} goes`, run: () => ui.open('lead') },
          { words: `several ${bench.letter} at once`, run: () => ui.open('count') },
          { words: 'all expected screws are out', run: () => bench.takeAllExpected() },
          { words: 'the way back', run: ui.turn },
        ]),
      };
    case 'hidden':
      return {
        title: 'What was it hidden under?',
        choices: numbered([
          ...(
            [
              ['foot', 'a foot'],
              ['cover', 'a stick-on cover'],
              ['card-dummy', 'a card dummy'],
              ['seal', 'a seal'],
              ['label', 'a label'],
            ] as const
          ).map(([under, words]) => ({ words, run: () => bench.hidden(under) })),
          { words: 'nothing: it is captive', run: () => bench.hidden('captive') },
        ]),
      };
    case 'plug-name':
      return {
        title: `What is ${plugWords(bench)} called?`,
        choices: [
          ...numbered(
            PLUG_NAMES.map((n) => ({ words: n, run: () => bench.tellPlug({ name: n }) })),
          ),
          { key: '0', words: 'otherwise, typed', run: () => ui.open('plug-typed') },
        ],
      };
    case 'plug-typed':
      return {
        title: `What is ${plugWords(bench)} called?`,
        choices: [],
        typed: {
          label: 'name of the connector',
          run: (text) => bench.tellPlug({ name: text.slice(0, 80) }),
        },
      };
    case 'lead':
      return {
        title: `Where does ${plugWords(bench)} go?`,
        choices: [
          ...numbered(LEAD_ENDS.map((n) => ({ words: n, run: () => bench.tellPlug({ lead: n }) }))),
          { key: '0', words: 'elsewhere, typed', run: () => ui.open('lead-typed') },
        ],
      };
    case 'lead-typed':
      return {
        title: `Where does ${plugWords(bench)} go?`,
        choices: [],
        typed: {
          label: 'where the lead goes',
          run: (text) => bench.tellPlug({ lead: text.slice(0, 80) }),
        },
      };
  }
}
