import { useState } from 'react';
import { figureText, typeFigure, getAt, type Path } from '../machine/draft';
import { useMachineFile } from '../machine/MachineFile';

/** Says how a figure was found: “measured, ± 0.1”. */
function detailWords(figure: unknown): string | undefined {
  if (typeof figure !== 'object' || figure === null) return undefined;
  const { origin, plusMinus, note } = figure as {
    origin?: string;
    plusMinus?: number;
    note?: string;
  };
  return [origin, plusMinus === undefined ? undefined : `± ${plusMinus}`, note]
    .filter(Boolean)
    .join(', ');
}

/** A default's value as a placeholder, short enough for its field. */
function assumedText(value: number): string {
  return String(Number(value.toPrecision(3)));
}

/**
 * A figure of the record: typed freely, answered at once. What cannot be is said beside the field and stays as typed; an empty
 * optional figure shows the value assumed for it.
 */
export function FigureInput({
  path,
  label,
  unit,
  assumedPath,
  hint = '',
  className = '',
}: {
  path: Path;
  label: string;
  unit?: string | undefined;
  assumedPath?: string | undefined;
  /** Shown in the empty field where nothing is assumed. */
  hint?: string;
  className?: string;
}) {
  const { draft, change, issueAt, live } = useMachineFile();
  const figure = getAt(draft, path);
  const [typing, setTyping] = useState<string | null>(null);
  const shown = typing ?? figureText(figure);
  const key = path.join('.');
  const error = issueAt.get(key);
  const assumed =
    assumedPath && shown === ''
      ? live.estimate?.assumed.find((a) => a.path === assumedPath)
      : undefined;
  const id = `field-${key}`;
  const detail = detailWords(figure);
  return (
    <div className={className}>
      <input
        id={id}
        className={`figure input input-sm text-[0.95rem] w-full text-right px-1.5 bg-transparent ${
          error ? 'border-heat text-heat' : 'border-transparent hover:border-rule focus:border-air'
        } placeholder:text-quiet placeholder:italic`}
        inputMode="decimal"
        autoComplete="off"
        aria-label={unit ? `${label}, ${unit}` : label}
        aria-invalid={error ? true : undefined}
        aria-describedby={error ? `${id}-error` : undefined}
        title={
          detail ||
          (assumed
            ? `assumed, ${assumedText(assumed.low)} to ${assumedText(assumed.high)}`
            : undefined)
        }
        placeholder={assumed ? assumedText(assumed.value) : hint}
        value={shown}
        onFocus={(e) => {
          setTyping(figureText(figure));
          e.currentTarget.select();
        }}
        onBlur={() => setTyping(null)}
        onChange={(e) => {
          const text = e.currentTarget.value.slice(0, 60);
          setTyping(text);
          change((d) => typeFigure(d, path, text), key);
        }}
      />
      {error && (
        // in a narrow column the words run out to the left, under what has only one line there
        <p
          id={`${id}-error`}
          className="text-heat text-[0.8rem] leading-snug mt-0.5 px-1.5 text-right w-48 ml-[calc(100%-12rem)]"
          role="alert"
        >
          {error}
        </p>
      )}
    </div>
  );
}
