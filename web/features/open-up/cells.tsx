import { useId, useState } from 'react';
import { readFigure } from '@zugluft/core/record/readFigure';
import { useHalfTyped } from '../../kit/useHalfTyped';
import { PlainInput } from '../../kit/PlainInput';

/** Small fields of the log's lists: text, number, choice, yes or no. What is refused is said at the field and not kept. */

const FIELD =
  'bg-transparent border rounded-sm px-1.5 py-0.5 min-w-0 placeholder:text-quiet placeholder:italic';
const QUIET = 'border-transparent hover:border-rule focus:border-air';

export function TextCell({
  label,
  value,
  set,
  max = 80,
  hint,
  required = false,
  className = 'w-full',
}: {
  label: string;
  value: string | undefined;
  set: (text: string | undefined) => void;
  max?: number;
  hint?: string;
  required?: boolean;
  className?: string;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const wrong = required && typed !== null && typed.trim() === '';
  return (
    <span className={className}>
      <PlainInput
        label={label}
        value={typed ?? value ?? ''}
        hint={hint}
        max={max}
        error={wrong ? 'needs a name' : undefined}
        onChange={(text) => {
          setTyped(text);
          if (text.trim()) set(text);
          else if (!required) set(undefined);
        }}
        onBlur={() => setTyped(null)}
      />
    </span>
  );
}

/** Reads a number as it is typed, as figures of the record are: “7,5”, “1/2”, “0.3 in”, “~60”. */
export function readNumber(
  text: string,
  {
    min,
    max,
    whole = false,
    unit,
  }: { min: number; max: number; whole?: boolean; unit?: string | undefined },
): { value: number | undefined } | { wrong: string } {
  const read = readFigure(text, unit);
  if (read === undefined) return { value: undefined };
  if (typeof read === 'string') return { wrong: 'is no number' };
  const { value } = read;
  if (whole && !Number.isInteger(value)) return { wrong: 'is a whole number' };
  if (value < min) return { wrong: `at least ${min}` };
  if (value > max) return { wrong: `at most ${max}` };
  return { value };
}

export function NumberCell({
  label,
  value,
  set,
  min,
  max,
  whole = false,
  unit,
  hint,
}: {
  label: string;
  value: number | undefined;
  set: (value: number | undefined) => void;
  min: number;
  max: number;
  whole?: boolean;
  unit?: string;
  hint?: string;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const id = useId();
  const { half, typed: type, left } = useHalfTyped();
  const read = typed === null ? { value } : readNumber(typed, { min, max, whole, unit });
  const refused = 'wrong' in read ? read.wrong : null;
  const wrong = half ? null : refused;
  return (
    <span className={`inline-flex items-baseline ${wrong ? 'flex-wrap' : ''}`}>
      <input
        className={`${FIELD} figure text-right ${hint ? 'w-28' : 'w-16'} ${wrong ? 'border-heat text-heat' : QUIET}`}
        aria-label={label}
        aria-invalid={wrong ? true : undefined}
        aria-describedby={wrong ? id : undefined}
        inputMode="decimal"
        placeholder={hint ?? '–'}
        maxLength={40}
        value={typed ?? value ?? ''}
        onChange={(e) => {
          const text = e.currentTarget.value;
          setTyped(text);
          type();
          const now = readNumber(text, { min, max, whole, unit });
          if ('value' in now) set(now.value);
        }}
        // what is refused stays to be mended
        onBlur={() => {
          left();
          if (!refused) setTyped(null);
        }}
      />
      {unit && <span className="unit">{unit}</span>}
      {wrong && (
        <span id={id} role="alert" className="text-heat text-small px-1">
          {wrong}
        </span>
      )}
    </span>
  );
}

export function SelectCell({
  label,
  value,
  options,
  set,
  empty,
  className = '',
}: {
  label: string;
  value: string | undefined;
  /** Words by value. */
  options: Readonly<Record<string, string>>;
  set: (value: string | undefined) => void;
  /** What no choice is called, where that is allowed. */
  empty?: string;
  className?: string;
}) {
  return (
    <select
      className={`${FIELD} ${QUIET} cursor-pointer ${className}`}
      aria-label={label}
      value={value ?? ''}
      onChange={(e) => set(e.currentTarget.value || undefined)}
    >
      {(empty !== undefined || value === undefined) && <option value="">{empty ?? '–'}</option>}
      {Object.entries(options).map(([id, words]) => (
        <option key={id} value={id}>
          {words}
        </option>
      ))}
    </select>
  );
}

/** Yes, no, or not said. */
export function YesNoCell({
  label,
  value,
  set,
}: {
  label: string;
  value: boolean | undefined;
  set: (value: boolean | undefined) => void;
}) {
  return (
    <SelectCell
      label={label}
      value={value === undefined ? undefined : value ? 'yes' : 'no'}
      empty="–"
      options={{ yes: 'yes', no: 'no' }}
      set={(v) => set(v === undefined ? undefined : v === 'yes')}
    />
  );
}

/** Words of ids such as `pull-strip`. */
export const idWords = (ids: readonly string[]): Record<string, string> =>
  Object.fromEntries(ids.map((id) => [id, id.replace(/-/g, ' ')]));
