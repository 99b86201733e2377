import { useState } from 'react';
import { GOALS } from '@zugluft/core/service/goals';
import { guideOf } from '@zugluft/core/service/guide';
import { guideTree } from '@zugluft/core/service/guideTree';
import { toJsxRuntime, type Components } from 'hast-util-to-jsx-runtime';
import { toHast } from 'mdast-util-to-hast';
import { Fragment, jsx, jsxs } from 'react/jsx-runtime';
import { guideUrl } from '../../api/openUp';
import { useAttachments } from '../../documents/photos/AttachmentsProvider';
import { AttachmentTile } from '../../documents/photos/AttachmentTile';
import { useMachineFile } from '../../documents/record/MachineFile';
import { useOpenUp } from './OpenUpLog';
import { SaveLogButton } from './SaveLogButton';

/** What the elements of a guide look like here; its title stands above the page already. */
const LOOK: Components = {
  h1: () => null,
  h2: ({ children }) => <h2 className="font-semibold mt-5 mb-1">{children}</h2>,
  h3: ({ children }) => <h3 className="font-semibold mt-3">{children}</h3>,
  p: ({ children }) => <div className="text-[0.95rem] flex flex-wrap gap-2">{children}</div>,
  blockquote: ({ children }) => (
    <blockquote className="border-l-2 border-heat pl-2 my-0.5 text-[0.9rem]">{children}</blockquote>
  ),
  ul: ({ children }) => <ul className="list-disc pl-6 text-[0.95rem]">{children}</ul>,
  ol: ({ children }) => <ol className="list-decimal pl-8 text-[0.95rem]">{children}</ol>,
};

/** The log as readers get it: to read here, to print, to save as HTML or as Markdown with its photos. */
export function GuidePage() {
  const { machine } = useMachineFile();
  const { log, rules, kept } = useOpenUp();
  const { items, show } = useAttachments();
  const [goal, setGoal] = useState('all');
  const photosOf = (step: string) =>
    items.filter(
      (a) =>
        a.path === `log.steps.${step}` && a.exported && a.looked && a.type !== 'application/pdf',
    );
  const guide = guideOf(
    log,
    {
      title: '',
      goal: goal === 'all' ? null : goal,
      photosOf: (step) => photosOf(step).map((a) => a.id),
    },
    rules,
  );
  const photos = guide.steps.flatMap((s) => photosOf(s.id));
  const serials = photos.filter((p) => p.covers.length === 0).length;
  /** A photo is named in the tree by its id. */
  const img: Components['img'] = ({ src }) => {
    const photo = photos.find((p) => p.id === src);
    return (
      photo && (
        <AttachmentTile
          attachment={photo}
          size="row"
          open={() => show(photo, photosOf(photo.path.replace('log.steps.', '')))}
        />
      )
    );
  };
  const rendered = toJsxRuntime(toHast(guideTree(guide, (photo) => photo)), {
    Fragment,
    jsx,
    jsxs,
    components: { ...LOOK, img },
  });
  return (
    <div className="max-w-[52rem]">
      <div className="flex flex-wrap items-baseline gap-3 mb-3 no-print">
        <select
          className="select select-sm w-64"
          aria-label="what the guide leads to"
          value={goal}
          onChange={(e) => setGoal(e.currentTarget.value)}
        >
          <option value="all">the whole opening</option>
          {GOALS.map((g) => (
            <option key={g.id} value={g.id}>
              {g.name}
            </option>
          ))}
        </select>
        {guide.steps.length > 0 && (
          <>
            <a
              className="btn btn-sm"
              href={guideUrl(machine.id, goal, 'html')}
              target="_blank"
              rel="noreferrer"
            >
              Read and print
            </a>
            <a className="btn btn-sm" href={guideUrl(machine.id, goal, 'save')}>
              Save as HTML
            </a>
            <a className="btn btn-sm" href={guideUrl(machine.id, goal, 'zip')}>
              Save as Markdown
            </a>
          </>
        )}
        {log.steps.length > 0 && <SaveLogButton />}
        {kept.state.kind !== 'saved' && (
          <span className="text-quiet text-[0.9rem]">files hold what was last saved</span>
        )}
      </div>
      {guide.steps.length === 0 ? (
        <p className="text-quiet">
          {log.steps.length === 0
            ? 'No step is logged yet: log the opening first, here or at the bench.'
            : 'No step of the log reaches this: say at a step what it reaches.'}
        </p>
      ) : (
        <article data-testid="guide">
          {serials > 0 && (
            <p className="border-l-2 border-heat pl-2 mb-3 no-print">
              {serials} {serials === 1 ? 'photo has' : 'photos have'} no box over anything: open
              each and cover serial numbers (key c) before the guide goes out.
            </p>
          )}
          {rendered}
        </article>
      )}
    </div>
  );
}
