import { useState } from 'react';
import { flushSync } from 'react-dom';

/** A setting of the laboratory in one line of text: judged while it is typed, kept when it is left or by Enter, Escape takes it back. */
export function SettingInput<T>({
  label,
  unit,
  value,
  text,
  read,
  save,
  ready,
  wide = false,
}: {
  label: string;
  unit: string;
  value: T;
  /** The value as it is written. */
  text: (value: T) => string;
  /** What was typed, or what is wrong with it. */
  read: (typed: string) => { value: T } | { problem: string };
  save: (value: T) => void;
  /** What stands is known: before that nothing is changed. */
  ready: boolean;
  wide?: boolean;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const judged = typed === null ? { value } : read(typed);
  const problem = 'problem' in judged ? judged.problem : null;
  const id = `wrong-${label.replace(/\W+/g, '-')}`;
  const leave = () => {
    if (typed === null || 'problem' in judged) return;
    if (text(judged.value) !== text(value)) save(judged.value);
    setTyped(null);
  };
  return (
    <div>
      <label className="flex items-baseline gap-2">
        <input
          className={`input input-sm figure max-w-full ${wide ? 'w-96' : 'w-20'} ${problem ? 'border-heat text-heat' : ''}`}
          aria-label={label}
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem ? id : undefined}
          inputMode={wide ? undefined : 'decimal'}
          disabled={!ready}
          maxLength={wide ? 120 : 12}
          value={typed ?? text(value)}
          onChange={(e) => setTyped(e.currentTarget.value)}
          onBlur={leave}
          onKeyDown={(e) => {
            if (e.key === 'Enter') leave();
            if (e.key === 'Escape') {
              // leaving would keep what is taken back here
              flushSync(() => setTyped(null));
              e.currentTarget.blur();
            }
          }}
        />
        <span className="unit">{unit}</span>
      </label>
      {problem && (
        <p id={id} className="text-heat text-small mt-1" role="alert">
          {problem}
        </p>
      )}
    </div>
  );
}
