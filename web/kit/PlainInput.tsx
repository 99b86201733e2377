import { useId } from 'react';
import { useHalfTyped } from './useHalfTyped';

/** A line of text that is no field of the record. */
export function PlainInput({
  label,
  value,
  onChange,
  hint,
  error: wrong,
  said,
  autoFocus = false,
  max = 2100,
  onBlur,
}: {
  label: string;
  value: string;
  onChange: (text: string) => void;
  hint?: string | undefined;
  /** What is wrong with it; said when it is left or the hand rests. */
  error?: string | undefined;
  /** What was understood, where that is not what was typed. */
  said?: string | undefined;
  autoFocus?: boolean;
  /** Characters that are taken. */
  max?: number;
  onBlur?: () => void;
}) {
  const id = useId();
  const { half, typed, left } = useHalfTyped();
  const error = half ? undefined : wrong;
  return (
    <div>
      <input
        className={`input input-sm text-[0.95rem] w-full px-1.5 bg-transparent placeholder:text-quiet placeholder:italic ${
          error ? 'border-heat text-heat' : 'border-transparent hover:border-rule focus:border-air'
        }`}
        aria-label={label}
        aria-invalid={error ? true : undefined}
        aria-describedby={error || said ? id : undefined}
        autoComplete="off"
        autoFocus={autoFocus}
        maxLength={max}
        onBlur={() => {
          left();
          onBlur?.();
        }}
        placeholder={hint}
        value={value}
        onChange={(e) => {
          typed();
          onChange(e.currentTarget.value);
        }}
      />
      {said && !error && (
        <p id={id} className="figure text-air text-small leading-snug px-1.5">
          = {said}
        </p>
      )}
      {error && (
        <p id={id} className="text-heat text-small leading-snug px-1.5" role="alert">
          {error}
        </p>
      )}
    </div>
  );
}
