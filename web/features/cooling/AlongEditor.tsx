import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  horizontalListSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical, X } from 'lucide-react';
import { getAt, partsOf, setAt, type Part } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { FigureInput } from '../../documents/record/FigureInput';

interface Along {
  part: string;
  [key: string]: unknown;
}

/** The parts a heat pipe touches, in their order along it; dragged into place, or moved with space and arrow keys. */
export function AlongEditor({ index, part }: { index: number; part: Part }) {
  const { draft, change, issueAt } = useMachineFile();
  const path = ['heatPipes', index, 'along'];
  const value = getAt(draft, path);
  const along = Array.isArray(value) ? (value as Along[]) : [];
  const known = [...partsOf(draft, 'plates'), ...partsOf(draft, 'finStacks')].map((p) => p.id);
  const ids = along.map((a, i) => `${i}:${a.part}`);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const write = (next: Along[]) => change((d) => setAt(d, path, next));
  const error = issueAt.get(`heatPipes.${index}.along`);
  return (
    <section aria-label={`parts along ${part.id}`} className="px-1.5 py-2 border-b border-rule">
      <h3 className="text-small text-quiet mb-1.5">
        <span className="figure text-ink">{part.id}</span> passes, from one end to the other; drag
        to reorder. Places in mm from its first end, where known.
      </h3>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => {
          if (!over || active.id === over.id) return;
          write(arrayMove(along, ids.indexOf(String(active.id)), ids.indexOf(String(over.id))));
        }}
      >
        <SortableContext items={ids} strategy={horizontalListSortingStrategy}>
          <ol className="flex flex-wrap gap-1.5 items-stretch">
            {along.map((a, i) => (
              <AlongItem
                key={ids[i]}
                id={ids[i]!}
                pipe={index}
                place={i}
                along={a}
                error={issueAt.get(`heatPipes.${index}.along.${i}.part`)}
                remove={() => write(along.filter((_, k) => k !== i))}
              />
            ))}
            <li className="flex items-center">
              <select
                className="select select-sm w-40"
                aria-label={`add a part along ${part.id}`}
                value=""
                onChange={(e) => write([...along, { part: e.currentTarget.value }])}
              >
                <option value="">add a part</option>
                {known.map((k) => (
                  <option key={k} value={k}>
                    {k}
                  </option>
                ))}
              </select>
            </li>
          </ol>
        </SortableContext>
      </DndContext>
      {error && (
        <p className="text-heat text-small mt-1" role="alert">
          {error}
        </p>
      )}
    </section>
  );
}

function AlongItem({
  id,
  pipe,
  place,
  along,
  error,
  remove,
}: {
  id: string;
  pipe: number;
  place: number;
  along: Along;
  error: string | undefined;
  remove: () => void;
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id,
  });
  const path = ['heatPipes', pipe, 'along', place];
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`border rounded-sm px-1 py-1 bg-base-100 ${isDragging ? 'border-air z-10 relative' : error ? 'border-heat' : 'border-rule'}`}
      data-part={along.part}
    >
      <div className="flex items-center gap-1">
        <button
          type="button"
          className="cursor-grab touch-none text-quiet"
          aria-label={`move ${along.part}`}
          {...attributes}
          {...listeners}
        >
          <GripVertical size={14} aria-hidden />
        </button>
        <span className="figure text-[0.9rem]">{along.part}</span>
        <button
          type="button"
          className="cursor-pointer text-quiet hover:text-ink"
          aria-label={`take ${along.part} off the pipe`}
          onClick={remove}
        >
          <X size={13} aria-hidden />
        </button>
      </div>
      <div className="flex items-start text-small text-quiet">
        <FigureInput
          className="w-16"
          path={[...path, 'fromMm']}
          label={`${along.part} from`}
          hint="from"
        />
        <span className="pt-1">–</span>
        <FigureInput
          className="w-16"
          path={[...path, 'toMm']}
          label={`${along.part} to`}
          hint="to"
        />
      </div>
      {error && (
        <p className="text-heat text-small" role="alert">
          {error}
        </p>
      )}
    </li>
  );
}
