/** What peers are found by; undefined where it is not recorded. */
export interface PeerFacts {
  thicknessMm?: number | undefined;
  massKg?: number | undefined;
  /** Area of the base. */
  footprintCm2?: number | undefined;
  /** Of both dies at the cap that is judged. */
  watts?: number | undefined;
}

/** How far two machines of one kind may be apart, as a factor (common practice, no source). */
const APART: Readonly<Record<keyof PeerFacts, number>> = {
  thicknessMm: 1.3,
  massKg: 1.35,
  footprintCm2: 1.25,
  watts: 2,
};

/**
 * Whether two machines are held against each other: in size, mass, thickness and watts no farther apart than is usual within a
 * class, in whatever of these both have.
 *
 * @returns false where nothing is known of both
 */
export function arePeers(a: PeerFacts, b: PeerFacts): boolean {
  const known = (Object.keys(APART) as (keyof PeerFacts)[]).filter(
    (k) => (a[k] ?? 0) > 0 && (b[k] ?? 0) > 0,
  );
  return (
    known.length > 0 && known.every((k) => Math.abs(Math.log(a[k]! / b[k]!)) <= Math.log(APART[k]))
  );
}

/** A place among others that the chances allow: from the best to the worst it may be. */
export interface Rank {
  best: number;
  worst: number;
  of: number;
}

/** Above this chance one is said to be better. */
const SURE = 0.9;

/**
 * Place among peers: those that are surely better stand before, those that are surely worse behind, and between both the place is open.
 *
 * @param chances that this machine sustains more than each peer
 */
export function rankOf(chances: readonly number[]): Rank {
  const before = chances.filter((c) => c <= 1 - SURE).length;
  const behind = chances.filter((c) => c >= SURE).length;
  const of = chances.length + 1;
  return { best: before + 1, worst: of - behind, of };
}

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth'];
const ordinal = (n: number): string => ORDINALS[n - 1] ?? `number ${n}`;

/** “Third of seven at its size”, “between second and fourth of seven”. */
export function rankWords({ best, worst, of }: Rank): string {
  if (of === 1) return 'nothing of its size to hold it against';
  return best === worst
    ? `${ordinal(best)} of ${of} at its size`
    : `between ${ordinal(best)} and ${ordinal(worst)} of ${of} at its size`;
}
