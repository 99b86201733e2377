import type { BackStep } from '@zugluft/core/service/backTogether';
import type { OpenUpLog } from '../../../api/openUp';

const LETTERS = 'ABCDEFGHI';

/** Which group a digit of the keypad means. */
export const letterOf = (digit: string): string => LETTERS[Number(digit) - 1] ?? 'A';

/**
 * Groups that can be touched, each with its digit: while opening those that are known and one new one, on the way back those of
 * the step.
 */
export function groupKeys(
  log: OpenUpLog,
  side: 'open' | BackStep,
): { key: string; letter: string; words: string }[] {
  const known = log.groups.map((g) => g.letter);
  const needed =
    side === 'open'
      ? new Set(known)
      : new Set(side.screws.map((s) => log.groups.find((g) => g.id === s.group)?.letter));
  const fresh = side === 'open' ? [...LETTERS].find((l) => !known.includes(l)) : undefined;
  return [...LETTERS].flatMap((letter, i) => {
    if (!needed.has(letter) && letter !== fresh) return [];
    return [{ key: String(i + 1), letter, words: letter === fresh ? `new ${letter}` : letter }];
  });
}
