import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { listTags } from '../../api/machines';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { useAddressText } from '../../kit/useAddressText';
import { CapSelect } from '../../documents/answer/CapSelect';
import {
  capOf,
  filtersSet,
  FILTERS,
  readBound,
  readCap,
  UNIT_OF,
  type Filter,
} from './libraryView';

const RANGES: [string, Filter, Filter, string][] = [
  ['fans', 'fansMin', 'fansMax', ''],
  ['heat pipes', 'pipesMin', 'pipesMax', ''],
  ['mass', 'massMin', 'massMax', 'kg'],
  ['thickness', 'thicknessMin', 'thicknessMax', 'mm'],
  ['fin area', 'finAreaMin', 'finAreaMax', 'cm²'],
  ['watts at the cap', 'wattsMin', 'wattsMax', 'W'],
];

/** Which machines are shown, by what they have and what they carry. */
export function LibraryFilters({
  view,
  set,
  caps,
  enter,
}: {
  view: URLSearchParams;
  caps: readonly Cap[];
  /** Opened just now, by hand: the first field is entered. */
  enter: boolean;
  set: (changes: Record<string, string | null>) => void;
}) {
  const section = useRef<HTMLElement>(null);
  const wanted = useRef(enter);
  useEffect(() => {
    const first = wanted.current && section.current?.querySelector('select');
    if (first) first.focus();
    wanted.current = false;
  }, []);
  const { data } = useQuery({ queryKey: ['machines', 'tags'], queryFn: listTags });
  const [level, turnLevel] = useAddressText(String(capOf(view, caps)), (cap) => set({ cap }));
  const [chamber, turnChamber] = useAddressText(view.get('chamber') ?? '', (x) =>
    set({ chamber: x }),
  );
  const [tag, turnTag] = useAddressText(view.get('tag') ?? '', (x) => set({ tag: x }));
  const bound = (name: string, field: Filter, word: string) => (
    <Bound
      label={`${name}, ${word}`}
      field={field}
      word={word}
      stands={view.get(field) ?? ''}
      follow={(text) => set({ [field]: text })}
    />
  );
  const wrong = FILTERS.some(
    (f) =>
      /(Min|Max|W)$/.test(f) && view.get(f) && readBound(view.get(f), UNIT_OF[f]) === undefined,
  );
  return (
    <section
      ref={section}
      aria-label="filters"
      className="flex flex-wrap gap-x-6 gap-y-2 items-center py-2 text-[0.9rem] border-b border-rule"
    >
      <label className="flex items-center gap-1.5">
        <span className="text-quiet">cap</span>
        <CapSelect
          caps={caps}
          value={readCap(level) ?? capOf(view, caps)}
          choose={(cap) => turnLevel(String(cap))}
        />
      </label>
      {RANGES.map(([name, min, max, unit]) => (
        <span key={name} className="flex items-center gap-1">
          <span className="text-quiet">{name}</span>
          {bound(name, min, 'from')}
          {bound(name, max, 'to')}
          {unit && <span className="unit">{unit}</span>}
        </span>
      ))}
      <span className="flex items-center gap-1">
        <span className="text-quiet">quiet for</span>
        {bound('watts wanted', 'needW', 'watts')}
        <span className="unit">W</span>
        {bound('level for the watts wanted', 'levelMax', 'up to')}
        <span className="unit">dB(A)</span>
      </span>
      <label className="flex items-center gap-1.5">
        <span className="text-quiet">vapor chamber</span>
        <select
          className="select select-xs w-24"
          aria-label="vapor chamber"
          value={chamber}
          onChange={(e) => turnChamber(e.currentTarget.value)}
        >
          <option value="">either</option>
          <option value="1">with</option>
          <option value="0">without</option>
        </select>
      </label>
      <label className="flex items-center gap-1.5">
        <span className="text-quiet">tag</span>
        <select
          className="select select-xs w-32"
          aria-label="tag"
          value={tag}
          onChange={(e) => turnTag(e.currentTarget.value)}
        >
          <option value="">any</option>
          {data?.items.map((t) => (
            <option key={t.tag} value={t.tag}>
              {t.tag} ({t.count})
            </option>
          ))}
        </select>
      </label>
      {filtersSet(view) > 0 && (
        <button
          type="button"
          className="underline cursor-pointer text-quiet hover:text-ink"
          onClick={() => set(Object.fromEntries(FILTERS.map((f) => [f, null])))}
        >
          clear filters
        </button>
      )}
      {wrong && (
        <span className="text-heat" role="alert">
          A bound is no number and is left out.
        </span>
      )}
    </section>
  );
}

/** One end of a range; no letter is lost however fast one types. */
function Bound({
  label,
  field,
  word,
  stands,
  follow,
}: {
  label: string;
  field: Filter;
  word: string;
  stands: string;
  follow: (text: string) => void;
}) {
  const [text, type] = useAddressText(stands, follow);
  const wrong = text !== '' && readBound(text, UNIT_OF[field]) === undefined;
  return (
    <input
      className={`figure input input-xs ${word.length > 4 ? 'w-20' : 'w-16'} text-right ${wrong ? 'border-heat text-heat' : ''}`}
      aria-label={label}
      aria-invalid={wrong ? true : undefined}
      title={wrong ? 'a number from 0 to 1 000 000' : undefined}
      placeholder={word}
      maxLength={20}
      inputMode="decimal"
      value={text}
      onChange={(e) => type(e.currentTarget.value)}
    />
  );
}
