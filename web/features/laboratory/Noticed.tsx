import { noticeable, type Noticeable } from '@zugluft/core/service/labSettings';
import { useState } from 'react';

const FIELDS = [
  ['watts', 'W more'],
  ['db', 'dB quieter'],
  ['kelvin', 'K cooler'],
] as const;

/** From where on a gain counts as noticed: levers below it are called too small to feel. */
export function Noticed({
  value,
  ready,
  save,
}: {
  value: Noticeable;
  ready: boolean;
  save: (value: Noticeable) => void;
}) {
  return (
    <section aria-label="what is noticed" className="mb-5">
      <h2 className="font-semibold mb-1">What is noticed</h2>
      <p className="text-quiet mb-2">
        A lever is worth the screws where any one of these is reached; one that seldom reaches any
        is called too small to feel.
      </p>
      <div className="flex flex-wrap gap-x-6 gap-y-2">
        {FIELDS.map(([key, unit]) => (
          <NoticedField
            key={key}
            unit={unit}
            value={value[key]}
            ready={ready}
            check={(x) => {
              const read = noticeable.shape[key].safeParse(x);
              return read.success ? null : read.error.issues[0]!.message;
            }}
            save={(x) => save({ ...value, [key]: x })}
          />
        ))}
      </div>
    </section>
  );
}

function NoticedField({
  unit,
  value,
  ready,
  check,
  save,
}: {
  unit: string;
  value: number;
  ready: boolean;
  check: (x: number) => string | null;
  save: (x: number) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const typed = text === null ? value : text.trim() === '' ? NaN : Number(text.replace(',', '.'));
  const problem = Number.isFinite(typed) ? check(typed) : 'needs a number';
  const leave = () => {
    if (text === null || problem) return;
    if (typed !== value) save(typed);
    setText(null);
  };
  const id = `noticed-${unit.replaceAll(' ', '-')}`;
  return (
    <div>
      <label className="flex items-baseline gap-2">
        <input
          className={`input input-sm figure w-20 ${problem ? 'border-heat text-heat' : ''}`}
          aria-label={`noticed from, ${unit}`}
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem ? id : undefined}
          inputMode="decimal"
          disabled={!ready}
          maxLength={12}
          value={text ?? String(value)}
          onChange={(e) => setText(e.currentTarget.value)}
          onBlur={leave}
          onKeyDown={(e) => {
            if (e.key === 'Enter') leave();
            if (e.key === 'Escape') {
              setText(null);
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
