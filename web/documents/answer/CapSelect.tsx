import { useEffect, useRef, useState } from 'react';
import { readFigure } from '@zugluft/core/record/readFigure';
import { MAX_CAP_DBA, MIN_CAP_DBA } from '@zugluft/core/case/laboratory';
import type { Cap } from '@zugluft/core/envelope/fanStates';

const OTHER = 'other';

const words = (cap: Cap) =>
  cap === 'full' ? 'full speed' : cap === 'off' ? 'fans off' : `${cap} dB(A)`;

/** A level as people type it: “33,5”, “36 dB”, “~36”, “34-36”, to a hundredth of a decibel. */
function levelOf(text: string): number {
  const read = readFigure(text.replace(/\s*dB\s*(\(\s*A?\s*\)?)?\s*$/i, ''), 'dB(A)');
  return typeof read === 'object' ? Math.round(100 * read.value) / 100 : NaN;
}

/** One of the laboratory's caps, or any other one that is typed. */
export function CapSelect({
  caps,
  value,
  choose,
  label = 'cap',
  name = words,
}: {
  caps: readonly Cap[];
  value: Cap;
  choose: (cap: Cap) => void;
  label?: string;
  /** What a cap is called in this list. */
  name?: (cap: Cap) => string;
}) {
  const [typing, setTyping] = useState<string | null>(null);
  const level = levelOf(typing ?? '');
  const fits = level >= MIN_CAP_DBA && level <= MAX_CAP_DBA;
  const select = useRef<HTMLSelectElement>(null);
  // the hand that typed a level goes on from the list
  const typed = useRef(false);
  useEffect(() => {
    if (typing === null && typed.current) select.current?.focus();
    typed.current = false;
  }, [typing]);
  const take = (byKey = false) => {
    typed.current = byKey;
    if (fits) choose(level);
    setTyping(null);
  };
  if (typing !== null) {
    return (
      <input
        className={`input input-xs figure w-24 ${typing !== '' && !fits ? 'border-heat text-heat' : ''}`}
        aria-label={`${label}, dB(A)`}
        aria-invalid={typing !== '' && !fits ? true : undefined}
        title={`a level from ${MIN_CAP_DBA} to ${MAX_CAP_DBA} dB(A)`}
        placeholder={`${MIN_CAP_DBA} to ${MAX_CAP_DBA}`}
        inputMode="decimal"
        maxLength={20}
        autoFocus
        value={typing}
        onChange={(e) => setTyping(e.currentTarget.value)}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' && e.key !== 'Escape') return;
          e.preventDefault();
          typed.current = true;
          if (e.key === 'Enter') take(true);
          else setTyping(null);
        }}
        onBlur={() => take()}
      />
    );
  }
  const all = caps.includes(value) ? caps : [...caps, value];
  return (
    <select
      ref={select}
      className={`select select-xs ${name === words ? 'w-28' : 'w-auto pr-9'}`}
      aria-label={label}
      value={String(value)}
      onChange={(e) => {
        const x = e.currentTarget.value;
        if (x === OTHER) setTyping('');
        else choose(x === 'off' || x === 'full' ? x : Number(x));
      }}
    >
      {all.map((c) => (
        <option key={String(c)} value={String(c)}>
          {name(c)}
        </option>
      ))}
      <option value={OTHER}>another level …</option>
    </select>
  );
}
