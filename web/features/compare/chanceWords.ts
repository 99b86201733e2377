import type { Better, ComparedMachine } from '@zugluft/core/compare/compareMachines';
import type { Cap } from '@zugluft/core/envelope/fanStates';

/** From here on one is better, and from there it is likely (common practice, no source). */
const SURE = 0.95;
const LIKELY = 0.75;

/** A pair in a sentence that says no more than its chance, of which `a` is the likelier. */
export function chanceWords({ a, b, chance }: Better): string {
  const percent = `${Math.min(99, Math.floor(100 * chance))} %`;
  if (chance >= SURE)
    return `${a} sustains more than ${b} (${chance >= 0.995 ? 'over 99 %' : percent}).`;
  if (chance >= LIKELY) return `${a} likely sustains more than ${b} (${percent}).`;
  return `${a} and ${b} cannot be told apart (${percent} to ${100 - Math.min(99, Math.floor(100 * chance))} %).`;
}

/** Each machine with the next one of the ranking at a cap, the better one first, as its chance has it. */
export function neighbours(
  machines: readonly ComparedMachine[],
  better: readonly Better[],
  cap: Cap,
): Better[] {
  const wattsOf = (m: ComparedMachine) => m.at.find((a) => a.cap === cap)?.p50 ?? 0;
  const names = [...machines].sort((a, b) => wattsOf(b) - wattsOf(a)).map((m) => m.name);
  const told = new Map(
    better.filter((b) => b.cap === cap).map((b) => [`${b.a}\n${b.b}`, b.chance]),
  );
  return names.slice(1).flatMap((b, i) => {
    const a = names[i]!;
    const back = told.get(`${b}\n${a}`);
    const chance = told.get(`${a}\n${b}`) ?? (back === undefined ? undefined : 1 - back);
    if (chance === undefined) return [];
    return [chance >= 0.5 ? { a, b, cap, chance } : { a: b, b: a, cap, chance: 1 - chance }];
  });
}
