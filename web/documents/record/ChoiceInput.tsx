import { getAt, setAt, type Path } from './draft';
import { useMachineFile } from './MachineFile';

/** One of a few words of the record. */
export function ChoiceInput({
  path,
  label,
  options,
  empty,
  names = false,
  className = '',
}: {
  path: Path;
  label: string;
  options: readonly string[];
  /** Word for “not recorded”, where that is allowed. */
  empty?: string | undefined;
  /** The options are names of parts, shown as they are. */
  names?: boolean;
  className?: string;
}) {
  const { draft, change, issueAt } = useMachineFile();
  const value = getAt(draft, path);
  const key = path.join('.');
  const error = issueAt.get(key);
  return (
    <div className={className}>
      <select
        id={`field-${key}`}
        className="select select-sm text-[0.95rem] w-full pl-1.5 pr-6 bg-[position:calc(100%-0.9rem)_55%,calc(100%-0.6rem)_55%] bg-transparent border-transparent hover:border-rule focus:border-air"
        aria-label={label}
        aria-invalid={error ? true : undefined}
        value={typeof value === 'string' ? value : ''}
        onChange={(e) => {
          const next = e.currentTarget.value;
          change((d) => setAt(d, path, next === '' ? undefined : next));
        }}
      >
        {(empty !== undefined || typeof value !== 'string') && (
          <option value="">{empty ?? 'choose'}</option>
        )}
        {options.map((o) => (
          <option key={o} value={o}>
            {names ? o : o.replace(/-/g, ' ')}
          </option>
        ))}
      </select>
      {error && (
        <p className="text-heat text-small px-1.5" role="alert">
          {error}
        </p>
      )}
    </div>
  );
}
