import { Fragment } from 'react';
import { commandOf, COMMAND_IDS, FIELD_KEYS, type CommandPlace } from '../documents/commands';
import { Kbd } from '../kit/Kbd';
import { Modal } from '../kit/Modal';

const PLACES: [CommandPlace, string][] = [
  ['anywhere', 'Everywhere'],
  ['library', 'In the library'],
  ['machine', 'In a machine’s file'],
  ['identify', 'Identify'],
  ['outside', 'Outside'],
  ['open-up', 'Open up'],
  ['cooling', 'Cooling'],
  ['estimate', 'Estimate'],
  ['runs', 'Runs'],
  ['levers', 'Levers'],
  ['verdict', 'Verdict'],
  ['bench-day', 'Bench day'],
];

/** Every key of the daily round. */
export function KeySheet({ open, close }: { open: boolean; close: () => void }) {
  const rows = PLACES.map(([place, title]) => ({
    title,
    commands: COMMAND_IDS.map(commandOf).filter((c) => c.place === place && c.keys),
  })).filter((p) => p.commands.length);
  return (
    <Modal title="Keys" open={open} onClose={close}>
      <div className="grid grid-cols-[9rem_1fr] gap-y-1.5">
        {rows.map(({ title, commands }) => (
          <Fragment key={title}>
            <h3 className="col-span-2 font-semibold text-[0.9rem] pt-2">{title}</h3>
            {commands.map(({ name, keys = [], shown = keys }) => (
              <div key={name} className="contents">
                <p className="flex items-start gap-1">
                  {shown.map((k) => (
                    <Kbd key={k}>{k}</Kbd>
                  ))}
                </p>
                <p>{name}</p>
              </div>
            ))}
          </Fragment>
        ))}
        <h3 className="col-span-2 font-semibold text-[0.9rem] pt-2">In fields and views</h3>
        {FIELD_KEYS.map(([keys, words]) => (
          <div key={words} className="contents">
            <p className="flex items-start gap-1">
              {keys.map((k) => (
                <Kbd key={k}>{k}</Kbd>
              ))}
            </p>
            <p>{words}</p>
          </div>
        ))}
      </div>
      <p className="text-small text-quiet mt-3">
        Single keys work where no field is focused. Escape closes.
      </p>
    </Modal>
  );
}
