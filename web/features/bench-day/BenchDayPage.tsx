import { useEffect, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { conflictsOf, type Placed } from '@zugluft/core/benchday/conflicts';
import { actMinutes, emptyDay, type Act, type BenchDay } from '@zugluft/core/benchday/dayDocument';
import { beginsWith, moveOn, nextDue, stateOf } from '@zugluft/core/benchday/moveOn';
import { LABORATORY } from '@zugluft/core/documents/kinds';
import { estimateWorker } from '../../documents/answer/workers/estimateClient';
import { ConflictPanel } from '../../documents/ConflictPanel';
import { useCommands } from '../../documents/commands';
import { SavedWords } from '../../documents/SavedWords';
import { useDocument } from '../../documents/useDocument';
import { FieldRow } from '../../kit/FieldRow';
import { Kbd } from '../../kit/Kbd';
import { PageFrame } from '../../kit/PageFrame';
import { ActList } from './ActList';
import { AddActs } from './AddActs';
import { actWords, clockOf, conflictWords, spanWords } from './dayWords';
import { DayTable } from './DayTable';

const LOOK_AGAIN_MS = 15_000;

/** The day on the bench: runs and openings of several machines, in order for the hands, the room and the instruments there are. */
export function BenchDayPage() {
  const { view, keeper, error } = useDocument('day', LABORATORY);
  const day = view?.value ?? EMPTY;
  const [now, setNow] = useState(() => Date.now());
  const [said, setSaid] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), LOOK_AGAIN_MS);
    return () => clearInterval(timer);
  }, []);
  const nowMin = day.beginsAt ? Math.floor((now - Date.parse(day.beginsAt)) / 60_000) : null;
  const change = (update: (day: BenchDay) => BenchDay, what: string) =>
    keeper?.change(update, what);
  const placed = useMemo(
    () =>
      day.acts.flatMap((act): Placed[] =>
        typeof act.startMin === 'number' ? [{ act, startMin: act.startMin }] : [],
      ),
    [day],
  );
  const conflicts = useMemo(() => conflictsOf(placed, day), [placed, day]);

  const order = async () => {
    setProblem(null);
    const begun = day.acts.filter((a) => a.startedAt);
    const open = day.acts.filter((a) => !a.startedAt);
    const fixed = placed.filter((p) => begun.includes(p.act));
    try {
      const found = await estimateWorker().orderDay(open, day, {
        fixed,
        fromMin: begun.length > 0 ? Math.max(0, nowMin ?? 0) : 0,
      });
      change(
        (d) => ({
          ...d,
          acts: d.acts.map((a) =>
            found.startMin[a.id] === undefined ? a : { ...a, startMin: found.startMin[a.id] },
          ),
        }),
        'order of the day',
      );
      setSaid(
        found.exact
          ? `ends at ${clockOf(day, found.endMin)}, no order ends earlier`
          : `ends at ${clockOf(day, found.endMin)}, the best of many orders tried`,
      );
    } catch (cause) {
      setProblem((cause as Error).message);
    }
  };
  const place = (id: string, startMin: number) =>
    change(
      (d) => ({
        ...d,
        acts: d.acts.map((a) => (a.id === id ? { ...a, startMin: Math.max(0, startMin) } : a)),
      }),
      `place of ${actWords(day.acts.find((a) => a.id === id)!)}`,
    );
  /** Begins what is to come, ends what is under way; the rest of the day moves on. */
  const mark = (act: Act) => {
    const at = new Date().toISOString();
    const begins = act.startedAt ? (day.beginsAt ?? at) : beginsWith(day, at);
    change(
      (d) => {
        const next = {
          ...d,
          beginsAt: begins,
          acts: d.acts.map((a) =>
            a.id !== act.id ? a : a.startedAt ? { ...a, endedAt: at } : { ...a, startedAt: at },
          ),
        };
        return moveOn(next, at);
      },
      act.startedAt ? `${actWords(act)} is done` : `${actWords(act)} began`,
    );
  };
  const due = nextDue(day);
  const underWay = day.acts.find((a) => a.startedAt && !a.endedAt) ?? null;
  const isDue = due !== null && nowMin !== null && stateOf(due, nowMin) === 'due';
  // the signal is for the eyes: a noise run may be under way
  useEffect(() => {
    if (!isDue) return;
    const before = document.title;
    document.title = `Due: ${actWords(due)}`;
    return () => void (document.title = before);
  }, [isDue, due]);
  const saveCalendar = async () => {
    const { dayCalendar } = await import('./dayCalendar');
    const text = dayCalendar(day);
    if (text === null) {
      setProblem('a calendar needs the beginning of the day, and something in its table');
      return;
    }
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([text], { type: 'text/calendar' }));
    link.download = 'bench-day.ics';
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 1000);
  };
  useCommands({
    'day-order': () => void order(),
    'day-mark': () => {
      const act = underWay ?? due;
      if (act) mark(act);
    },
    'day-calendar': () => void saveCalendar(),
    undo: () => void keeper?.undo(),
    redo: () => void keeper?.redo(),
  });
  const lastMin = Math.max(...placed.map((p) => p.startMin + actMinutes(p.act)), 0);
  return (
    <PageFrame
      crumbs={['Bench day']}
      status={
        <span role="status" data-testid="day-saving">
          {view && <SavedWords view={view} />}
        </span>
      }
    >
      <main className="p-4">
        <div className="flex flex-wrap gap-x-6 gap-y-1 items-baseline">
          <h1 className="text-lg font-semibold">Bench day</h1>
          <span role="status" className={isDue ? 'text-heat font-semibold' : 'text-quiet'}>
            {due === null
              ? day.acts.length > 0
                ? 'everything has begun'
                : ''
              : nowMin === null
                ? `first: ${actWords(due)}`
                : isDue
                  ? `due since ${clockOf(day, due.startMin!)}: ${actWords(due)}`
                  : `next at ${clockOf(day, due.startMin!)}, in ${spanWords(due.startMin! - nowMin)}: ${actWords(due)}`}
          </span>
        </div>
        {error && (
          <p role="alert" className="text-heat">
            The day could not be read: {error.message}.
          </p>
        )}
        {view?.state.kind === 'conflict' && (
          <ConflictPanel kind="day" conflicts={view.state.conflicts} choose={keeper!.choose} />
        )}
        <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_20rem] gap-x-6 gap-y-4 mt-2">
          <div>
            {placed.length > 0 && (
              <DayTable day={day} placed={placed} nowMin={nowMin} place={place} />
            )}
            <p className="flex flex-wrap gap-x-4 gap-y-1 items-baseline my-2 no-print">
              <button
                type="button"
                className="btn btn-sm"
                disabled={day.acts.length === 0}
                onClick={() => void order()}
              >
                Put in order <Kbd>o</Kbd>
              </button>
              <button
                type="button"
                className="btn btn-sm btn-ghost"
                onClick={() => void saveCalendar()}
              >
                Save as iCalendar <Kbd>i</Kbd>
              </button>
              <button type="button" className="btn btn-sm btn-ghost" onClick={() => window.print()}>
                Print
              </button>
              {said && <span role="status">{said}</span>}
            </p>
            {problem && (
              <p role="alert" className="text-heat">
                {problem}.
              </p>
            )}
            {conflicts.length > 0 && (
              <ul aria-label="what cannot be" className="text-heat text-[0.95rem] mb-2">
                {conflicts.map((c) => (
                  <li key={`${c.why} ${c.acts.join(' ')} ${c.what ?? ''}`}>
                    {conflictWords(c, day.acts)}.
                  </li>
                ))}
              </ul>
            )}
            {day.acts.length === 0 && view && (
              <p className="text-quiet max-w-prose">
                Nothing yet. Add what is to be done with which machine: planned runs take as long as
                the machine needs to settle and to cool down, an opening as long as its steps took.
                Then put it in order.
              </p>
            )}
            {day.acts.length > 0 && (
              <ActList
                day={day}
                nowMin={nowMin}
                lastMin={lastMin}
                mark={mark}
                set={(id, next, what) =>
                  change(
                    (d) => ({
                      ...d,
                      acts: d.acts.map((a) => (a.id === id ? { ...a, ...next } : a)),
                    }),
                    what,
                  )
                }
                remove={(id) => {
                  change(
                    (d) => ({
                      ...d,
                      acts: d.acts
                        .filter((a) => a.id !== id)
                        .map((a) => ({ ...a, after: (a.after ?? []).filter((x) => x !== id) })),
                    }),
                    'an act taken off',
                  );
                  toast('Taken off the day; undo brings it back', { id: 'undo' });
                }}
              />
            )}
          </div>
          <aside aria-label="the day" className="no-print">
            <label className="block border-b border-rule py-0.5">
              <span className="text-quiet">begins</span>
              <input
                type="datetime-local"
                aria-label="begins"
                className="input input-sm bg-transparent text-[0.95rem] w-full"
                value={localOf(day.beginsAt ?? null)}
                onChange={(e) => {
                  const at = Date.parse(e.currentTarget.value);
                  change(
                    (d) => ({
                      ...d,
                      beginsAt: Number.isNaN(at) ? null : new Date(at).toISOString(),
                    }),
                    'beginning of the day',
                  );
                }}
              />
            </label>
            <FieldRow name="people">
              <select
                aria-label="people"
                className="select select-xs bg-transparent w-auto pr-9 text-[0.95rem]"
                value={day.hands}
                onChange={(e) => {
                  const hands = Number(e.currentTarget.value);
                  change((d) => ({ ...d, hands }), 'people');
                }}
              >
                {[1, 2, 3, 4].map((n) => (
                  <option key={n}>{n}</option>
                ))}
              </select>
            </FieldRow>
            <FieldRow name="level meters">
              <select
                aria-label="level meters"
                className="select select-xs bg-transparent w-auto pr-9 text-[0.95rem]"
                value={day.instruments?.find((i) => i.id === 'meter')?.count ?? 1}
                onChange={(e) => {
                  const count = Number(e.currentTarget.value);
                  change((d) => ({ ...d, instruments: [{ id: 'meter', count }] }), 'level meters');
                }}
              >
                {[1, 2, 3].map((n) => (
                  <option key={n}>{n}</option>
                ))}
              </select>
            </FieldRow>
            {keeper && (
              <AddActs
                there={day.acts}
                add={(acts) =>
                  change((d) => ({ ...d, acts: [...d.acts, ...acts] }), 'added to the day')
                }
              />
            )}
          </aside>
        </div>
      </main>
    </PageFrame>
  );
}

const EMPTY = emptyDay();

/** A moment as the browser's field for it wants it. */
function localOf(at: string | null): string {
  if (at === null) return '';
  const date = new Date(at);
  const local = new Date(date.getTime() - 60_000 * date.getTimezoneOffset());
  return local.toISOString().slice(0, 16);
}
