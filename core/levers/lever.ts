import type { CautionId } from '../service/cautions';

/** One figure or part of a record that a lever changes. */
export interface Change {
  /** Fields by names, parts by their ids: `dies.cpu.interface.ageYears`; `setting` alone is the setting that applies. */
  path: string;
  /** null removes; an object under an id that is not there adds a part. */
  to: unknown;
}

/** What pulling a lever takes at the bench; null where no log of an opening tells it. */
export interface Effort {
  steps: number | null;
  screws: number | null;
  minutes: number | null;
  cost: number | null;
}

/** Which watts a lever moves: those the cooling carries, or those the machine runs as it is set. */
export type Moves = 'cooling' | 'setting';

/** Something that may help. */
export interface Lever {
  id: string;
  name: string;
  change: Change[];
  possible: boolean;
  /** Why the owner cannot pull it; null where he can. */
  whyNot: string | null;
  reversible: boolean;
  /** Cautions that belong to it. */
  cautions: readonly CautionId[];
  /** What has to be reached in an opening for it; null: nothing is opened. */
  goal: string | null;
  moves: Moves;
}

/** What several levers change, and which watts they move, pulled at once. */
export const pulledTogether = (
  levers: readonly Pick<Lever, 'change' | 'moves'>[],
): Pick<Lever, 'change' | 'moves'> => ({
  change: levers.flatMap((l) => l.change),
  moves: levers.some((l) => l.moves === 'setting') ? 'setting' : 'cooling',
});

/** Whether two levers change the same figure, so that pulling one is not pulling the other. */
export const excludeEachOther = (a: Pick<Lever, 'change'>, b: Pick<Lever, 'change'>): boolean => {
  const paths = new Set(a.change.map((c) => c.path));
  return b.change.some((c) => paths.has(c.path));
};
