import {
  faceAt,
  keptPlace,
  outsidePlan,
  type Face,
  type PlannedVent,
} from '@zugluft/core/airway/outsidePlan';
import { useEffect, useMemo, useState } from 'react';
import { useCommands } from '../../documents/commands';
import { partsOf, setAt } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { enterField } from '../../kit/fieldOrder';
import { Kbd } from '../../kit/Kbd';
import { addVent } from './addVent';
import { VentFields } from './VentFields';
import { VentPicture } from './VentPicture';

/**
 * Vents where they are seen from outside: the base from below with the sides folded out. A click on an empty place records a
 * vent there, a click on one opens its figures below; vents are dragged or moved with the arrow keys.
 */
export function VentPlan() {
  const { draft, change, readable: record, readsBefore: stale } = useMachineFile();
  const plan = useMemo(() => (record ? outsidePlan(record) : null), [record]);
  const [chosen, setChosen] = useState(0);
  const [added, setAdded] = useState<number | null>(null);
  const vents = partsOf(draft, 'vents');
  const selected = Math.min(chosen, vents.length - 1);
  const add = (face: Face, x: number, y: number) => {
    if (!plan || !record) return;
    const place = keptPlace(plan, face, x, y);
    change((d) => addVent(d, record, face, place));
    setChosen(vents.length);
    setAdded(vents.length);
  };
  // a new vent is typed in at once
  useEffect(() => {
    if (added === null) return;
    const width = document.getElementById(`field-vents.${added}.widthMm`);
    if (width) enterField(width);
    setAdded(null);
  }, [added]);
  const put = (v: PlannedVent, x: number, y: number) => {
    if (!plan) return;
    const face = faceAt(plan, x, y) ?? v.face;
    const place = keptPlace(plan, face, x, y);
    change(
      (d) => setAt(setAt(d, ['airway', 'places', v.id], place), ['vents', v.index, 'side'], face),
      `airway.${v.id}`,
    );
  };
  useCommands({
    'add-vent': () => {
      if (!plan) return;
      const { x, y, width, height } = plan.faces.base;
      add('base', x + width / 2, y + height / 4);
    },
  });
  // vents that the plan does not show; without a plan all of them
  const unseen = plan?.onDeck ?? vents.map(({ id }, index) => ({ id, index }));
  return (
    <section aria-label="vents">
      <h2 className="font-semibold">Vents</h2>
      <p className="text-small text-quiet mb-1">
        From below, sides folded out. <span className="text-air">Dashed: air enters</span>,{' '}
        <span className="text-heat">solid: it leaves</span>, dotted: passive. Click an empty place
        to record a vent there <Kbd>n</Kbd>
      </p>
      {plan && record ? (
        <VentPicture
          plan={plan}
          record={record}
          selected={selected}
          choose={setChosen}
          add={add}
          put={put}
        />
      ) : (
        <p className="text-quiet py-3">The plan is drawn once the record can be read.</p>
      )}
      {stale && (
        <p className="text-small text-quiet">The plan is that of before the figure in hand.</p>
      )}
      {unseen.length > 0 && (
        <p className="text-[0.9rem]">
          {plan ? 'On the deck:' : 'Recorded:'}{' '}
          {unseen.map((v) => (
            <button
              key={v.id}
              type="button"
              className="figure underline underline-offset-2 cursor-pointer mr-2"
              onClick={() => setChosen(v.index)}
            >
              {v.id}
            </button>
          ))}
        </p>
      )}
      {vents.length === 0 ? (
        <p className="text-quiet py-2">
          No vent recorded: openings of usual size are assumed. Record them where they are smaller,
          covered or meshed.
        </p>
      ) : (
        <VentFields key={selected} index={selected} />
      )}
    </section>
  );
}
