import { ChevronLeft, ChevronRight, X } from 'lucide-react';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { toast } from 'sonner';
import {
  contentUrl,
  copyUrl,
  isPaper,
  putAttachmentAside,
  type Attachment,
} from '../../api/attachments';
import { useMachineFile } from '../record/MachineFile';
import { Kbd } from '../../kit/Kbd';
import { useAttachments } from './AttachmentsProvider';
import { CoverLayer } from './CoverLayer';
import { owners, ownerWords } from './ownerPath';
import { ConflictPanel } from '../ConflictPanel';
import { SavedWords } from '../SavedWords';
import { usePhotoFacts } from './usePhotoFacts';

const NEW_BOX = [0.35, 0.45, 0.3, 0.1] as const;

/** One photo or paper large, with what is known of it and the boxes that hide parts of it. */
export function Lightbox({
  attachment,
  place,
  go,
  close,
}: {
  attachment: Attachment;
  place: string;
  go: (by: 1 | -1) => void;
  close: () => void;
}) {
  const { draft } = useMachineFile();
  const { replace } = useAttachments();
  const { facts, view, keeper, change, undo, flush } = usePhotoFacts(attachment);
  const [box, setBox] = useState<number | null>(null);
  const [actual, setActual] = useState(false);
  const [failed, setFailed] = useState(false);
  const dialog = useRef<HTMLDialogElement>(null);
  const stage = useRef<HTMLDivElement>(null);
  const paper = isPaper(attachment);
  const label = facts.caption || attachment.name;
  useEffect(() => {
    dialog.current?.showModal();
    stage.current?.focus();
  }, []);
  const addBox = () => {
    if (paper) return;
    change({ covers: [...facts.covers, [...NEW_BOX]] });
    setBox(facts.covers.length);
    // the new box takes the keys, once it is there
    requestAnimationFrame(() =>
      stage.current?.querySelector<HTMLElement>(`[data-cover="${facts.covers.length}"]`)?.focus(),
    );
  };
  // the server burns the boxes in: a copy must not leave before it has them
  const saveCopy = async () => {
    if (!(await flush())) {
      toast.error('No copy: the boxes could not be saved, and it would go out without them.');
      return;
    }
    const link = document.createElement('a');
    link.href = copyUrl(attachment);
    link.download = '';
    link.click();
  };
  const putAside = async () => {
    try {
      // what was typed goes first
      await flush();
      const aside = await putAttachmentAside(
        { ...attachment, revision: view?.revision ?? attachment.revision },
        true,
      );
      replace(aside);
      toast(`${label.slice(0, 60)} is put aside`, {
        action: {
          label: 'Bring back',
          onClick: () =>
            void putAttachmentAside(aside, false).then(replace, (cause: Error) =>
              toast.error(`It could not be brought back: ${cause.message}`),
            ),
        },
      });
    } catch (cause) {
      toast.error(`It could not be put aside: ${(cause as Error).message}`);
    }
  };
  const onKey = (e: KeyboardEvent) => {
    if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z') {
      e.preventDefault();
      undo();
      return;
    }
    if (/^(INPUT|SELECT|TEXTAREA)$/.test((e.target as HTMLElement).tagName)) return;
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    const run: Record<string, () => void> = {
      ArrowLeft: () => go(-1),
      ArrowRight: () => go(1),
      c: addBox,
      z: () => setActual((x) => !x),
      d: () => void saveCopy(),
      Delete: () => void putAside(),
    };
    if (!run[e.key]) return;
    e.preventDefault();
    run[e.key]!();
  };
  return (
    <dialog
      ref={dialog}
      aria-label={label}
      className="m-0 max-w-none max-h-none w-screen h-dvh bg-base-100 text-ink"
      onCancel={(e) => {
        e.preventDefault();
        close();
      }}
      onKeyDown={onKey}
    >
      <div className="h-full grid grid-rows-[minmax(0,1fr)_auto] md:grid-rows-1 md:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="relative min-h-0">
          <div
            ref={stage}
            tabIndex={0}
            role="group"
            aria-label="photo"
            className={`h-full p-3 outline-none [container-type:size] ${actual ? 'overflow-auto' : 'overflow-hidden grid place-items-center'}`}
          >
            {paper ? (
              <p>
                <a
                  href={contentUrl(attachment)}
                  target="_blank"
                  rel="noreferrer"
                  className="underline underline-offset-2"
                >
                  Open {attachment.name.slice(0, 80)} in a new tab
                </a>
              </p>
            ) : failed ? (
              <p className="text-heat" role="alert">
                The photo could not be read from the server. It is shown again once the server is
                back and this view is opened anew.
              </p>
            ) : (
              <div
                className="relative"
                style={
                  actual
                    ? { width: attachment.widthPx!, height: attachment.heightPx! }
                    : {
                        aspectRatio: `${attachment.widthPx} / ${attachment.heightPx}`,
                        // as large as both ways allow
                        width: `min(100cqw, calc(100cqh * ${attachment.widthPx! / attachment.heightPx!}))`,
                      }
                }
              >
                <img
                  src={contentUrl(attachment)}
                  alt={label}
                  draggable={false}
                  className="size-full select-none"
                  onError={() => setFailed(true)}
                />
                <CoverLayer
                  covers={facts.covers}
                  change={(covers) => change({ covers })}
                  chosen={box}
                  choose={setBox}
                />
              </div>
            )}
          </div>
        </div>
        <aside
          aria-label="about this photo"
          className="border-t md:border-t-0 md:border-l border-rule p-4 overflow-y-auto max-h-[45dvh] md:max-h-none"
        >
          <div className="flex items-center gap-1 mb-3">
            <button
              type="button"
              className="btn btn-ghost btn-sm px-1"
              aria-label="previous"
              title="key ←"
              onClick={() => go(-1)}
            >
              <ChevronLeft size={18} aria-hidden />
            </button>
            <span className="figure text-[0.9rem] text-quiet">{place}</span>
            <button
              type="button"
              className="btn btn-ghost btn-sm px-1"
              aria-label="next"
              title="key →"
              onClick={() => go(1)}
            >
              <ChevronRight size={18} aria-hidden />
            </button>
            <span className="grow" />
            <button
              type="button"
              className="btn btn-ghost btn-sm px-1"
              aria-label="close"
              title="key Escape"
              onClick={close}
            >
              <X size={18} aria-hidden />
            </button>
          </div>
          <label className="block mb-3">
            <span className="text-[0.85rem] text-quiet">Caption</span>
            <textarea
              className="textarea textarea-sm w-full"
              rows={2}
              maxLength={500}
              value={facts.caption}
              onChange={(e) => change({ caption: e.currentTarget.value })}
            />
          </label>
          <label className="block mb-3">
            <span className="text-[0.85rem] text-quiet">Belongs to</span>
            <select
              className="select select-sm w-full"
              value={facts.path}
              onChange={(e) => change({ path: e.currentTarget.value })}
            >
              {[...new Set([facts.path, ...owners(draft)])].map((p) => (
                <option key={p} value={p}>
                  {ownerWords(draft, p)}
                </option>
              ))}
            </select>
          </label>
          <label className="flex items-center gap-2 mb-3">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={facts.exported}
              onChange={(e) => change({ exported: e.currentTarget.checked })}
            />
            goes into exports
          </label>
          {!paper && (
            <section aria-label="boxes" className="mb-3">
              <button type="button" className="btn btn-sm" onClick={addBox}>
                Cover something <Kbd>c</Kbd>
              </button>
              <p className="text-[0.85rem] text-quiet mt-1">
                {facts.covers.length === 0
                  ? 'Serial numbers and faces: draw a box over them. '
                  : `${facts.covers.length} ${facts.covers.length === 1 ? 'box' : 'boxes'}. `}
                Boxes are burned into every copy that leaves; here they can still be moved.
              </p>
            </section>
          )}
          {paper && (
            <p className="text-[0.85rem] text-quiet mb-3">
              Nothing in a paper can be covered here. Look for serial numbers and names before it
              goes into exports.
            </p>
          )}
          <dl className="grid grid-cols-[5.5rem_minmax(0,1fr)] gap-y-0.5 text-[0.9rem] mb-3">
            <dt className="text-quiet">File</dt>
            <dd className="break-words">{attachment.name}</dd>
            {attachment.takenAt && (
              <>
                <dt className="text-quiet">Taken</dt>
                <dd className="figure">{attachment.takenAt.replace('T', ' ')}</dd>
              </>
            )}
            {!paper && (
              <>
                <dt className="text-quiet">Size</dt>
                <dd className="figure">
                  {attachment.widthPx} × {attachment.heightPx} <span className="unit">px</span>
                </dd>
              </>
            )}
          </dl>
          <div className="flex flex-wrap gap-2">
            {!paper && (
              <button
                type="button"
                className="btn btn-sm"
                aria-pressed={actual}
                onClick={() => setActual((x) => !x)}
              >
                {actual ? 'Fit' : 'Full size'} <Kbd>z</Kbd>
              </button>
            )}
            <button type="button" className="btn btn-sm" onClick={() => void saveCopy()}>
              Save a copy <Kbd>d</Kbd>
            </button>
            <button type="button" className="btn btn-sm" onClick={() => void putAside()}>
              Put aside <Kbd>Del</Kbd>
            </button>
          </div>
          <p className="mt-3 text-[0.85rem] text-quiet" role="status">
            {view && view.state.kind !== 'saved' && <SavedWords view={view} />}
          </p>
          {view?.state.kind === 'failed' && (
            <button type="button" className="btn btn-sm" onClick={keeper?.retry}>
              Try again
            </button>
          )}
          {view?.state.kind === 'conflict' && (
            <ConflictPanel
              conflicts={view.state.conflicts}
              choose={(side, path) => keeper?.choose(side, path)}
            />
          )}
        </aside>
      </div>
    </dialog>
  );
}
