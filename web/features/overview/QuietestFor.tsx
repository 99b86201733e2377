import { useState, type FormEvent } from 'react';
import { useNavigate } from 'react-router';
import { MOST_WANTED_W, wattsWanted } from '../../documents/answer/wattsWanted';
import { quietestFor } from '../../documents/places';

/** Which machine has the watts that somebody needs most quietly: the library answers. */
export function QuietestFor() {
  const navigate = useNavigate();
  const [text, setText] = useState('');
  const [refused, setRefused] = useState(false);
  const ask = (e: FormEvent) => {
    e.preventDefault();
    const watts = wattsWanted(text);
    setRefused(watts === null);
    if (watts !== null) void navigate(quietestFor(watts));
  };
  return (
    <form
      aria-label="quietest"
      className="flex flex-wrap items-baseline gap-1.5 mb-4"
      onSubmit={ask}
    >
      <label className="flex items-baseline gap-1.5">
        Which machine has
        <input
          className={`figure input input-sm w-20 text-right ${refused ? 'border-heat text-heat' : ''}`}
          aria-label="watts wanted"
          aria-invalid={refused || undefined}
          placeholder="watts"
          inputMode="decimal"
          autoComplete="off"
          maxLength={20}
          value={text}
          onChange={(e) => {
            setText(e.currentTarget.value);
            setRefused(false);
          }}
        />
        <span className="unit">W</span>
      </label>
      most quietly?
      <button type="submit" className="btn btn-sm">
        Show
      </button>
      {refused && (
        <span role="alert" className="text-small text-heat">
          needs watts above 0 and below {MOST_WANTED_W.toLocaleString('en')}
        </span>
      )}
    </form>
  );
}
