import { fieldAt } from '@zugluft/core/record/fieldTable';
import { FieldRow } from '../../kit/FieldRow';
import { ChoiceInput } from './ChoiceInput';
import { getAt, partsOf, setAt, type Path } from './draft';
import { FigureInput } from './FigureInput';
import { useMachineFile } from './MachineFile';
import { RefsInput } from './RefsInput';
import { TextInput } from './TextInput';

/** “fin stacks it lets out” with a capital. */
const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/**
 * A field of the record on a line of its own: name, unit and what may be typed come from the table of fields.
 *
 * @param path of the field
 * @param part whose field it is, for those who hear the label alone
 * @param empty word for a choice that was not made
 */
export function RecordField({
  path,
  part,
  empty,
}: {
  path: Path;
  part?: string | undefined;
  empty?: string;
}) {
  const { draft, change } = useMachineFile();
  const field = fieldAt(path.join('.'));
  if (!field) throw new Error(`no field at ${path.join('.')}`);
  const name = capital(field.title);
  const label = part === undefined ? name : `${part}, ${field.name}`;
  const input = () => {
    switch (field.holds) {
      case 'figure':
        return <FigureInput path={path} label={label} />;
      case 'choice':
        return (
          <ChoiceInput path={path} label={label} options={field.options ?? []} empty={empty} />
        );
      case 'names': {
        const ids = field.options ?? partsOf(draft, field.refersTo!.lists[0]!).map((p) => p.id);
        return <RefsInput path={path} label={label} ids={ids} />;
      }
      case 'switch':
        return (
          <input
            type="checkbox"
            className="checkbox checkbox-sm ml-1.5"
            aria-label={label}
            checked={getAt(draft, path) === true}
            onChange={(e) => {
              const on = e.currentTarget.checked;
              change((d) => setAt(d, path, on));
            }}
          />
        );
      default:
        return <TextInput path={path} label={label} />;
    }
  };
  return (
    <FieldRow name={name} unit={field.unit}>
      {input()}
    </FieldRow>
  );
}
