import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { plural } from '@zugluft/core/record/plural';
import { MAX_ATTACHMENT_MB } from '@zugluft/core/library/attachment';
import { isPaper, putAttachmentAside, type Attachment } from '../../api/attachments';
import { AddButton } from '../../documents/photos/AddButton';
import { AttachmentTile } from '../../documents/photos/AttachmentTile';
import { useAttachments } from '../../documents/photos/AttachmentsProvider';
import { ownerOf, ownerWords, owners } from '../../documents/photos/ownerPath';
import { SendingList } from '../../documents/photos/SendingList';
import { useMachineFile } from '../../documents/record/MachineFile';
import { OnceMade } from '../../documents/record/OnceMade';

/** All photos and papers of a machine, grouped by what they belong to. */
export function PhotosStep() {
  return (
    <OnceMade>
      <Photos />
    </OnceMade>
  );
}

function Photos() {
  const { draft } = useMachineFile();
  const { items, aside, error, loading, sending, queue, show, replace } = useAttachments();
  const [over, setOver] = useState(false);
  const [target, setTarget] = useState('');
  const [showAside, setShowAside] = useState(false);
  useEffect(() => {
    const paste = (e: ClipboardEvent) => {
      const files = [...(e.clipboardData?.files ?? [])];
      if (!files.length) return;
      e.preventDefault();
      queue.add(files, target);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, [queue, target]);
  // the machine first, its parts in the order of the record, what is left at the end
  const order = owners(draft).map((p) => ownerOf(draft, p).part);
  const groups = new Map<string, Attachment[]>();
  for (const a of items) {
    const { part, gone } = ownerOf(draft, a.path);
    const name = gone ? ownerWords(draft, a.path) : part;
    groups.set(name, [...(groups.get(name) ?? []), a]);
  }
  const rank = (name: string) => (order.includes(name) ? order.indexOf(name) : order.length);
  const sorted = [...groups].sort(([a], [b]) => rank(a) - rank(b));
  const inOrder = sorted.flatMap(([, list]) => list);
  // in the order in which they are shown, so that one can be looked at after the other
  const unseen = inOrder.filter((a) => a.exported && !a.looked);
  return (
    <div
      className={`min-h-full ${over ? 'outline-2 outline-dashed outline-air' : ''}`}
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={(e) => {
        if (!e.currentTarget.contains(e.relatedTarget as Node | null)) setOver(false);
      }}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        queue.add([...e.dataTransfer.files], target);
      }}
    >
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 pb-2 border-b border-ink">
        <h2 className="font-semibold">Photos and papers</h2>
        <label className="flex items-center gap-2 text-[0.9rem]">
          <span className="text-quiet">new ones belong to</span>
          <select
            className="select select-sm w-44"
            value={target}
            onChange={(e) => setTarget(e.currentTarget.value)}
          >
            {owners(draft).map((p) => (
              <option key={p} value={p}>
                {ownerWords(draft, p)}
              </option>
            ))}
          </select>
        </label>
        <AddButton path={target} label="choose photos or papers" className="btn btn-sm btn-primary">
          Choose files
        </AddButton>
      </div>
      <p className="text-small text-quiet py-2">
        Choose, drop or paste JPEG, PNG, WebP or PDF, up to {MAX_ATTACHMENT_MB} MB each. Where a
        photo was taken is removed on arrival; serial numbers you cover yourself.
      </p>
      {unseen.length > 0 && (
        <p className="border-l-2 border-heat pl-2 mb-2 text-[0.95rem]">
          {plural(unseen.length, 'photo or paper', 'photos and papers')}{' '}
          {unseen.length === 1 ? 'stays' : 'stay'} here until somebody has looked for serial
          numbers, names and faces.{' '}
          <button
            type="button"
            className="underline underline-offset-2 cursor-pointer"
            onClick={() => show(unseen[0]!, unseen)}
          >
            Look through
          </button>
        </p>
      )}
      {sending.length > 0 && <SendingList items={sending} />}
      {error && (
        <p className="text-heat py-2" role="alert">
          The photos could not be read: {error.message}.
        </p>
      )}
      {!loading && !error && items.length === 0 && (
        <p className="text-quiet py-6">
          No photo yet. Take one of the underside with its label first, then of every layer before
          anything is loosened.
        </p>
      )}
      {sorted.map(([name, list]) => (
        <section key={name} aria-label={name} className="py-2">
          <h3 className="text-[0.9rem] text-quiet mb-1">{name}</h3>
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(9.5rem,1fr))] gap-3">
            {list.map((a) => (
              <li key={a.id} className="min-w-0">
                <AttachmentTile attachment={a} size="page" open={() => show(a, inOrder)} />
                <p className="truncate text-[0.9rem] pt-0.5" title={a.caption || a.name}>
                  {a.caption || a.name}
                </p>
                {!isPaper(a) && (
                  <Link
                    to={`/machines/${a.machineId}/photos/${a.id}`}
                    className="text-[0.9rem] underline underline-offset-2 inline-block py-1"
                    aria-label={`measure in ${a.caption || a.name}`}
                  >
                    measure
                  </Link>
                )}
                <p className="text-small text-quiet">
                  {[
                    ownerOf(draft, a.path).figure,
                    a.covers.length
                      ? `${a.covers.length} ${a.covers.length === 1 ? 'box' : 'boxes'}`
                      : '',
                    !a.exported ? 'stays in' : a.looked ? '' : 'not looked at',
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </p>
              </li>
            ))}
          </ul>
        </section>
      ))}
      {aside.length > 0 && (
        <section aria-label="put aside" className="py-3 border-t border-rule mt-3">
          <button
            type="button"
            className="underline underline-offset-2 cursor-pointer text-[0.9rem]"
            aria-expanded={showAside}
            onClick={() => setShowAside((x) => !x)}
          >
            {aside.length} put aside
          </button>
          {showAside && (
            <ul className="pt-1">
              {aside.map((a) => (
                <li key={a.id} className="flex gap-3 py-0.5">
                  <span className="truncate">{a.caption || a.name}</span>
                  <button
                    type="button"
                    className="underline underline-offset-2 cursor-pointer text-[0.9rem] whitespace-nowrap"
                    onClick={() =>
                      void putAttachmentAside(a, false).then(replace, (cause: Error) =>
                        toast.error(`It could not be brought back: ${cause.message}`),
                      )
                    }
                  >
                    bring back
                  </button>
                </li>
              ))}
            </ul>
          )}
        </section>
      )}
    </div>
  );
}
