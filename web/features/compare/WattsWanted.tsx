import { useSearchParams } from 'react-router';
import { MOST_WANTED_W, wattsWanted } from '../../documents/answer/wattsWanted';
import { useAddressText } from '../../kit/useAddressText';
import { useSetAddress } from '../../kit/useSetAddress';

/** Watts that somebody needs: the table then tells how quietly each machine has them. The address keeps them. */
export function WattsWanted() {
  const [params] = useSearchParams();
  const setAddress = useSetAddress();
  const [text, type] = useAddressText(params.get('needW') ?? '', (typed) =>
    setAddress('needW', typed || null),
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
