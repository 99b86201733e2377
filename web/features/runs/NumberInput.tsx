import { useState } from 'react';
import { PlainInput } from '../../kit/PlainInput';

/** A number that may be left out; half typed it is neither an error nor a loss. What is changed elsewhere, or taken back, shows. */
export function NumberInput({
  label,
  value,
  low,
  high,
  set,
  hint,
}: {
  label: string;
  value: number | null;
  low: number;
  high: number;
  set: (value: number | null) => void;
  /** What stands there while nothing is written. */
  hint?: string | undefined;
}) {
  // what was typed stands as long as the value is the one that it stands for
  const [typed, setTyped] = useState<{ text: string; value: number | null; error?: string }>();
  const own = typed && typed.value === value ? typed : null;
  return (
    <PlainInput
      label={label}
      value={own?.text ?? (value === null ? '' : String(value))}
      hint={hint}
      max={20}
      error={own?.error}
      onChange={(text) => {
        const x = text.trim() === '' ? null : Number(text.trim().replace(',', '.'));
        if (x !== null && !Number.isFinite(x)) setTyped({ text, value, error: 'is no number' });
        else if (x !== null && (x < low || x > high)) {
          setTyped({ text, value, error: `must be from ${low} to ${high}` });
        } else {
          setTyped({ text, value: x });
          set(x);
        }
      }}
    />
  );
}
