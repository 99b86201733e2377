import type { UnitPreference } from '@zugluft/core/record/units';
import { Modal } from '../kit/Modal';
import { useUnits } from '../kit/units';

const CHOICES: [keyof UnitPreference, string, readonly string[]][] = [
  ['length', 'Lengths', ['mm', 'in']],
  ['temperature', 'Temperatures', ['°C', '°F']],
  ['altitude', 'Altitude and distance', ['m', 'ft']],
];

/** In which units figures are shown, and read where none is typed. */
export function UnitsDialog({ open, close }: { open: boolean; close: () => void }) {
  const { units, choose } = useUnits();
  return (
    <Modal title="Units" open={open} onClose={close}>
      {CHOICES.map(([quantity, name, options]) => (
        <fieldset key={quantity} className="flex gap-4 items-center border-b border-rule py-1.5">
          <legend className="float-left w-44 text-quiet">{name}</legend>
          {options.map((o) => (
            <label key={o} className="flex gap-1.5 items-center cursor-pointer">
              <input
                type="radio"
                className="radio radio-xs"
                name={quantity}
                checked={units[quantity] === o}
                onChange={() => choose({ ...units, [quantity]: o })}
              />
              {o}
            </label>
          ))}
        </fieldset>
      ))}
      <p className="text-small text-quiet mt-3">
        Records, exports and the command keep mm, °C and m. In a figure any unit may be typed: 0.3
        in, 2,5 cm, 7.4 mm ± 0.1, 45 %.
      </p>
      <button type="button" className="btn btn-sm mt-3" onClick={close}>
        Done
      </button>
    </Modal>
  );
}
