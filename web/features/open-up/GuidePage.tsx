import { useMemo, useState } from 'react';
import { GOALS } from '@zugluft/core/service/goals';
import { DEFERENCE, guideOf } from '@zugluft/core/service/guide';
import { guideUrl } from '../../api/openUp';
import { useAttachments } from '../../documents/photos/AttachmentsProvider';
import { AttachmentTile } from '../../documents/photos/AttachmentTile';
import { useMachineFile } from '../../documents/record/MachineFile';
import { useOpenUp } from './OpenUpLog';
import { SaveLogButton } from './SaveLogButton';

/** The log as readers get it: to read here, to print, to save as HTML or as Markdown with its photos. */
export function GuidePage() {
  const { machine } = useMachineFile();
  const { log, rules, kept } = useOpenUp();
  const { items, show } = useAttachments();
  const [goal, setGoal] = useState('all');
  const photosOf = (step: string) =>
    items.filter(
      (a) => a.path === `log.steps.${step}` && a.exported && a.type !== 'application/pdf',
    );
  const guide = useMemo(
    () =>
      guideOf(log, { title: '', goal: goal === 'all' ? null : goal, photosOf: () => [] }, rules),
    [log, goal, rules],
  );
  const serials = guide.steps
    .flatMap((s) => photosOf(s.id))
    .filter((p) => p.covers.length === 0).length;
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
          <p className="text-[0.95rem] mb-3">
            {guide.minutes !== null && (
              <>
                About <span className="figure">{Math.max(1, Math.round(guide.minutes))}</span> min
                {guide.timed < guide.steps.length &&
                  ` for the ${guide.timed} of ${guide.steps.length} steps that were timed`}
                .{' '}
              </>
            )}
            {guide.tools.length > 0 && <>Tools: {guide.tools.join(', ')}. </>}
            {guide.consumables.length > 0 && <>Uses up: {guide.consumables.join(', ')}.</>}
          </p>
          <ol className="space-y-3">
            {guide.steps.map((s, i) => (
              <li key={s.id} className="grid grid-cols-[2rem_minmax(0,1fr)] gap-2">
                <span className="figure text-quiet text-lg">{i + 1}</span>
                <div>
                  <h3 className="font-semibold">
                    {s.name}
                    <span className="font-normal text-quiet text-[0.9rem]">
                      {s.posture && ` · ${s.posture}`}
                      {s.minutes !== null &&
                        ` · ${s.minutes < 1 ? 'under a minute' : `${Math.round(s.minutes)} min`}`}
                    </span>
                  </h3>
                  {s.cautions.map((c) => (
                    <p key={c} className="border-l-2 border-heat pl-2 my-0.5 text-[0.9rem]">
                      {c}
                    </p>
                  ))}
                  <ul className="text-[0.95rem]">
                    {[
                      ...s.screws,
                      ...s.connectors,
                      ...(s.parts.length ? [s.parts.join(', ')] : []),
                      ...s.rules,
                    ].map((x) => (
                      <li key={x}>{x}</li>
                    ))}
                  </ul>
                  {s.note && <p className="text-[0.95rem] whitespace-pre-line">{s.note}</p>}
                  <div className="flex flex-wrap gap-2 mt-1">
                    {photosOf(s.id).map((a) => (
                      <AttachmentTile
                        key={a.id}
                        attachment={a}
                        size="row"
                        open={() => show(a, photosOf(s.id))}
                      />
                    ))}
                  </div>
                </div>
              </li>
            ))}
          </ol>
          <h3 className="font-semibold mt-4 mb-1">Back together</h3>
          <ol className="list-decimal pl-8 text-[0.95rem]">
            {guide.back.map((b) => (
              <li key={b}>{b}</li>
            ))}
          </ol>
          <p className="text-[0.85rem] text-quiet mt-3">{DEFERENCE}</p>
        </article>
      )}
    </div>
  );
}
