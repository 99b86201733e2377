import type { AttachmentFacts } from '@zugluft/core/library/attachment';
import { isPaper, type Attachment } from '../../api/attachments';
import { Kbd } from '../../kit/Kbd';
import { useMachineFile } from '../record/MachineFile';
import { owners, ownerWords } from './ownerPath';

/** What is known of a photo or paper: what it shows, whose it is, whether it leaves, what is covered. */
export function PhotoFacts({
  attachment,
  facts,
  change,
  addBox,
  look,
}: {
  attachment: Attachment;
  facts: AttachmentFacts;
  change: (part: Partial<AttachmentFacts>) => void;
  addBox: () => void;
  /** Says that it was looked at, or takes that back. */
  look: () => void;
}) {
  const { draft } = useMachineFile();
  const paper = isPaper(attachment);
  return (
    <>
      <label className="block mb-3">
        <span className="text-small text-quiet">Caption</span>
        <textarea
          className="textarea textarea-sm w-full"
          rows={2}
          maxLength={500}
          value={facts.caption}
          onChange={(e) => change({ caption: e.currentTarget.value })}
        />
      </label>
      <label className="block mb-3">
        <span className="text-small text-quiet">Belongs to</span>
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
      {facts.exported && (
        <div className="mb-3">
          <button
            type="button"
            className={`btn btn-sm ${facts.looked ? '' : 'btn-primary'}`}
            aria-pressed={facts.looked}
            onClick={look}
          >
            {facts.looked ? 'Looked at' : 'Looked at: nothing to hide'} <Kbd>l</Kbd>
          </button>
          {!facts.looked && (
            <p className="text-small text-quiet mt-1">
              It stays here until somebody has looked for serial numbers, names and faces, and has
              covered them.
            </p>
          )}
        </div>
      )}
      {!paper && (
        <section aria-label="boxes" className="mb-3">
          <button type="button" className="btn btn-sm" onClick={addBox}>
            Cover something <Kbd>c</Kbd>
          </button>
          <p className="text-small text-quiet mt-1">
            {facts.covers.length === 0
              ? 'Serial numbers and faces: draw a box over them. '
              : `${facts.covers.length} ${facts.covers.length === 1 ? 'box' : 'boxes'}. `}
            Boxes are burned into every copy that leaves; here they can still be moved.
          </p>
        </section>
      )}
      {paper && (
        <p className="text-small text-quiet mb-3">Nothing in a paper can be covered here.</p>
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
    </>
  );
}
