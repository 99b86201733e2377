import type { KeptMeasures } from '@zugluft/core/photo/measureKept';
import type { PhotoMark, PhotoMarks } from '@zugluft/core/photo/photoMarks';
import type { Draft } from '../../documents/record/draft';
import { RemoveButton } from '../../kit/RemoveButton';
import { FinProfile } from './FinProfile';
import { figureChoices } from './figureChoices';
import { besides, measureText } from './measureWords';
import { MARK_WORDS, type Held } from './marking';
import { NumberCell } from './NumberCell';

/** What was marked: what it reads, of which figure it is. */
export function MarkTable({
  marks,
  measures,
  pending,
  held,
  draft,
  hold,
  change,
  belongs,
  remove,
}: {
  marks: PhotoMarks;
  measures: KeptMeasures;
  pending: boolean;
  held: Held | null;
  draft: Draft;
  hold: (index: number) => void;
  change: (index: number, mark: PhotoMark['mark']) => void;
  /** Says of which figure it is; '' of none. */
  belongs: (index: number, choice: string) => void;
  remove: (index: number) => void;
}) {
  if (marks.marks.length === 0) {
    return (
      <p className="text-small text-quiet py-1">
        Nothing marked yet. Take up a mark by its key, set its points with Enter, by click or
        finger.
      </p>
    );
  }
  return (
    <ul data-testid="marks" aria-label="marks of this photo">
      {marks.marks.map((m, i) => (
        <MarkRow
          key={m.id}
          own={m}
          index={i}
          measures={measures}
          pending={pending}
          isHeld={held?.list === 'marks' && held.index === i}
          draft={draft}
          hold={() => hold(i)}
          change={(mark) => change(i, mark)}
          belongs={(choice) => belongs(i, choice)}
          remove={() => remove(i)}
        />
      ))}
    </ul>
  );
}

function MarkRow({
  own: { id, mark, figure },
  index,
  measures,
  pending,
  isHeld,
  draft,
  hold,
  change,
  belongs,
  remove,
}: {
  own: PhotoMark;
  index: number;
  measures: KeptMeasures;
  pending: boolean;
  isHeld: boolean;
  draft: Draft;
  hold: () => void;
  change: (mark: PhotoMark['mark']) => void;
  belongs: (choice: string) => void;
  remove: () => void;
}) {
  const measured = measures.marks[index];
  const fault = measures.faults.find((f) => f.path.startsWith(`marks.${index}.`));
  const text = measureText(measured);
  const more = besides(measured);
  const choices = figureChoices(draft, mark.kind);
  const groups = [...new Set(choices.map((c) => c.group))];
  const isGone = figure !== null && !choices.some((c) => c.value === figure);
  return (
    <li className={`border-t border-rule py-1 px-1 ${isHeld ? 'bg-base-200' : ''}`} data-mark={id}>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <button
          type="button"
          className="cursor-pointer text-left py-0.5 w-24"
          aria-pressed={isHeld}
          onClick={hold}
        >
          {id}
        </button>
        <span className="figure w-44" data-reads>
          {text ||
            (fault
              ? 'not measured'
              : pending
                ? 'measuring'
                : measures.scale
                  ? 'not told'
                  : 'no scale yet')}
        </span>
        {choices.length > 0 && (
          <select
            className="select select-sm w-60 max-w-full"
            aria-label={`figure of ${id}`}
            data-figure={id}
            value={figure ?? ''}
            onChange={(e) => belongs(e.currentTarget.value)}
          >
            <option value="">of no figure</option>
            {isGone && <option value={figure}>{figure} (no longer there)</option>}
            {groups.map((g) => (
              <optgroup key={g} label={g}>
                {choices
                  .filter((c) => c.group === g)
                  .map((c) => (
                    <option key={c.value} value={c.value}>
                      {c.label}
                    </option>
                  ))}
              </optgroup>
            ))}
          </select>
        )}
        <span className="grow" />
        <RemoveButton what={id} remove={remove} />
      </div>
      {more.length > 0 && <p className="text-small text-quiet">{more.join(' · ')}</p>}
      {fault && (
        <p className="text-heat text-small" role="alert">
          {fault.message}
        </p>
      )}
      {measured?.note && <p className="text-small text-heat">{measured.note}</p>}
      {isHeld && (
        <div className="flex flex-wrap items-start gap-x-4 gap-y-1 py-1 text-[0.9rem]">
          <span className="text-quiet">{MARK_WORDS[mark.kind].ask}</span>
          <label className="flex items-center gap-1">
            height over the references
            <NumberCell
              label={`height of ${id}`}
              value={mark.aboveMm ?? 0}
              least={-200}
              most={200}
              set={(mm) => change(withOrWithout(mark, 'aboveMm', mm === 0 ? undefined : mm))}
            />
            <span className="unit">mm</span>
          </label>
          {mark.kind === 'openShare' && measured?.threshold !== undefined && (
            <label className="flex items-center gap-1">
              a hole is darker than
              <input
                type="range"
                className="range range-xs w-32"
                aria-label={`threshold of ${id}`}
                min={0.02}
                max={0.98}
                step={0.01}
                value={mark.threshold ?? measured.threshold}
                onChange={(e) => change({ ...mark, threshold: Number(e.currentTarget.value) })}
              />
              <span className="figure">{(mark.threshold ?? measured.threshold).toFixed(2)}</span>
              {mark.threshold !== undefined && (
                <button
                  type="button"
                  className="underline cursor-pointer py-1"
                  onClick={() => change(withOrWithout(mark, 'threshold', undefined))}
                >
                  found by itself
                </button>
              )}
            </label>
          )}
          {measured?.profile && <FinProfile measured={measured} />}
        </div>
      )}
    </li>
  );
}

function withOrWithout<K extends 'aboveMm' | 'threshold'>(
  mark: PhotoMark['mark'],
  key: K,
  value: number | undefined,
): PhotoMark['mark'] {
  const { [key]: _, ...rest } = mark;
  return value === undefined ? (rest as unknown as PhotoMark['mark']) : { ...mark, [key]: value };
}
