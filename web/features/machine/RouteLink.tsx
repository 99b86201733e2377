import { NavLink } from 'react-router';
import { commandOf } from '../../documents/commands';
import type { Progress } from '../../documents/route/progress';
import type { STEPS } from '../../documents/route/steps';

/** One step of the route: blank, begun or done, and how much of it is recorded. */
export function RouteLink({
  machineId,
  step,
  progress,
  open,
}: {
  machineId: string;
  step: (typeof STEPS)[number];
  progress: Progress;
  /** What is wrong or missing there. */
  open: number;
}) {
  const { state, recorded } = progress;
  return (
    <NavLink
      to={`/machines/${machineId}/${step.path}`}
      title={`${state}; key ${commandOf(step.path).keys![0]!}`}
      className={({ isActive }) =>
        `flex shrink-0 items-center gap-3 py-1.5 px-2 rounded-sm whitespace-nowrap ${isActive ? 'font-semibold' : 'text-quiet hover:text-ink'}`
      }
    >
      {({ isActive }) => (
        <>
          <Dot state={state} here={isActive} />
          <span className="grow">{step.name}</span>
          <span className="sr-only">, {state}</span>
          {open > 0 ? (
            <span className="figure text-small text-heat">{open} open</span>
          ) : (
            recorded && (
              <span className="figure text-small text-quiet hidden lg:inline">
                {recorded.done}/{recorded.of}
              </span>
            )
          )}
        </>
      )}
    </NavLink>
  );
}

/** Empty, half full, full. */
function Dot({ state, here }: { state: Progress['state']; here: boolean }) {
  const ink = here ? 'var(--color-secondary)' : 'currentColor';
  return (
    <svg viewBox="-6 -6 12 12" className="size-3 shrink-0" aria-hidden>
      <circle r="4.6" fill={state === 'done' ? ink : 'none'} stroke={ink} strokeWidth="1.1" />
      {state === 'begun' && <path d="M0 -4.6A4.6 4.6 0 0 0 0 4.6Z" fill={ink} />}
    </svg>
  );
}
