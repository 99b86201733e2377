import { VENT_FLOWS, VENT_SIDES } from '@zugluft/core/record/recordSchema';
import { AttachmentStrip } from '../../documents/photos/AttachmentStrip';
import { partsOf, removePart, renamePart, setAt } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { ChoiceInput } from '../../documents/record/ChoiceInput';
import { FieldRow } from '../../kit/FieldRow';
import { FigureInput } from '../../documents/record/FigureInput';
import { RefsInput } from '../../documents/record/RefsInput';
import { TextInput } from '../../documents/record/TextInput';

const FIGURES: [string, string, string][] = [
  ['widthMm', 'Width', 'mm'],
  ['lengthMm', 'Length', 'mm'],
  ['openShare', 'Open share', '0–1'],
  ['blockedShare', 'Blocked share', '0–1'],
];

/** One vent: size, what covers it and what it feeds. */
export function VentFields({ index }: { index: number }) {
  const { draft, change } = useMachineFile();
  const vent = partsOf(draft, 'vents')[index];
  if (!vent) return null;
  const at = (field: string) => ['vents', index, field];
  const label = (name: string) => `${vent.id}, ${name}`;
  const ids = (list: 'fans' | 'finStacks') => partsOf(draft, list).map((p) => p.id);
  return (
    <div
      id="vent-fields"
      className="grid grid-cols-[minmax(0,1fr)] md:grid-cols-2 gap-x-8 pt-2 border-t border-rule"
    >
      <div>
        <FieldRow name="Name">
          <TextInput
            path={at('id')}
            label={label('name')}
            mono
            write={(d, text) => renamePart(d, 'vents', index, text.replace(/[\s.]+/g, '-'))}
          />
        </FieldRow>
        <FieldRow name="Side">
          <ChoiceInput
            path={at('side')}
            label={label('side')}
            options={VENT_SIDES}
            empty="usual side"
          />
        </FieldRow>
        <FieldRow name="Air">
          <ChoiceInput path={at('flow')} label={label('flow')} options={VENT_FLOWS} />
        </FieldRow>
        <FieldRow name="From outside to">
          <RefsInput path={at('fans')} label={label('fans it feeds')} ids={ids('fans')} />
        </FieldRow>
        <FieldRow name="Out of">
          <RefsInput path={at('finStacks')} label={label('stacks')} ids={ids('finStacks')} />
        </FieldRow>
      </div>
      <div>
        {FIGURES.map(([field, name, unit]) => (
          <FieldRow key={field} name={name} unit={unit}>
            <FigureInput
              path={at(field)}
              label={label(name.toLowerCase())}
              unit={unit}
              assumedPath={field === 'openShare' ? `vents.${vent.id}.openShare` : undefined}
            />
          </FieldRow>
        ))}
        <FieldRow name="Mesh">
          <input
            type="checkbox"
            className="checkbox checkbox-sm ml-1.5"
            aria-label={label('mesh')}
            checked={vent['mesh'] === true}
            onChange={(e) => {
              const on = e.currentTarget.checked;
              change((d) => setAt(d, at('mesh'), on));
            }}
          />
        </FieldRow>
        <FieldRow name="Covered by">
          <TextInput path={at('coveredBy')} label={label('covered by')} />
        </FieldRow>
        <FieldRow name="Photos">
          <AttachmentStrip path={`vents.${vent.id}`} words={vent.id} inside />
        </FieldRow>
        <button
          type="button"
          className="underline underline-offset-2 cursor-pointer text-[0.9rem] text-quiet hover:text-ink mt-1"
          title="undo brings it back"
          onClick={() => change((d) => removePart(d, 'vents', index))}
        >
          remove {vent.id}
        </button>
      </div>
    </div>
  );
}
