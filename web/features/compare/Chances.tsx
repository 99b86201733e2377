import type { Better, ComparedMachine } from '@zugluft/core/compare/compareMachines';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { chanceWords, neighbours } from './chanceWords';

/** Pairs that are told in sentences. */
const MOST_PAIRS = 15;

/** Whether each machine really sustains more than the next one of the ranking. */
export function Chances({
  machines,
  better,
  cap,
}: {
  machines: readonly ComparedMachine[];
  better: readonly Better[];
  cap: Cap;
}) {
  const pairs = neighbours(machines, better, cap);
  if (pairs.length === 0) return null;
  return (
    <section aria-label="really better" className="mt-4">
      <h3 className="font-semibold">Really better than the next?</h3>
      <ul className="text-[0.95rem] mt-1 space-y-0.5">
        {pairs.slice(0, MOST_PAIRS).map((p) => (
          <li key={`${p.a} ${p.b}`}>{chanceWords(p)}</li>
        ))}
      </ul>
      <p className="text-small text-quiet mt-1">
        From draws in which all machines share what they have in common, room and physics; so are
        the watts of the ranking. A machine’s own answer comes from its own draws and may differ by
        a few per cent. All pairs stand in the file that is saved.
      </p>
    </section>
  );
}
