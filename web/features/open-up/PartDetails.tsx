import { Plus, X } from 'lucide-react';
import { EVIDENCE } from '@zugluft/core/service/openUpLog';
import type { OpenUpLog } from '../../api/openUp';
import { AttachmentStrip } from '../../documents/photos/AttachmentStrip';
import { idWords, NumberCell, SelectCell, TextCell } from './cells';
import { useOpenUp } from './OpenUpLog';

type Part = OpenUpLog['parts'][number];

/** Rating, what comes with it, what it uses up, upgrade bounds with their evidence, photos of one part. */
export function PartDetails({ part, edit }: { part: Part; edit: (to: Partial<Part>) => void }) {
  const { log } = useOpenUp();
  const others = log.parts.filter((p) => p.id !== part.id);
  const setUpgrade = (i: number, to: Partial<Part['upgrades'][number]>) =>
    edit({ upgrades: part.upgrades.map((u, k) => (k === i ? { ...u, ...to } : u)) });
  return (
    <div className="grid sm:grid-cols-2 gap-x-8 gap-y-2 pl-4">
      <div className="space-y-1">
        <p className="flex flex-wrap items-baseline gap-3">
          <span className="text-quiet">Rating</span>
          <NumberCell
            label={`energy of ${part.name}`}
            value={part.wattHours}
            min={0.1}
            max={200}
            unit="Wh"
            set={(wattHours) => edit({ wattHours })}
          />
          <NumberCell
            label={`voltage of ${part.name}`}
            value={part.volts}
            min={0.1}
            max={60}
            unit="V"
            set={(volts) => edit({ volts })}
          />
        </p>
        <PlaceFields part={part} edit={edit} />
        <div className="flex flex-wrap items-baseline gap-2">
          <span className="text-quiet">Only with</span>
          <PartRefs
            label={`comes only with, of ${part.name}`}
            parts={others}
            chosen={part.onlyWith}
            set={(onlyWith) => edit({ onlyWith })}
          />
        </div>
        <p className="flex items-baseline gap-2">
          <span className="text-quiet whitespace-nowrap">Uses up</span>
          <TextCell
            label={`consumables of ${part.name}, with commas between`}
            value={part.consumables.join(', ')}
            hint="new adhesive"
            max={400}
            set={(t) =>
              edit({
                consumables: (t ?? '')
                  .split(',')
                  .map((x) => x.trim().slice(0, 80))
                  .filter(Boolean)
                  .slice(0, 20),
              })
            }
          />
        </p>
        <AttachmentStrip path={`log.parts.${part.id}`} words={part.name} />
      </div>
      <div>
        <p className="text-quiet">
          Upgrade bounds{' '}
          <button
            type="button"
            className="btn btn-xs"
            disabled={part.upgrades.length >= 20}
            onClick={() =>
              edit({
                upgrades: [...part.upgrades, { bound: '', evidence: 'likely', excludes: [] }],
              })
            }
          >
            <Plus size={13} aria-hidden /> bound
          </button>
        </p>
        {part.upgrades.map((u, i) => (
          <div
            key={i}
            className="flex flex-wrap items-baseline gap-x-2 border-b border-rule py-0.5"
          >
            <TextCell
              label={`bound ${i + 1} of ${part.name}`}
              value={u.bound}
              hint="80 mm cards, 32 GB"
              max={200}
              className="grow min-w-32"
              set={(bound) => setUpgrade(i, { bound: bound ?? '' })}
            />
            <SelectCell
              label={`evidence of bound ${i + 1}`}
              value={u.evidence}
              options={{ ...idWords(EVIDENCE), 'maker-says': 'the maker says' }}
              set={(e) => e && setUpgrade(i, { evidence: e as (typeof EVIDENCE)[number] })}
            />
            <button
              type="button"
              className="btn btn-ghost btn-xs px-1"
              aria-label={`remove bound ${i + 1}`}
              onClick={() => edit({ upgrades: part.upgrades.filter((_, k) => k !== i) })}
            >
              <X size={14} aria-hidden />
            </button>
            <span className="text-quiet text-[0.9rem] basis-full flex flex-wrap gap-2 items-baseline">
              excludes
              <PartRefs
                label={`excluded by bound ${i + 1}`}
                parts={others}
                chosen={u.excludes}
                set={(excludes) => setUpgrade(i, { excludes })}
              />
            </span>
          </div>
        ))}
      </div>
    </div>
  );
}

const NOWHERE = { xMm: 0, yMm: 0, widthMm: 0, depthMm: 0 };

/** Where a part lies, so that it is drawn on its layer and screws near it are warned of. */
function PlaceFields({ part, edit }: { part: Part; edit: (to: Partial<Part>) => void }) {
  const { log } = useOpenUp();
  const size = (label: string, field: keyof typeof NOWHERE, hint: string) => (
    <NumberCell
      label={`${label} of ${part.name}`}
      value={part.place?.[field]}
      min={0}
      max={800}
      unit="mm"
      hint={hint}
      set={(v) => edit({ place: { ...NOWHERE, ...part.place, [field]: v ?? 0 } })}
    />
  );
  return (
    <div className="flex flex-wrap items-baseline gap-x-2">
      <span className="text-quiet">Lies on</span>
      <SelectCell
        label={`layer of ${part.name}`}
        value={part.layer}
        empty="no layer"
        options={Object.fromEntries(log.layers.map((l) => [l.id, l.name]))}
        set={(layer) => edit({ layer })}
      />
      {size('distance from the left', 'xMm', 'from left')}
      {size('distance from the top', 'yMm', 'from top')}
      {size('width', 'widthMm', 'wide')}
      {size('depth', 'depthMm', 'deep')}
      {part.place && (
        <button
          type="button"
          className="underline underline-offset-2 cursor-pointer text-quiet hover:text-ink"
          onClick={() => edit({ place: undefined })}
        >
          no place
        </button>
      )}
    </div>
  );
}

/** Parts that are chosen, with a list to add from. */
function PartRefs({
  label,
  parts,
  chosen,
  set,
}: {
  label: string;
  parts: readonly Part[];
  chosen: readonly string[];
  set: (ids: string[]) => void;
}) {
  const rest = parts.filter((p) => !chosen.includes(p.id));
  return (
    <>
      {chosen.map((id) => {
        const name = parts.find((p) => p.id === id)?.name ?? id;
        return (
          <span key={id}>
            {name}{' '}
            <button
              type="button"
              aria-label={`${label}: not ${name}`}
              className="text-quiet hover:text-ink cursor-pointer"
              onClick={() => set(chosen.filter((x) => x !== id))}
            >
              ×
            </button>
          </span>
        );
      })}
      {rest.length > 0 && chosen.length < 20 && (
        <SelectCell
          label={label}
          value={undefined}
          empty={chosen.length ? 'and …' : 'nothing'}
          options={Object.fromEntries(rest.map((p) => [p.id, p.name]))}
          set={(id) => id && set([...chosen, id])}
        />
      )}
    </>
  );
}
