import { actMinutes, type Act, type BenchDay } from '@zugluft/core/benchday/dayDocument';
import { stateOf } from '@zugluft/core/benchday/moveOn';
import { RemoveButton } from '../../kit/RemoveButton';
import { actWords, clockOf } from './dayWords';

/** Columns that a phone has no room for: the table above tells as much. */
const WIDE: ReadonlySet<string> = new Set(['to', 'minutes', 'after']);

/** Every act of the day in words: when, what it waits for, how it stands; begun and ended here. */
export function ActList({
  day,
  nowMin,
  lastMin,
  mark,
  set,
  remove,
}: {
  day: BenchDay;
  nowMin: number | null;
  /** End of the table, min. */
  lastMin: number;
  mark: (act: Act) => void;
  set: (id: string, next: Partial<Act>, what: string) => void;
  remove: (id: string) => void;
}) {
  const acts = [...day.acts].sort((a, b) => (a.startMin ?? 1e9) - (b.startMin ?? 1e9));
  return (
    <table className="w-full text-[0.95rem]">
      <caption className="sr-only">acts of the day</caption>
      <thead>
        <tr className="text-quiet text-small text-left">
          {['from', 'to', 'what', 'minutes', 'after', 'state'].map((h) => (
            <th
              key={h}
              scope="col"
              className={`font-normal pr-3 ${h === 'after' ? 'no-print' : ''} ${WIDE.has(h) ? 'max-sm:hidden' : ''}`}
            >
              {h}
            </th>
          ))}
          <th scope="col" className="no-print">
            <span className="sr-only">begin, end, take off</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {acts.map((act) => {
          const minutes = actMinutes(act);
          const stands = typeof act.startMin === 'number';
          const state = stateOf(act, nowMin ?? -1);
          return (
            <tr key={act.id} className="border-b border-rule align-baseline">
              <td className="figure pr-3">{stands ? clockOf(day, act.startMin!) : '–'}</td>
              <td className="figure pr-3 max-sm:hidden">
                {stands ? clockOf(day, act.startMin! + minutes) : '–'}
              </td>
              <td className="pr-3">
                {actWords(act)}
                <span className="block text-small text-quiet">
                  {act.phases.map((p) => `${p.name} ${p.minutes}`).join(' · ')} min
                </span>
              </td>
              <td className="figure pr-3 max-sm:hidden">{minutes}</td>
              <td className="pr-3 no-print max-sm:hidden">
                <select
                  aria-label={`${actWords(act)} comes after`}
                  className="select select-xs bg-transparent border-transparent hover:border-rule w-32 pr-8"
                  value={act.after?.[0] ?? ''}
                  onChange={(e) =>
                    set(
                      act.id,
                      { after: e.currentTarget.value ? [e.currentTarget.value] : [] },
                      'what it waits for',
                    )
                  }
                >
                  <option value="">anything</option>
                  {day.acts
                    .filter((a) => a.id !== act.id)
                    .map((a) => (
                      <option key={a.id} value={a.id}>
                        {actWords(a)}
                      </option>
                    ))}
                </select>
              </td>
              <td
                className={`pr-3 whitespace-nowrap ${state === 'due' || state === 'over its time' ? 'text-heat' : 'text-quiet'}`}
              >
                {stands || state === 'done' ? state : 'not in the table'}
              </td>
              <td className="whitespace-nowrap no-print">
                {!act.endedAt && (
                  <button
                    type="button"
                    className="underline cursor-pointer"
                    aria-label={`${actWords(act)} ${act.startedAt ? 'is done' : 'begins'}`}
                    onClick={() => mark(act)}
                  >
                    {act.startedAt ? 'done' : 'begins'}
                  </button>
                )}
                <RemoveButton what={actWords(act)} remove={() => remove(act.id)} />
              </td>
            </tr>
          );
        })}
      </tbody>
      {lastMin > 0 && (
        <tfoot>
          <tr className="text-quiet text-small">
            <td />
            <td className="figure">{clockOf(day, lastMin)}</td>
            <td colSpan={5}>the day ends</td>
          </tr>
        </tfoot>
      )}
    </table>
  );
}
