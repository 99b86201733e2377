import { STEPS } from '../features/machine/steps';
import { Kbd } from '../kit/Kbd';
import { Modal } from '../kit/Modal';

const KEYS: [string, string[], string][] = [
  ['/', ['/'], 'find a machine or do something'],
  ['?', ['?'], 'this sheet'],
  ['undo', ['Ctrl', 'Z'], 'undo'],
  ['redo', ['Ctrl', 'Shift', 'Z'], 'redo'],
  ...STEPS.map((s): [string, string[], string] => [
    s.path,
    [s.key],
    `in a machine’s file: ${s.name.toLowerCase()}`,
  ]),
  ['1', ['1'], 'to 8, in cooling: dies, plates, heat pipes, fin stacks, fans, vents, strips, pads'],
  ['n', ['n'], 'add a part; in the library, a new machine'],
  ['g', ['g'], 'in the library: filters'],
  ['x', ['x'], 'in the library: import and export'],
  ['c', ['c'], 'copy the last part'],
  ['t', ['t'], 'ladder: together, CPU alone, GPU alone'],
  ['b', ['b'], 'make a finer band, or cancel it'],
  ['d', ['d'], 'in the estimate: the next die'],
  ['r', ['r'], 'in the estimate: all readings, or where the kelvins go'],
  ['w', ['w'], 'in the estimate: over time, or the envelope'],
  ['p', ['p'], 'in a machine’s file: photos and papers'],
  ['y', ['y'], 'in a machine’s file: history'],
  ['u', ['u'], 'units'],
  ['next', ['Enter'], 'in a figure: the next one; Shift goes back, Escape leaves'],
  ['detail', ['Ctrl', 'Enter'], 'in a figure: its ±, origin, note and photos'],
  ['m', ['m'], 'method and defaults'],
  ['h', ['h'], 'house rules'],
  ['arrows', ['←', '→', '↑', '↓'], 'in the estimate: along a line, quieter, louder'],
  [
    'photo',
    ['←', '→'],
    'in a photo: the one before, the next; c covers, z full size, d a copy, Del puts aside',
  ],
  ['map', ['A'], 'on the screw map: the group; arrows move, Enter logs, takes out, puts back'],
  ['back', ['v'], 'in open up: the way back'],
  ['views', ['1'], 'to 4, in open up: steps and screws, parts, service score, guide'],
  ['f', ['f'], 'in open up: bench mode; what each key does stands on its screen'],
  [
    'bench',
    ['1', '+', '*', '/'],
    'at the bench: a screw of group A to I, one more, a connector, everything else; . the clock, Enter on',
  ],
  ['move', ['Space'], 'on a part’s grip along a pipe: pick up, move with arrows, put down'],
];

/** Every key of the daily round. */
export function KeySheet({ open, close }: { open: boolean; close: () => void }) {
  return (
    <Modal title="Keys" open={open} onClose={close}>
      <dl className="grid grid-cols-[9rem_1fr] gap-y-1.5">
        {KEYS.map(([id, keys, words]) => (
          <div key={id} className="contents">
            <dt className="flex gap-1">
              {keys.map((k) => (
                <Kbd key={k}>{k}</Kbd>
              ))}
            </dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
      <p className="text-[0.85rem] text-quiet mt-3">
        Single keys work where no field is focused. Escape closes.
      </p>
    </Modal>
  );
}
