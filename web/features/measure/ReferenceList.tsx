import { useState } from 'react';
import { LEAST_K1, MOST_K1 } from '@zugluft/core/photo/distortion';
import { isSized } from '@zugluft/core/photo/marksFile';
import {
  KNOWN_THINGS,
  referenceItem,
  SHELL,
  sizesOf,
  type KnownThing,
} from '@zugluft/core/photo/knownThings';
import type { PhotoMarks, PhotoReference } from '@zugluft/core/photo/photoMarks';
import type { KeptMeasures } from '@zugluft/core/photo/measureKept';
import { pointsOf } from '@zugluft/core/photo/knownThings';
import { Kbd } from '../../kit/Kbd';
import { RemoveButton } from '../../kit/RemoveButton';
import { NumberCell } from './NumberCell';
import { thingOf, type Held } from './marking';

/** What of known size lies in the picture: chosen, marked, its sizes, how far it lies off. */
export function ReferenceList({
  marks,
  measures,
  held,
  shellMm,
  thing,
  setThing,
  take,
  hold,
  change,
  remove,
}: {
  marks: PhotoMarks;
  measures: KeptMeasures;
  held: Held | null;
  /** Width and depth of the shell as recorded; null where they are not. */
  shellMm: readonly [number, number] | null;
  thing: KnownThing;
  setThing: (thing: KnownThing) => void;
  /** Begins to mark it. */
  take: (thing: KnownThing) => void;
  hold: (held: Held) => void;
  change: (index: number, reference: PhotoReference) => void;
  remove: (index: number) => void;
}) {
  const lacksShell = thing.what === SHELL && !shellMm;
  return (
    <section aria-label="known in the picture">
      <h3 className="font-semibold text-[0.95rem]">Known in the picture</h3>
      <div className="flex flex-wrap items-center gap-2 py-1">
        <select
          className="select select-sm w-64"
          aria-label="thing of known size"
          value={thing.what}
          onChange={(e) => setThing(thingOf(e.currentTarget.value)!)}
        >
          {KNOWN_THINGS.map((t) => (
            <option key={t.what} value={t.what}>
              {t.name}
              {t.kind !== 'length' && t.widthMm ? ' mm' : ''}
            </option>
          ))}
        </select>
        <button
          type="button"
          className="btn btn-sm"
          disabled={lacksShell}
          onClick={() => take(thing)}
        >
          Mark it <Kbd>r</Kbd>
        </button>
      </div>
      {lacksShell && (
        <p className="text-small text-heat">Width and depth of the shell are not recorded yet.</p>
      )}
      {marks.references.length === 0 ? (
        <p className="text-small text-quiet">
          Something of known size gives the scale. Four corners also show from which side the photo
          was taken; it should lie at the height of what is measured, or its height is said.
        </p>
      ) : (
        <ul>
          {marks.references.map((r, i) => {
            const isHeld = held?.list === 'references' && held.index === i;
            const fault = measures.faults.find((f) => f.path.startsWith(`references.${i}.`));
            return (
              <li
                key={r.id}
                className={`border-t border-rule py-1 px-1 ${isHeld ? 'bg-base-200' : ''}`}
              >
                <div className="flex flex-wrap items-center gap-x-2">
                  <button
                    type="button"
                    className="cursor-pointer text-left py-0.5"
                    aria-pressed={isHeld}
                    onClick={() => hold({ list: 'references', index: i, point: null })}
                  >
                    <span className="figure text-small text-quiet">{i + 1}</span>{' '}
                    {thingOf(r.what)?.name.replace(/ \d.*$|, .*$/, '') ?? r.what}
                  </button>
                  <Sizes
                    reference={r}
                    change={(next) => change(i, next)}
                    label={`reference ${i + 1}`}
                  />
                  <span className="grow" />
                  {measures.scale?.residualsPx[i] !== undefined &&
                    !fault &&
                    r.item.kind !== 'lens' && (
                      <span className="text-small text-quiet">
                        off{' '}
                        <span className="figure">{measures.scale.residualsPx[i].toFixed(1)}</span>{' '}
                        px
                      </span>
                    )}
                  <RemoveButton what={`reference ${i + 1}`} remove={() => remove(i)} />
                </div>
                {fault && (
                  <p className="text-heat text-small" role="alert">
                    {fault.message}
                  </p>
                )}
              </li>
            );
          })}
        </ul>
      )}
      {measures.scale && (
        <p className="text-small py-1" data-testid="scale">
          <span className="figure">{measures.scale.mmPerPx.toPrecision(4)}</span> mm a pixel ±{' '}
          <span className="figure">
            {Number((100 * measures.scale.plusMinusShare).toPrecision(1))}
          </span>{' '}
          %
          {measures.scale.lens && (
            <span data-testid="lens">
              {' '}
              · lens k1 <span className="figure">{measures.scale.lens.k1.toFixed(4)}</span> ±{' '}
              <span className="figure">{measures.scale.lens.plusMinus.toFixed(4)}</span>: how far it
              moves a corner of the picture, as a share
            </span>
          )}
        </p>
      )}
      {marks.references.length > 0 && !marks.references.some((r) => isSized(r.item)) && (
        <p className="text-small text-quiet py-1">
          A straight edge tells how the lens bends; the scale needs something of known size as well.
        </p>
      )}
      {measures.scale?.note && (
        <p className="text-small text-heat border-l-2 border-heat pl-2">{measures.scale.note}</p>
      )}
    </section>
  );
}

/** Sizes of a reference, and its height over what is measured. */
function Sizes({
  reference,
  change,
  label,
}: {
  reference: PhotoReference;
  change: (next: PhotoReference) => void;
  label: string;
}) {
  const { item } = reference;
  const sizes = sizesOf(item);
  const [open, setOpen] = useState(isSized(item) && item.aboveMm !== undefined);
  if (item.kind === 'straight') return null;
  if (item.kind === 'lens') {
    const { k1, plusMinus } = item;
    const told = (next: readonly number[]) =>
      change({ ...reference, item: referenceItem('lens', [], next) });
    return (
      <span className="flex flex-wrap items-center gap-1 text-[0.9rem]">
        k1
        <NumberCell
          label={`${label}, k1`}
          value={k1}
          least={LEAST_K1}
          most={MOST_K1}
          set={(x) => told([x, plusMinus])}
        />
        ±
        <NumberCell
          label={`${label}, ± of k1`}
          value={plusMinus}
          least={0.0001}
          most={1}
          set={(x) => told([k1, x])}
        />
      </span>
    );
  }
  const set = (next: readonly number[], aboveMm = item.aboveMm) =>
    change({ ...reference, item: referenceItem(item.kind, pointsOf(item), next, aboveMm) });
  return (
    <span className="flex flex-wrap items-center gap-1 text-[0.9rem]">
      {sizes.map((mm, k) => (
        <span key={k} className="flex items-center gap-1">
          {k > 0 && '×'}
          <NumberCell
            label={`${label}, ${item.kind === 'rectangle' ? (k === 0 ? 'width' : 'height') : item.kind === 'length' ? 'length' : 'diameter'}`}
            value={mm}
            least={0.1}
            most={10_000}
            set={(x) => set(sizes.map((s, i) => (i === k ? x : s)))}
          />
        </span>
      ))}
      <span className="unit">mm</span>
      {open ? (
        <span className="flex items-center gap-1">
          at
          <NumberCell
            label={`${label}, height`}
            value={item.aboveMm ?? 0}
            least={-200}
            most={200}
            set={(x) => set(sizes, x)}
          />
          <span className="unit">mm high</span>
        </span>
      ) : (
        <button
          type="button"
          className="text-small text-quiet underline cursor-pointer py-1"
          onClick={() => setOpen(true)}
        >
          height
        </button>
      )}
    </span>
  );
}
