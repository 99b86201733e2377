import { useState } from 'react';
import {
  COUNT_FIELDS,
  type CountField,
  type CountFieldName,
} from '@zugluft/core/count/countFields';
import { figureText } from '../../documents/record/draft';
import { readFigure } from '@zugluft/core/record/readFigure';
import type { CountFile } from './useCount';

/** What is kept of what was typed: a number, a figure with its ±, or the text itself until it can be read. */
function valueOf(text: string, { bounds, parts }: CountField): unknown {
  const read = readFigure(text, bounds.unit);
  if (typeof read !== 'object') return read;
  if (parts || read.plain) return read.value;
  const { plain: _, ...figure } = read;
  return figure;
}

/**
 * One figure of a count, in a row with others: the figure, then its words. Blank shows what is assumed.
 *
 * @param error said below the row, by its id
 */
export function CountInput({
  name,
  words,
  file,
  assumed,
  error,
  wide = false,
}: {
  name: CountFieldName;
  /** Behind the figure: “mm across”. */
  words: string;
  file: CountFile;
  assumed: string | undefined;
  error: string | undefined;
  wide?: boolean;
}) {
  const [typing, setTyping] = useState<string | null>(null);
  const field = COUNT_FIELDS[name];
  const standing = figureText(file.count[name]);
  const { unit } = field.bounds as { unit?: string };
  return (
    <label className="inline-flex items-baseline gap-1">
      <input
        id={`count-${name}`}
        className={`figure input input-sm text-lg text-right px-1 bg-transparent placeholder:text-quiet placeholder:italic ${
          wide ? 'w-14' : 'w-11'
        } ${error ? 'border-heat text-heat' : 'border-transparent hover:border-rule focus:border-air'}`}
        inputMode="decimal"
        autoComplete="off"
        maxLength={30}
        aria-label={unit ? `${field.title}, ${unit}` : field.title}
        aria-invalid={error ? true : undefined}
        aria-describedby={error ? `count-${name}-error` : undefined}
        placeholder={assumed ?? '–'}
        value={typing ?? standing}
        onFocus={(e) => {
          setTyping(standing);
          e.currentTarget.select();
        }}
        onBlur={() => setTyping(null)}
        onChange={(e) => {
          const text = e.currentTarget.value;
          setTyping(text);
          file.set(name, valueOf(text, field));
        }}
      />
      <span className="text-small text-quiet whitespace-nowrap">{words}</span>
    </label>
  );
}
