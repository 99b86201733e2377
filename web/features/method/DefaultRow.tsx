import { useState } from 'react';
import type { Default, DefaultKey } from '@zugluft/core/record/defaults';
import { checkLabDefault } from '@zugluft/core/record/labDefaults';
import type { KeptLabDefaults } from '@zugluft/core/documents/labDefaults/labDefaultsKind';
import type { Keeper } from '../../documents/keeper';
import { readTyped } from '../../documents/record/draft';

const FIELDS = ['value', 'low', 'high'] as const;
type Field = (typeof FIELDS)[number];

function short(x: number): string {
  return String(Number(x.toPrecision(4)));
}

/** One default with its range and origin; opened, it takes the lab's own value. */
export function DefaultRow({
  name,
  builtIn,
  own,
  keeper,
  open,
  toggle,
}: {
  name: DefaultKey;
  builtIn: Default;
  own: KeptLabDefaults[string] | undefined;
  /** Of the lab's defaults; null until they are read. */
  keeper: Keeper<KeptLabDefaults> | null;
  open: boolean;
  toggle: () => void;
}) {
  const used = own ?? builtIn;
  return (
    <>
      <tr className="border-b border-rule align-top" data-default={name}>
        <td className="py-1 pr-3">
          <button
            type="button"
            className="text-left cursor-pointer hover:underline underline-offset-2"
            // as it is called in files and on the command line
            title={name}
            aria-expanded={open}
            onClick={toggle}
          >
            {builtIn.about}
          </button>
        </td>
        <td className="figure text-right py-1 whitespace-nowrap">
          {own && (
            <span
              className="text-heat"
              title={own.learned ? 'learned from the lab’s machines' : 'the lab’s own'}
            >
              {own.learned ? 'learned' : 'own'}{' '}
            </span>
          )}
          {short(used.value)}
        </td>
        <td className="figure text-right py-1 whitespace-nowrap text-quiet pl-3">
          {short(used.low)} – {short(used.high)}
        </td>
        <td className="unit py-1 pl-2 whitespace-nowrap">{builtIn.unit}</td>
        <td className="text-small text-quiet py-1 pl-3">{own ? own.note : builtIn.origin}</td>
      </tr>
      {open && (
        <tr className="border-b border-rule bg-base-200">
          <td colSpan={5} className="p-2">
            <OwnDefault name={name} builtIn={builtIn} own={own} keeper={keeper} close={toggle} />
          </td>
        </tr>
      )}
    </>
  );
}

function OwnDefault({
  name,
  builtIn,
  own,
  keeper,
  close,
}: {
  name: DefaultKey;
  builtIn: Default;
  own: KeptLabDefaults[string] | undefined;
  /** Of the lab's defaults; null until they are read. */
  keeper: Keeper<KeptLabDefaults> | null;
  close: () => void;
}) {
  const start = own ?? builtIn;
  const [text, setText] = useState<Record<Field, string>>({
    value: String(start.value),
    low: String(start.low),
    high: String(start.high),
  });
  const [note, setNote] = useState(own?.note ?? '');
  const save = (entry: Record<Field, number>) => {
    keeper?.change((all) => ({
      ...all,
      [name]: { ...entry, note, since: new Date().toISOString() },
    }));
    close();
  };
  const reset = () => {
    keeper?.change((all) =>
      Object.fromEntries(Object.entries(all).filter(([key]) => key !== name)),
    );
    close();
  };
  const read = Object.fromEntries(FIELDS.map((f) => [f, readTyped(text[f])])) as Record<
    Field,
    number | string | undefined
  >;
  const numbers = FIELDS.every((f) => typeof read[f] === 'number');
  const entry = read as Record<Field, number>;
  const issues = numbers
    ? checkLabDefault(name, entry)
    : FIELDS.filter((f) => typeof read[f] !== 'number').map((path) => ({
        path,
        message: read[path] === undefined ? 'needs a number' : `“${read[path]}” is not a number`,
      }));
  return (
    <form
      className="flex flex-wrap gap-3 items-start"
      onSubmit={(e) => {
        e.preventDefault();
        if (!issues.length) save(entry);
      }}
    >
      {FIELDS.map((f) => {
        const issue = issues.find((i) => i.path === f);
        return (
          <label key={f} className="text-small text-quiet w-32">
            {{ value: 'value', low: '5 %', high: '95 %' }[f]}{' '}
            <span className="unit">{builtIn.unit}</span>
            <input
              className={`input input-sm figure w-full ${issue ? 'border-heat' : ''}`}
              aria-label={`${builtIn.about}, ${f}`}
              aria-invalid={issue ? true : undefined}
              value={text[f]}
              maxLength={40}
              onChange={(e) => setText({ ...text, [f]: e.currentTarget.value })}
            />
            {issue && (
              <span className="text-heat block" role="alert">
                {issue.message}
              </span>
            )}
          </label>
        );
      })}
      <label className="text-small text-quiet grow min-w-48">
        where from
        <input
          className="input input-sm w-full"
          aria-label={`${builtIn.about}, where from`}
          value={note}
          maxLength={500}
          onChange={(e) => setNote(e.currentTarget.value)}
        />
      </label>
      <div className="flex gap-2 pt-5">
        <button
          type="submit"
          className="btn btn-sm btn-primary"
          disabled={issues.length > 0 || !keeper}
        >
          Use this
        </button>
        {own && (
          <button type="button" className="btn btn-sm" onClick={reset}>
            Back to {short(builtIn.value)}
          </button>
        )}
        <button type="button" className="btn btn-sm btn-ghost" onClick={close}>
          Close
        </button>
      </div>
    </form>
  );
}
