import { useSearchParams } from 'react-router';
import { MOST_WANTED_W, wattsWanted } from '../../documents/answer/wattsWanted';
import { useTypedParam } from '../../kit/useTypedParam';

/** Watts that somebody needs: the table then tells how quietly each machine has them. The address keeps them. */
export function WattsWanted() {
  const [params, setParams] = useSearchParams();
  const [text, type] = useTypedParam(params.get('needW') ?? '', (typed) =>
    setParams(
      (now) => {
        if (typed) now.set('needW', typed);
        else now.delete('needW');
        return now;
      },
      { replace: true },
    ),
  );
  const wrong = text.trim() !== '' && wattsWanted(text) === null;
  return (
    <span className="flex flex-wrap items-baseline gap-x-1.5">
      <label className="flex items-baseline gap-1.5">
        <span className="text-quiet">quiet for</span>
        <input
          className={`figure input input-xs w-16 text-right ${wrong ? 'border-heat text-heat' : ''}`}
          aria-label="watts wanted"
          aria-invalid={wrong ? true : undefined}
          placeholder="watts"
          inputMode="decimal"
          maxLength={20}
          value={text}
          onChange={(e) => type(e.currentTarget.value)}
        />
        <span className="unit">W</span>
      </label>
      {wrong && (
        <span role="alert" className="text-small text-heat">
          needs watts above 0 and below {MOST_WANTED_W.toLocaleString('en')}
        </span>
      )}
    </span>
  );
}
