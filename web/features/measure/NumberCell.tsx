import { useId, useState } from 'react';
import { readTyped } from '../../documents/record/draft';

/** A number in a line of words; what cannot be is said beside it and leaves the number as it was. */
export function NumberCell({
  label,
  value,
  least,
  most,
  set,
}: {
  label: string;
  value: number;
  least: number;
  most: number;
  set: (value: number) => void;
}) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const read = typed === null ? value : readTyped(typed);
  const wrong =
    typeof read !== 'number'
      ? read === undefined
        ? 'needs a number'
        : `“${read.slice(0, 20)}” is no number`
      : read < least
        ? `must be at least ${least}`
        : read > most
          ? `must be at most ${most}`
          : undefined;
  return (
    <span className="inline-block">
      <input
        className={`input input-sm w-16 px-1 text-right figure ${wrong ? 'border-heat text-heat' : ''}`}
        aria-label={label}
        aria-invalid={wrong ? true : undefined}
        aria-describedby={wrong ? id : undefined}
        autoComplete="off"
        inputMode="decimal"
        maxLength={20}
        value={typed ?? String(value)}
        onChange={(e) => {
          const text = e.currentTarget.value;
          setTyped(text);
          const next = readTyped(text);
          if (typeof next === 'number' && next >= least && next <= most) set(next);
        }}
        onBlur={() => !wrong && setTyped(null)}
      />
      {wrong && (
        <span id={id} role="alert" className="block text-heat text-small">
          {wrong}
        </span>
      )}
    </span>
  );
}
