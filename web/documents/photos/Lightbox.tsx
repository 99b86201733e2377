import { ChevronLeft, ChevronRight, X } from 'lucide-react';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { useNavigate } from 'react-router';
import { isPaper, type Attachment } from '../../api/attachments';
import { Kbd } from '../../kit/Kbd';
import { DocumentHistory } from '../DocumentHistory';
import { KeptTrouble } from '../KeptTrouble';
import { SavedWords } from '../SavedWords';
import { PhotoFacts } from './PhotoFacts';
import { PhotoStage } from './PhotoStage';
import { usePhotoActions } from './usePhotoActions';
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
  const { facts, view, keeper, change, undo, flush } = usePhotoFacts(attachment);
  const [box, setBox] = useState<number | null>(null);
  const [actual, setActual] = useState(false);
  const dialog = useRef<HTMLDialogElement>(null);
  const stage = useRef<HTMLDivElement>(null);
  // where the hand was before gets it back
  const [before] = useState(() => document.activeElement);
  useEffect(
    () => () => {
      queueMicrotask(() => {
        // paging puts another photo in its place
        if (document.querySelector('dialog[open]') || !(before instanceof HTMLElement)) return;
        if (before.isConnected) before.focus();
      });
    },
    [before],
  );
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
  const { saveCopy, putAside } = usePhotoActions(
    attachment,
    { label, revision: view?.revision ?? attachment.revision },
    flush,
  );
  const navigate = useNavigate();
  const measure = () => {
    if (paper) return;
    close();
    void navigate(`/machines/${attachment.machineId}/photos/${attachment.id}`);
  };
  const look = () => change({ looked: !facts.looked, ...(facts.looked ? {} : { exported: true }) });
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
      l: look,
      z: () => setActual((x) => !x),
      m: measure,
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
        <PhotoStage
          attachment={attachment}
          facts={facts}
          label={label}
          actual={actual}
          stage={stage}
          box={box}
          setBox={setBox}
          change={change}
        />
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
          <PhotoFacts
            attachment={attachment}
            facts={facts}
            change={change}
            addBox={addBox}
            look={look}
          />
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
            {!paper && (
              <button type="button" className="btn btn-sm" onClick={measure}>
                Measure in it <Kbd>m</Kbd>
              </button>
            )}
            <button type="button" className="btn btn-sm" onClick={() => void saveCopy()}>
              Save a copy <Kbd>d</Kbd>
            </button>
            <button type="button" className="btn btn-sm" onClick={() => void putAside()}>
              Put aside <Kbd>Del</Kbd>
            </button>
          </div>
          <p className="mt-3 text-small text-quiet" role="status">
            {view && view.state.kind !== 'saved' && <SavedWords view={view} />}
          </p>
          <KeptTrouble kind="photo" view={view} keeper={keeper} />
          {keeper && (
            <details className="mt-3 text-[0.9rem]">
              <summary className="cursor-pointer text-quiet">History</summary>
              <DocumentHistory kind="photo" id={attachment.id} keeper={keeper} />
            </details>
          )}
        </aside>
      </div>
    </dialog>
  );
}
