import { useId } from 'react';

/** A line of text that is no field of the record. */
export function PlainInput({
  label,
  value,
  onChange,
  hint,
  error,
  autoFocus = false,
  max = 2100,
  onBlur,
}: {
  label: string;
  value: string;
  onChange: (text: string) => void;
  hint?: string | undefined;
  error?: string | undefined;
  autoFocus?: boolean;
  /** Characters that are taken. */
  max?: number;
  onBlur?: () => void;
}) {
  const id = useId();
  return (
    <div>
      <input
        className={`input input-sm text-[0.95rem] w-full px-1.5 bg-transparent placeholder:text-quiet placeholder:italic ${
          error ? 'border-heat text-heat' : 'border-transparent hover:border-rule focus:border-air'
        }`}
        aria-label={label}
        aria-invalid={error ? true : undefined}
        aria-describedby={error ? id : undefined}
        autoComplete="off"
        autoFocus={autoFocus}
        maxLength={max}
        onBlur={onBlur}
        placeholder={hint}
        value={value}
        onChange={(e) => onChange(e.currentTarget.value)}
      />
      {error && (
        <p id={id} className="text-heat text-[0.8rem] leading-snug px-1.5" role="alert">
          {error}
        </p>
      )}
    </div>
  );
}
