import { openAt } from '@zugluft/core/service/benchEdits';
import { CAUTIONS, cautionsBack } from '@zugluft/core/service/cautions';
import { groupWords } from '@zugluft/core/service/guide';
import { GroupMark } from '../GroupMark';
import { PostureMark } from './PostureMark';
import type { Bench } from './useBench';

/** One step of the way back: which screws into which holes, in which order, which plugs and latches, what is still open. */
export function BackView({ bench }: { bench: Bench }) {
  const { log, back, backIndex, way, sure } = bench;
  if (!back) return null;
  const open = openAt(log, back);
  const step = log.steps.find((s) => s.id === back.undoes);
  const cautions = cautionsBack(step, back.check);
  const letterOf = (hole: string) => {
    const group = log.screws.find((s) => s.id === hole)?.group;
    return log.groups.find((g) => g.id === group)?.letter ?? '?';
  };
  return (
    <div className="space-y-4">
      <div>
        <p className="text-quiet">
          Back <span className="figure">{backIndex + 1}</span> of{' '}
          <span className="figure">{way.length}</span>
        </p>
        <h1 className="text-5xl font-semibold leading-tight break-words" data-testid="bench-step">
          {back.name}
        </h1>
      </div>
      <PostureMark posture={step?.posture} />
      {cautions.length > 0 && (
        <div className="border-l-4 border-rule pl-3 text-lg text-quiet">
          {cautions.map((c) => (
            <p key={c}>{CAUTIONS[c]}</p>
          ))}
        </div>
      )}
      {back.screws.length > 0 && (
        <ul className="space-y-1" data-testid="bench-groups">
          {back.screws.map(({ group, holes }) => {
            const i = log.groups.findIndex((g) => g.id === group);
            const waiting = holes.filter((h) => open.holes.includes(h)).length;
            return (
              <li key={group ?? '?'} className="flex items-center gap-3">
                <svg viewBox="-9 -9 18 18" className="size-8 shrink-0" aria-hidden>
                  <GroupMark
                    index={Math.max(0, i)}
                    letter={log.groups[i]?.letter ?? '?'}
                    state="in"
                  />
                </svg>
                <span>
                  <span className="figure text-2xl">{holes.length - waiting}</span>
                  <span className="figure"> of {holes.length}</span> back
                  <span className="text-quiet text-lg"> {groupWords(log.groups[i], false)}</span>
                </span>
              </li>
            );
          })}
        </ul>
      )}
      {back.tightening && (
        <p>
          {back.tightening.by === 'printed'
            ? 'Tighten by the printed numbers'
            : 'Tighten crosswise, as numbered on the map'}
          , two rounds: first lightly, then firmly.
        </p>
      )}
      {back.changed.length > 0 && (
        <p className="border-l-4 border-heat pl-3">
          Not as it was: {back.changed.join(', ')} now{' '}
          {back.changed.length === 1 ? 'takes' : 'take'} a screw from elsewhere.
        </p>
      )}
      {back.connectors.length > 0 && (
        <ul data-testid="bench-connectors">
          {back.connectors.map((c) => {
            const on = !open.connectors.some((x) => x.id === c.id);
            return (
              <li key={c.id} className={on ? 'text-quiet' : ''}>
                {on ? '✓ ' : '○ '}
                {c.name}
                {c.closeLatch && ', close its latch'}
                {c.lead && `, to ${c.lead}`}
              </li>
            );
          })}
        </ul>
      )}
      {back.strips.map((s) => (
        <p key={s.id}>{s.name} back in its place</p>
      ))}
      {sure && (
        <p role="alert" className="border-l-4 border-heat pl-3 text-xl" data-testid="bench-open">
          Still open:{' '}
          {[
            ...open.holes.map((h) => `${letterOf(h)} ${h}`),
            ...open.connectors.map((c) => c.name),
          ].join(', ')}
          . Enter leaves it so; the balance will name it.
        </p>
      )}
    </div>
  );
}
