import type { RefObject } from 'react';
import { Kbd } from './Kbd';

/** The search field of a view, with its key. */
export function SearchField({
  field,
  label,
  hint,
  value,
  set,
  max,
}: {
  field: RefObject<HTMLInputElement | null>;
  label: string;
  hint: string;
  value: string;
  set: (text: string) => void;
  max: number;
}) {
  return (
    <>
      <input
        ref={field}
        type="search"
        className="input input-sm w-72"
        placeholder={hint}
        aria-label={label}
        value={value}
        maxLength={max}
        onChange={(e) => set(e.currentTarget.value)}
      />
      <Kbd>f</Kbd>
    </>
  );
}
