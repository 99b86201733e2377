import { CAUTIONS } from '@zugluft/core/service/cautions';
import { screwsOf, secondsOf } from '@zugluft/core/service/benchEdits';
import { groupWords, RELEASE_WORDS } from '@zugluft/core/service/guide';
import { GroupMark } from '../GroupMark';
import { PostureMark } from './PostureMark';
import { clockWords, useNow } from './useNow';
import type { Bench } from './useBench';

/** One step of the opening in big type: posture, cautions, house rules, clock, what was logged so far. */
export function OpenView({ bench, photos }: { bench: Bench; photos: number }) {
  const { step, log, index, cautions, unread, house } = bench;
  const now = useNow(step?.runningSince !== undefined);
  if (!step) {
    return <p className="text-2xl">No step yet. Say what comes first.</p>;
  }
  const total = log.steps.reduce((sum, s) => sum + secondsOf(s, now), 0);
  const letters = log.groups.map((g, i) => {
    const mine = screwsOf(log, step.id).filter((s) => s.group === g.id);
    return {
      group: g,
      i,
      out: mine.filter((s) => s.out).length,
      missing: mine.filter((s) => s.onArrival === 'missing').length,
      expected: mine.filter((s) => !s.out && s.onArrival !== 'missing').length,
      unplaced: mine.filter((s) => s.xMm === undefined).length,
    };
  });
  const shown = letters.filter((x) => x.out + x.missing + x.expected > 0);
  const connectors = step.connectors.flatMap((id) => log.connectors.find((c) => c.id === id) ?? []);
  const parts = step.parts.flatMap((id) => log.parts.find((p) => p.id === id) ?? []);
  const strips = step.strips.flatMap((id) => log.strips.find((p) => p.id === id) ?? []);
  return (
    <div className="space-y-4">
      <div>
        <p className="text-quiet">
          Step <span className="figure">{index + 1}</span> of{' '}
          <span className="figure">{log.steps.length}</span>
          {step.state !== 'planned' && (
            <span className={step.state === 'went-wrong' ? 'text-heat' : ''}>
              {' '}
              · {step.state.replace('-', ' ')}
            </span>
          )}
        </p>
        <h1 className="text-5xl font-semibold leading-tight break-words" data-testid="bench-step">
          {step.name}
        </h1>
      </div>
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2">
        <PostureMark posture={step.posture} />
        <p data-testid="bench-clock">
          <span className={`figure text-3xl ${step.runningSince ? '' : 'text-quiet'}`}>
            {clockWords(secondsOf(step, now))}
          </span>
          <span className="text-quiet text-lg">
            {!step.runningSince && ' stands'} · whole {clockWords(total)}
            {step.expectedSeconds !== undefined &&
              ` · expected ${clockWords(step.expectedSeconds)}`}
          </span>
        </p>
      </div>
      {cautions.length > 0 && (
        <div
          role={unread.length ? 'alert' : undefined}
          className={`border-l-4 pl-3 ${unread.length ? 'border-heat' : 'border-rule'}`}
          data-testid="bench-cautions"
        >
          {cautions.map((c) => (
            <p
              key={c}
              className={unread.includes(c) ? 'text-xl font-medium my-1' : 'text-lg text-quiet'}
            >
              {CAUTIONS[c]}
            </p>
          ))}
          {unread.length > 0 && <p className="text-heat">Enter: read and understood</p>}
        </div>
      )}
      {(house.words.length > 0 || step.tools.length + house.tools.length > 0) && (
        <div className="text-lg">
          {house.words.map((w) => (
            <p key={w}>{w}</p>
          ))}
          <p className="text-quiet">
            {[...new Set([...step.tools, ...house.tools, ...step.consumables])].join(', ')}
          </p>
        </div>
      )}
      {shown.length > 0 && (
        <ul className="space-y-1" data-testid="bench-groups">
          {shown.map(({ group, i, out, missing, expected, unplaced }) => (
            <li key={group.id} className="flex items-center gap-3">
              <svg viewBox="-9 -9 18 18" className="size-8 shrink-0" aria-hidden>
                <GroupMark index={i} letter={group.letter} state="in" />
              </svg>
              <span>
                <span className="figure text-2xl">{out}</span>
                {expected > 0 && <span className="figure"> of {out + expected}</span>} out
                {missing > 0 && <span className="text-heat">, {missing} missing on arrival</span>}
                {unplaced > 0 && <span className="text-quiet">, {unplaced} not on the map</span>}
                <span className="text-quiet text-lg"> {groupWords(group, false)}</span>
              </span>
            </li>
          ))}
        </ul>
      )}
      <div className="text-lg" data-testid="bench-logged">
        {connectors.map((c) => (
          <p key={c.id}>
            {c.name}
            {c.off ? ' off' : ''}
            {c.release && RELEASE_WORDS[c.release] && `: ${RELEASE_WORDS[c.release]}`}
          </p>
        ))}
        {parts.map((p) => (
          <p key={p.id}>{p.name} out</p>
        ))}
        {strips.map((s) => (
          <p key={s.id}>
            {s.name}: {s.purpose.replace(/-/g, ' ')}
            {s.off ? ', lifted' : ', stays'}
          </p>
        ))}
        {step.stamps.length > 0 && (
          <p className="figure text-quiet">
            {step.stamps.map((s) => new Date(s.at).toLocaleTimeString('en-GB')).join(', ')}
          </p>
        )}
        {photos > 0 && (
          <p>
            {photos} {photos === 1 ? 'photo' : 'photos'}
          </p>
        )}
        {step.note && <p className="whitespace-pre-line">{step.note}</p>}
      </div>
    </div>
  );
}
