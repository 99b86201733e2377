import { useState } from 'react';
import type { Placed } from '@zugluft/core/benchday/conflicts';
import { actMinutes, type BenchDay, type Phase } from '@zugluft/core/benchday/dayDocument';
import { actWords, clockOf } from './dayWords';

/** Acts are dragged and stepped by so many minutes. */
const SNAP_MIN = 5;
/** A hand is never quite still, px. */
const STILL = 3;

/** What a stretch wants of the room, told by its look and in words. */
function lookOf({ hands, room }: Phase): string {
  if (room === 'alone') return 'bg-air/50';
  if (hands) return 'bg-heat/40';
  return room === 'none' ? 'bg-rule/50' : 'bg-heat/15';
}

/** The day as a table: a row for each machine, time across; acts are dragged, or moved with the arrows. */
export function DayTable({
  day,
  placed,
  nowMin,
  place,
}: {
  day: BenchDay;
  placed: readonly Placed[];
  nowMin: number | null;
  place: (id: string, startMin: number) => void;
}) {
  const [held, setHeld] = useState<{ id: string; fromX: number; x: number } | null>(null);
  const endMin = Math.max(60, ...placed.map((p) => p.startMin + actMinutes(p.act)));
  const span = Math.ceil((endMin + 15) / 60) * 60;
  const share = (min: number) => `${(100 * min) / span}%`;
  const machines = [...new Map(placed.map((p) => [p.act.machine, p.act.machineName])).entries()];
  const hours = Array.from({ length: span / 60 + 1 }, (_, i) => 60 * i);
  const every = Math.max(1, Math.ceil(hours.length / 10));
  return (
    <section aria-label="table of the day" className="text-small">
      <div className="grid grid-cols-[7rem_minmax(0,1fr)] max-sm:grid-cols-[4.6rem_minmax(0,1fr)] gap-x-2">
        <span />
        <div className="relative h-4 figure text-quiet" aria-hidden>
          {hours
            .filter((_, i) => i % every === 0 && i < hours.length - 1)
            .map((h) => (
              <span key={h} className="absolute" style={{ left: share(h) }}>
                {clockOf(day, h)}
              </span>
            ))}
        </div>
        {machines.map(([machine, name]) => (
          <div key={machine} className="contents">
            <span className="pt-2 leading-tight">{name ?? machine}</span>
            <div className="relative h-12 border-t border-rule" data-track>
              {hours.map((h) => (
                <span
                  key={h}
                  aria-hidden
                  className="absolute inset-y-0 border-l border-rule"
                  style={{ left: share(h) }}
                />
              ))}
              {nowMin !== null && nowMin >= 0 && nowMin <= span && (
                <span
                  aria-hidden
                  className="absolute inset-y-0 border-l-2 border-ink z-10"
                  style={{ left: share(nowMin) }}
                />
              )}
              {placed
                .filter((p) => p.act.machine === machine)
                .map(({ act, startMin }) => {
                  const width = actMinutes(act);
                  const moved = held?.id === act.id ? held.x - held.fromX : 0;
                  const step = (by: number) => place(act.id, startMin + by);
                  return (
                    <button
                      key={act.id}
                      type="button"
                      className={`absolute inset-y-1 flex overflow-hidden border touch-none cursor-grab focus-visible:outline-2 focus-visible:outline-air ${act.endedAt ? 'opacity-60 border-rule' : 'border-ink'}`}
                      style={{
                        left: share(startMin),
                        width: share(width),
                        ...(moved ? { transform: `translateX(${moved}px)` } : {}),
                      }}
                      aria-label={`${actWords(act)}, ${clockOf(day, startMin)} to ${clockOf(day, startMin + width)}: ${act.phases.map((p) => `${p.name} ${p.minutes} min`).join(', ')}`}
                      title={act.phases.map((p) => `${p.name} ${p.minutes} min`).join(', ')}
                      onKeyDown={(e) => {
                        if (e.key !== 'ArrowLeft' && e.key !== 'ArrowRight') return;
                        e.preventDefault();
                        e.stopPropagation();
                        step(e.key === 'ArrowLeft' ? -SNAP_MIN : SNAP_MIN);
                      }}
                      onPointerDown={(e) => {
                        if (act.startedAt) return;
                        e.currentTarget.setPointerCapture(e.pointerId);
                        setHeld({ id: act.id, fromX: e.clientX, x: e.clientX });
                      }}
                      onPointerMove={(e) => {
                        if (held?.id === act.id) setHeld({ ...held, x: e.clientX });
                      }}
                      onPointerUp={(e) => {
                        if (held?.id !== act.id) return;
                        setHeld(null);
                        const px = e.clientX - held.fromX;
                        const track = e.currentTarget.closest('[data-track]');
                        const all = track?.getBoundingClientRect().width ?? 0;
                        if (Math.abs(px) < STILL || all <= 0) return;
                        const min = startMin + (px / all) * span;
                        place(act.id, SNAP_MIN * Math.round(min / SNAP_MIN));
                      }}
                      onPointerCancel={() => setHeld(null)}
                    >
                      {act.phases.map((p, i) => (
                        <span
                          key={`${i} ${p.name}`}
                          className={`h-full ${lookOf(p)}`}
                          style={{ width: `${(100 * p.minutes) / width}%` }}
                        />
                      ))}
                      <span className="absolute inset-x-1 top-1 truncate text-left text-ink">
                        {act.name}
                      </span>
                    </button>
                  );
                })}
            </div>
          </div>
        ))}
      </div>
      <p className="text-quiet mt-1">
        <Swatch look="bg-heat/40" /> hands <Swatch look="bg-heat/15" /> a load{' '}
        <Swatch look="bg-air/50" /> to be heard alone <Swatch look="bg-rule/50" /> cools
      </p>
    </section>
  );
}

function Swatch({ look }: { look: string }) {
  return (
    <span
      aria-hidden
      className={`inline-block w-3 h-3 border border-ink align-[-2px] ml-2 ${look}`}
    />
  );
}
