import { getAt, setAt, type Path } from '../machine/draft';
import { useMachineFile } from '../machine/MachineFile';

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
  const { draft, change, issueAt } = useMachineFile();
  const value = getAt(draft, path);
  const chosen = Array.isArray(value) ? (value as string[]) : [];
  const lost = chosen.filter((id) => !ids.includes(id));
  const key = path.join('.');
  const error = issueAt.get(key) ?? chosen.map((_, i) => issueAt.get(`${key}.${i}`)).find(Boolean);
  return (
    <div>
      <div role="group" aria-label={label} className="flex flex-wrap gap-1 px-1.5">
        {[...ids, ...lost].map((id) => {
          const on = chosen.includes(id);
          return (
            <button
              key={id}
              type="button"
              aria-pressed={on}
              className={`figure text-[0.8rem] px-1.5 rounded-sm border cursor-pointer whitespace-nowrap ${
                on ? 'border-ink bg-base-200' : 'border-dashed border-rule text-quiet'
              }`}
              onClick={() =>
                change((d) => setAt(d, path, on ? chosen.filter((x) => x !== id) : [...chosen, id]))
              }
            >
              {on ? '' : '+ '}
              {id}
            </button>
          );
        })}
        {ids.length === 0 && <span className="text-quiet text-[0.8rem]">none yet</span>}
      </div>
      {error && (
        <p className="text-heat text-[0.8rem] px-1.5 mt-0.5" role="alert">
          {error}
        </p>
      )}
    </div>
  );
}
