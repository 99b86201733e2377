import { confirmText, isAssumedText } from '@zugluft/core/family/markAssumed';
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
  const [field, holder] = [String(path.at(-1)), path.slice(0, -1)];
  const assumed = isAssumedText(getAt(draft, holder), field);
  const confirmed = (d: Draft): Draft => setAt(d, holder, confirmText(getAt(d, holder), field));
  return (
    <div className={className}>
      <input
        id={`field-${key}`}
        className={`${mono ? 'figure' : ''} ${assumed ? 'italic' : ''} input input-sm text-[0.95rem] w-full px-1.5 bg-transparent ${
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
            (d) =>
              write ? write(d, text) : confirmed(setAt(d, path, text === '' ? undefined : text)),
            key,
          );
        }}
      />
      {assumed && (
        <button
          type="button"
          className="text-small text-quiet underline underline-offset-2 cursor-pointer hover:text-ink px-1.5"
          onClick={() => change(confirmed)}
        >
          assumed from a sibling: confirm
        </button>
      )}
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
