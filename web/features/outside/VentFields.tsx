import { AttachmentStrip } from '../../documents/photos/AttachmentStrip';
import { partsOf, removePart, renamePart } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { FieldRow } from '../../kit/FieldRow';
import { RecordField } from '../../documents/record/RecordField';
import { TextInput } from '../../documents/record/TextInput';

/** One vent: size, what covers it and what it feeds. */
export function VentFields({ index }: { index: number }) {
  const { draft, change } = useMachineFile();
  const vent = partsOf(draft, 'vents')[index];
  if (!vent) return null;
  const at = (field: string) => ['vents', index, field];
  return (
    <div
      id="vent-fields"
      className="grid grid-cols-[minmax(0,1fr)] md:grid-cols-2 gap-x-8 pt-2 border-t border-rule"
    >
      <div>
        <FieldRow name="Name">
          <TextInput
            path={at('id')}
            label={`${vent.id}, name`}
            mono
            write={(d, text) => renamePart(d, 'vents', index, text.replace(/[\s.]+/g, '-'))}
          />
        </FieldRow>
        <RecordField path={at('side')} part={vent.id} empty="usual side" />
        <RecordField path={at('flow')} part={vent.id} />
        <RecordField path={at('fans')} part={vent.id} />
        <RecordField path={at('finStacks')} part={vent.id} />
      </div>
      <div>
        <RecordField path={at('widthMm')} part={vent.id} />
        <RecordField path={at('lengthMm')} part={vent.id} />
        {(vent['side'] ?? 'base') === 'base' && <RecordField path={at('rimMm')} part={vent.id} />}
        <RecordField path={at('openShare')} part={vent.id} />
        <RecordField path={at('blockedShare')} part={vent.id} />
        <RecordField path={at('mesh')} part={vent.id} />
        <RecordField path={at('coveredBy')} part={vent.id} />
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
