import { useState, type RefObject } from 'react';
import type { AttachmentFacts } from '@zugluft/core/library/attachment';
import { contentUrl, isPaper, type Attachment } from '../../api/attachments';
import { CoverLayer } from './CoverLayer';

/** The photo itself, as large as it may be, with the boxes over it. */
export function PhotoStage({
  attachment,
  facts,
  label,
  actual,
  stage,
  box,
  setBox,
  change,
}: {
  attachment: Attachment;
  facts: AttachmentFacts;
  label: string;
  /** At the size of its own pixels. */
  actual: boolean;
  stage: RefObject<HTMLDivElement | null>;
  box: number | null;
  setBox: (index: number | null) => void;
  change: (part: Partial<AttachmentFacts>) => void;
}) {
  const [failed, setFailed] = useState(false);
  const paper = isPaper(attachment);
  return (
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
            The photo could not be read from the server. It is shown again once the server is back
            and this view is opened anew.
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
  );
}
