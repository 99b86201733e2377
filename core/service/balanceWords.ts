import type { OpenUpLog } from './openUpLog';
import type { ScrewBalance } from './screwBalance';

/**
 * The balance in words: by group what lies on the bench, which holes are open, what is lost or sits elsewhere; holes that are said
 * to hold two.
 */
export function balanceWords(log: OpenUpLog, balance: ScrewBalance): string {
  const letterOf = (group: string | null | undefined) =>
    log.groups.find((g) => g.id === group)?.letter ?? '?';
  const groupOf = (screw: string) => log.screws.find((s) => s.id === screw)?.group;
  const parts = balance.groups.flatMap((g) => {
    const letter = letterOf(g.group);
    const words = [
      g.leftOver.length > 0 && `${letter}: ${g.leftOver.length} on the bench`,
      g.gaps.length > 0 && `${letter}: open ${g.gaps.join(', ')}`,
      g.lost.length > 0 && `${letter}: ${g.lost.length} lost`,
      ...g.swapped.map((s) => `${s.hole} holds a screw of ${letterOf(groupOf(s.from))}`),
    ].filter((x): x is string => typeof x === 'string');
    return words.length ? [words.join('; ')] : [];
  });
  const twice = balance.twice.map((hole) => `${hole} is said to hold two screws`);
  const all = [...parts, ...twice];
  return all.length ? all.join('. ') : 'Every hole is as it was found.';
}
