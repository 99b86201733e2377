import { getAt, setAt, type Path } from './draft';
import { useMachineFile } from './MachineFile';
import { ToggleChips } from '../../kit/ToggleChips';

/** Which parts of another list belong to this one: each a switch, as there are only a few. */
export function RefsInput({
  path,
  label,
  ids,
}: {
  path: Path;
  label: string;
  ids: readonly string[];
}) {
  const { draft, change, issueAt, questionAt } = useMachineFile();
  const value = getAt(draft, path);
  const chosen = Array.isArray(value) ? (value as string[]) : [];
  const lost = chosen.filter((id) => !ids.includes(id));
  const key = path.join('.');
  const error = issueAt.get(key) ?? chosen.map((_, i) => issueAt.get(`${key}.${i}`)).find(Boolean);
  return (
    <div>
      <div className="px-1.5">
        <ToggleChips
          id={`field-${key}`}
          label={label}
          options={[...ids, ...lost].map((id) => ({ id, words: id }))}
          chosen={chosen}
          mono
          toggle={(id, on) =>
            change((d) => setAt(d, path, on ? [...chosen, id] : chosen.filter((x) => x !== id)))
          }
        />
        {ids.length === 0 && <span className="text-quiet text-small">none yet</span>}
      </div>
      {!error && questionAt.has(key) && (
        <p className="text-small px-1.5 mt-0.5 leading-snug">
          <span className="text-heat font-semibold" aria-hidden>
            ?{' '}
          </span>
          {questionAt.get(key)}
        </p>
      )}
      {error && (
        <p className="text-heat text-small px-1.5 mt-0.5" role="alert">
          {error}
        </p>
      )}
    </div>
  );
}
