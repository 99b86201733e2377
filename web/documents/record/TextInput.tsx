import { getAt, setAt, type Draft, type Path } from './draft';
import { useMachineFile } from './MachineFile';

/** A text of the record. `write` replaces the plain setting of the field, for names that are mentioned elsewhere. */
export function TextInput({
  path,
  label,
  className = '',
  mono = false,
  write,
}: {
  path: Path;
  label: string;
  className?: string;
  mono?: boolean;
  write?: (draft: Draft, text: string) => Draft;
}) {
  const { draft, change, issueAt } = useMachineFile();
  const value = getAt(draft, path);
  const key = path.join('.');
  const error = issueAt.get(key);
  return (
    <div className={className}>
      <input
        id={`field-${key}`}
        className={`${mono ? 'figure' : ''} input input-sm text-[0.95rem] w-full px-1.5 bg-transparent ${
          error ? 'border-heat text-heat' : 'border-transparent hover:border-rule focus:border-air'
        }`}
        aria-label={label}
        aria-invalid={error ? true : undefined}
        aria-describedby={error ? `field-${key}-error` : undefined}
        autoComplete="off"
        maxLength={400}
        value={typeof value === 'string' || typeof value === 'number' ? String(value) : ''}
        onChange={(e) => {
          const text = e.currentTarget.value;
          change(
            (d) => (write ? write(d, text) : setAt(d, path, text === '' ? undefined : text)),
            key,
          );
        }}
      />
      {error && (
        <p
          id={`field-${key}-error`}
          className="text-heat text-small leading-snug px-1.5"
          role="alert"
        >
          {error}
        </p>
      )}
    </div>
  );
}
