import { RecordField } from '../../documents/record/RecordField';
import { RowsEditor } from '../../documents/record/RowsEditor';
import { partsOf } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { VentPlan } from './VentPlan';

const SHELL = [
  'widthMm',
  'depthMm',
  'thicknessMm',
  'massKg',
  'footHeightMm',
  'skinLimitC',
] as const;

/** The shell with its vents, how it stands and the room around it. */
export function OutsideStep() {
  const { draft } = useMachineFile();
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] md:grid-cols-[17rem_minmax(0,1fr)] gap-x-8 gap-y-6 content-start">
      <div className="grid grid-cols-[minmax(0,1fr)] gap-6 content-start">
        <section aria-label="shell">
          <h2 className="font-semibold mb-1">Shell</h2>
          {SHELL.map((field) => (
            <RecordField key={field} path={['shell', field]} />
          ))}
          <RecordField path={['shell', 'feet']} empty="feet?" />
          <RecordField path={['shell', 'material']} empty="mixed?" />
          <RecordField path={['shell', 'finish']} empty="painted?" />
          <p className="text-small text-quiet pt-2">
            Surfaces above the touch limits of IEC 62368-1 and ISO 13732-1 can burn.
          </p>
        </section>
        <section aria-label="room">
          <h2 className="font-semibold mb-1">Room</h2>
          <RecordField path={['room', 'temperatureC']} />
          <RecordField path={['room', 'altitudeM']} />
          <RecordField path={['room', 'surface']} empty="desk?" />
          <RecordField path={['room', 'lid']} empty="open?" />
        </section>
        <section aria-label="microphone">
          <h2 className="font-semibold mb-1">Microphone</h2>
          <RecordField path={['noise', 'distanceM']} />
          <RecordField path={['noise', 'backgroundDbA']} />
          <p className="text-small text-quiet pt-2">
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
