import { useState, type KeyboardEvent } from 'react';
import type { Origin } from '@zugluft/core/record/figure';
import { fieldAt } from '@zugluft/core/record/fieldTable';
import { readFigure } from '@zugluft/core/record/readFigure';
import { shownUnit, toShown } from '@zugluft/core/record/units';
import { figureText, typeFigure, getAt, type Path } from './draft';
import { useMachineFile } from './MachineFile';
import { ownerPath } from '../photos/ownerPath';
import { FigureDetails } from './FigureDetails';
import { useUnits } from '../../kit/units';

/** A letter for each origin that is not the usual one, shown small beside the figure. */
const MARK: Partial<Record<Origin, string>> = {
  label: 'l',
  photo: 'p',
  estimated: 'e',
  assumed: 'a',
};

function detailOf(figure: unknown) {
  return typeof figure === 'object' && figure !== null
    ? (figure as { origin?: Origin; plusMinus?: number; note?: string })
    : {};
}

/** Says how a figure was found: “measured, ± 0.1”. */
function detailWords(figure: unknown): string {
  const { origin, plusMinus, note } = detailOf(figure);
  return [origin, plusMinus === undefined ? undefined : `± ${plusMinus}`, note]
    .filter(Boolean)
    .join(', ');
}

/** A default's value as a placeholder, short enough for its field. */
function assumedText(value: number): string {
  return String(Number(value.toPrecision(3)));
}

/**
 * A figure of the record: typed freely with any unit, ± and origin, answered at once with what was understood. What cannot be
 * is said beside the field and stays as typed; an empty optional figure shows the value assumed for it. Ctrl+Enter opens how
 * it was found.
 */
export function FigureInput({
  path,
  label,
  hint = '',
  className = '',
}: {
  path: Path;
  label: string;
  /** Shown in the empty field where nothing is assumed. */
  hint?: string;
  className?: string;
}) {
  const { draft, change, issueAt, questionAt, live } = useMachineFile();
  const { units } = useUnits();
  const key = path.join('.');
  const inTable = fieldAt(key)?.unit;
  const unit = inTable === '0–1' ? 'share' : inTable || undefined;
  const figure = getAt(draft, path);
  const [typing, setTyping] = useState<string | null>(null);
  const [detailed, setDetailed] = useState(false);
  const inUnits = (value: number) => (unit ? toShown(value, unit, units) : value);
  const text = figureText(figure);
  const value = detailOf(figure as object);
  const number = typeof figure === 'number' ? figure : (value as { value?: unknown }).value;
  const standing =
    typeof number === 'number' ? String(Number(inUnits(number).toPrecision(6))) : text;
  const shown = typing ?? standing;
  const error = issueAt.get(key);
  const question = error ? undefined : questionAt.get(key);
  const assumed =
    shown === ''
      ? live.estimate?.assumed.find((a) => a.path === ownerPath(draft, path))
      : undefined;
  const id = `field-${key}`;
  const detail = detailWords(figure);
  const read = typing === null ? undefined : readFigure(typing, unit, units);
  const said =
    typeof read === 'object' && (!read.plain || !/^[\d.,+\-−e\s]*$/i.test(typing ?? ''))
      ? `${Number(inUnits(read.value).toPrecision(6))} ${unit === 'share' || !unit ? '' : shownUnit(unit, units)}${
          read.plusMinus === undefined
            ? ''
            : ` ± ${Number(read.plusMinus.toPrecision(3))}${unit && shownUnit(unit, units) !== unit ? ` ${unit}` : ''}`
        }${read.origin ? `, ${read.origin}` : ''}`
      : null;
  const onKeyDown = (e: KeyboardEvent<HTMLElement>) => {
    if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) {
      e.preventDefault();
      setDetailed(true);
    }
  };
  const { origin } = detailOf(figure);
  const shownIn = unit && unit !== 'share' ? shownUnit(unit, units) : inTable;
  return (
    <div className={`relative ${className}`}>
      {origin && origin !== 'measured' && typing === null && (
        <button
          type="button"
          tabIndex={-1}
          className="absolute left-0.5 top-1.5 z-10 text-small leading-none px-0.5 py-1 text-quiet cursor-pointer hover:text-ink"
          title={`${detail}; Ctrl+Enter in the field to change`}
          aria-label={`${label}: ${detail}`}
          onClick={() => setDetailed(true)}
        >
          {MARK[origin] ?? '?'}
        </button>
      )}
      <input
        id={id}
        className={`figure input input-sm text-[0.95rem] w-full text-right px-1.5 bg-transparent ${
          error ? 'border-heat text-heat' : 'border-transparent hover:border-rule focus:border-air'
        } ${origin === 'assumed' ? 'italic' : ''} placeholder:text-quiet placeholder:italic`}
        inputMode="decimal"
        autoComplete="off"
        aria-label={shownIn ? `${label}, ${shownIn}` : label}
        aria-invalid={error ? true : undefined}
        aria-describedby={
          error ? `${id}-error` : question ? `${id}-asked` : said ? `${id}-said` : undefined
        }
        title={
          detail ||
          (assumed
            ? `assumed, ${assumedText(inUnits(assumed.low))} to ${assumedText(inUnits(assumed.high))}`
            : undefined)
        }
        placeholder={assumed ? assumedText(inUnits(assumed.value)) : hint}
        value={shown}
        onFocus={(e) => {
          setTyping(standing);
          e.currentTarget.select();
        }}
        onBlur={() => setTyping(null)}
        onKeyDown={onKeyDown}
        onChange={(e) => {
          const typed = e.currentTarget.value.slice(0, 60);
          setTyping(typed);
          change((d) => typeFigure(d, path, typed, unit, units), key);
        }}
      />
      {said && !error && (
        <p
          id={`${id}-said`}
          className="figure text-air text-small leading-snug px-1.5 text-right w-48 ml-[calc(100%-12rem)]"
        >
          = {said}
        </p>
      )}
      {question && (
        <p
          id={`${id}-asked`}
          className="text-small leading-snug mt-0.5 px-1.5 text-right w-48 ml-[calc(100%-12rem)]"
        >
          <span className="text-heat font-semibold" aria-hidden>
            ?{' '}
          </span>
          {question}
        </p>
      )}
      {error && (
        // in a narrow column the words run out to the left, under what has only one line there
        <p
          id={`${id}-error`}
          className="text-heat text-small leading-snug mt-0.5 px-1.5 text-right w-48 ml-[calc(100%-12rem)]"
          role="alert"
        >
          {error}
        </p>
      )}
      {detailed && (
        <FigureDetails path={path} label={label} unit={unit} close={() => setDetailed(false)} />
      )}
    </div>
  );
}
