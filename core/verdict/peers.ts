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

/** Above this chance one is said to be better (common practice, no source). */
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

/** A machine as it stands among others. */
export interface PeerRow extends PeerFacts {
  id: string;
  name: string;
  band: { p05: number; p50: number; p95: number };
}

export interface Peer extends PeerRow {
  isOwn: boolean;
  /** That it sustains more than the machine that is looked at; null for that one itself. */
  chance: number | null;
}

export interface Peers {
  /** From the most watts down; those nearest to the machine where there are many. */
  items: Peer[];
  rank: Rank;
}

/** So many stand beside each other. */
const MOST_SHOWN = 12;

/**
 * The machines of its kind, and its place among them.
 *
 * @param own the machine
 * @param others of the library, itself not among them
 */
export function peersOf(own: PeerRow, others: readonly PeerRow[]): Peers {
  const peers = others
    .filter((o) => arePeers(own, o))
    .map((o): Peer => ({ ...o, isOwn: false, chance: chanceOfBands(o.band, own.band) }));
  const rank = rankOf(peers.map((p) => 1 - p.chance!));
  const all = [...peers, { ...own, isOwn: true, chance: null }].sort(
    (a, b) => b.band.p50 - a.band.p50 || a.name.localeCompare(b.name, 'en'),
  );
  const at = all.findIndex((p) => p.isOwn);
  const from = Math.max(0, Math.min(at - MOST_SHOWN / 2, all.length - MOST_SHOWN));
  return { items: all.slice(from, from + MOST_SHOWN), rank };
}

/** Deviations between the median and an end of a 5–95 % band. */
const ENDS = 1.6448536269514722;

/**
 * The chance that one sustains more than another, from their bands alone: both taken as normal in the logarithm, with the deviation of
 * the end that lies towards the other, and as if they shared no doubt. What they do share makes the chance more certain, so that
 * this one says too little rather than too much.
 */
export function chanceOfBands(
  a: { p05: number; p50: number; p95: number },
  b: { p05: number; p50: number; p95: number },
): number {
  if (!(a.p50 > 0) || !(b.p50 > 0)) return a.p50 === b.p50 ? 0.5 : a.p50 > b.p50 ? 1 : 0;
  const gap = Math.log(a.p50 / b.p50);
  const towards = (x: typeof a, up: boolean) =>
    Math.abs(Math.log((up ? x.p95 : Math.max(x.p05, 1e-9 * x.p50)) / x.p50)) / ENDS;
  const deviation = Math.hypot(towards(a, gap < 0), towards(b, gap > 0));
  if (deviation === 0) return gap === 0 ? 0.5 : gap > 0 ? 1 : 0;
  return normalBelow(gap / deviation);
}

/**
 * Standard normal distribution function.
 *
 * Source: Abramowitz and Stegun, 26.2.17 (absolute error below 7.5e-8), from memory.
 */
export function normalBelow(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const density = Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI);
  const tail =
    density *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z >= 0 ? 1 - tail : tail;
}
