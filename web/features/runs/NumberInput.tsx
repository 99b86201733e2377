import { useState } from 'react';
import { PlainInput } from '../../kit/PlainInput';

/** A number that may be left out; half typed it is neither an error nor a loss. */
export function NumberInput({
  label,
  value,
  low,
  high,
  set,
}: {
  label: string;
  value: number | null;
  low: number;
  high: number;
  set: (value: number | null) => void;
}) {
  const [text, setText] = useState(value === null ? '' : String(value));
  const [error, setError] = useState<string | undefined>(undefined);
  return (
    <PlainInput
      label={label}
      value={text}
      max={20}
      error={error}
      onChange={(typed) => {
        setText(typed);
        const x = Number(typed.trim().replace(',', '.'));
        if (typed.trim() === '') {
          setError(undefined);
          set(null);
        } else if (!Number.isFinite(x)) setError('is no number');
        else if (x < low || x > high) setError(`must be from ${low} to ${high}`);
        else {
          setError(undefined);
          set(x);
        }
      }}
    />
  );
}
