import { SHELL_MATERIALS } from '@zugluft/core/record/recordSchema';
import { ChoiceInput } from '../../documents/record/ChoiceInput';
import { FieldRow } from '../../kit/FieldRow';
import { FigureInput } from '../../documents/record/FigureInput';
import { RowsEditor } from '../../documents/record/RowsEditor';
import { partsOf } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { VentPlan } from './VentPlan';

const SHELL: [string, string, string, boolean][] = [
  ['widthMm', 'Width', 'mm', true],
  ['depthMm', 'Depth', 'mm', true],
  ['thicknessMm', 'Thickness', 'mm', false],
  ['massKg', 'Mass', 'kg', false],
  ['footHeightMm', 'Height of the feet', 'mm', true],
  ['skinLimitC', 'Skin limit', '°C', true],
];

/** The shell with its vents, how it stands and the room around it. */
export function OutsideStep() {
  const { draft } = useMachineFile();
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] md:grid-cols-[17rem_minmax(0,1fr)] gap-x-8 gap-y-6 content-start">
      <div className="grid grid-cols-[minmax(0,1fr)] gap-6 content-start">
        <section aria-label="shell">
          <h2 className="font-semibold mb-1">Shell</h2>
          {SHELL.map(([field, name, unit, assumed]) => (
            <FieldRow key={field} name={name} unit={unit}>
              <FigureInput
                path={['shell', field]}
                label={name}
                unit={unit}
                assumedPath={assumed ? `shell.${field}` : undefined}
              />
            </FieldRow>
          ))}
          <FieldRow name="Material">
            <ChoiceInput
              path={['shell', 'material']}
              label="Material"
              options={SHELL_MATERIALS}
              empty="mixed?"
            />
          </FieldRow>
          <FieldRow name="Finish">
            <ChoiceInput
              path={['shell', 'finish']}
              label="Finish"
              options={['painted', 'bare', 'coated']}
              empty="painted?"
            />
          </FieldRow>
          <p className="text-[0.85rem] text-quiet pt-2">
            Surfaces above the touch limits of IEC 62368-1 and ISO 13732-1 can burn.
          </p>
        </section>
        <section aria-label="room">
          <h2 className="font-semibold mb-1">Room</h2>
          <FieldRow name="Temperature" unit="°C">
            <FigureInput
              path={['room', 'temperatureC']}
              label="Temperature"
              unit="°C"
              assumedPath="room.temperatureC"
            />
          </FieldRow>
          <FieldRow name="Altitude" unit="m">
            <FigureInput
              path={['room', 'altitudeM']}
              label="Altitude"
              unit="m"
              assumedPath="room.altitudeM"
            />
          </FieldRow>
          <FieldRow name="Stands on">
            <ChoiceInput
              path={['room', 'surface']}
              label="Stands on"
              options={['desk', 'soft', 'stand']}
              empty="desk?"
            />
          </FieldRow>
          <FieldRow name="Lid">
            <ChoiceInput
              path={['room', 'lid']}
              label="Lid"
              options={['open', 'closed']}
              empty="open?"
            />
          </FieldRow>
        </section>
        <section aria-label="microphone">
          <h2 className="font-semibold mb-1">Microphone</h2>
          <FieldRow name="Distance" unit="m">
            <FigureInput path={['noise', 'distanceM']} label="Distance" unit="m" />
          </FieldRow>
          <FieldRow name="Background" unit="dB(A)">
            <FigureInput path={['noise', 'backgroundDbA']} label="Background" unit="dB(A)" />
          </FieldRow>
          <p className="text-[0.85rem] text-quiet pt-2">
            Without a distance 0.5 m is taken. Caps mean the machine alone, at that place.
          </p>
        </section>
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-6 content-start">
        <VentPlan />
        <section aria-label="sweep">
          <RowsEditor
            path={['noise', 'sweep']}
            columns={[
              ...partsOf(draft, 'fans').map((f) => ({
                path: ['rpm', f.id],
                header: f.id,
                unit: 'rpm',
              })),
              { path: ['dbA'], header: 'level', unit: 'dB(A)' },
            ]}
            title="Level over fan speed"
            empty="No sweep: a curve for the kind of fan is taken. Speeds of each fan and the level, background included."
          />
        </section>
      </div>
    </div>
  );
}
