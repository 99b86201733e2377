import { isPlaced, type OpenUpLog, type PlacedScrew, type Screw } from './openUpLog';

export interface GroupBalance {
  /** Id of the group; null for screws without one. */
  group: string | null;
  holes: number;
  /** Missing or unusable before anything was touched. */
  missingOnArrival: string[];
  taken: number;
  back: number;
  /** Taken out and in no hole yet: they lie on the bench. */
  leftOver: string[];
  lost: string[];
  /** Holes that held a screw on arrival and hold none now. */
  gaps: string[];
  /** Holes that now hold a screw of another group. */
  swapped: { hole: string; from: string }[];
}

export interface ScrewBalance {
  groups: GroupBalance[];
  /** Holes in which two screws are said to be. */
  twice: string[];
  /** Nothing lies on the bench, and every hole is as it was found or better. */
  even: boolean;
  /** Where gaps are to be, since a cover holds by its rim. */
  advice: { gap: string; takeFrom: string }[];
}

/** Screws that cannot hold count as gaps that were there before. */
const filledOnArrival = (s: Screw) => s.onArrival !== 'missing' && s.onArrival !== 'stripped';

/** How far a hole lies from the rim of its layer, mm: of the outline where it is known, else of the outermost holes. */
function fromRim(log: OpenUpLog, screw: PlacedScrew): number {
  const layer = log.layers.find((l) => l.id === screw.layer);
  const mates = log.screws.filter(isPlaced).filter((s) => s.layer === screw.layer);
  const low = (of: 'xMm' | 'yMm', size: number | undefined) =>
    size === undefined ? Math.min(...mates.map((s) => s[of])) : 0;
  const high = (of: 'xMm' | 'yMm', size: number | undefined) =>
    size === undefined ? Math.max(...mates.map((s) => s[of])) : size;
  return Math.min(
    screw.xMm - low('xMm', layer?.widthMm),
    high('xMm', layer?.widthMm) - screw.xMm,
    screw.yMm - low('yMm', layer?.depthMm),
    high('yMm', layer?.depthMm) - screw.yMm,
  );
}

/** Gaps nearer the rim than this weigh more than gaps further in, mm. */
const CLEARLY_NEARER_MM = 10;

/**
 * What is left over or missing after the way back, by group, apart from what was missing on arrival, and where the gaps do least
 * harm.
 *
 * @param log the log of an opening
 * Source: screws that are short first at the rim, common practice, no source; how much nearer counts is our choice.
 */
export function screwBalance(log: OpenUpLog): ScrewBalance {
  const byId = new Map(log.screws.map((s) => [s.id, s]));
  // which screws are in each hole now
  const inside = new Map<string, string[]>(log.screws.map((s) => [s.id, []]));
  for (const s of log.screws) {
    if (!s.out) {
      if (filledOnArrival(s)) inside.get(s.id)!.push(s.id);
    } else if (s.back === 'own') inside.get(s.id)!.push(s.id);
    else if (s.back !== undefined && s.back !== 'lost') inside.get(s.back)?.push(s.id);
  }
  const groupIds = [
    ...log.groups
      .map((g) => g.id as string | null)
      .filter((g) => log.screws.some((s) => s.group === g)),
    ...(log.screws.some((s) => !log.groups.some((g) => g.id === s.group)) ? [null] : []),
  ];
  const groups = groupIds.map((group): GroupBalance => {
    const mine = log.screws.filter((s) =>
      group === null ? !log.groups.some((g) => g.id === s.group) : s.group === group,
    );
    const taken = mine.filter((s) => s.out && filledOnArrival(s));
    const ids = (of: Screw[]) => of.map((s) => s.id);
    return {
      group,
      holes: mine.length,
      missingOnArrival: ids(mine.filter((s) => !filledOnArrival(s))),
      taken: taken.length,
      back: taken.filter((s) => s.back !== undefined && s.back !== 'lost').length,
      leftOver: ids(taken.filter((s) => s.back === undefined)),
      lost: ids(taken.filter((s) => s.back === 'lost')),
      gaps: ids(mine.filter((s) => filledOnArrival(s) && !inside.get(s.id)!.length)),
      swapped: mine.flatMap((s) =>
        inside
          .get(s.id)!
          .filter((x) => byId.get(x)!.group !== s.group)
          .map((from) => ({ hole: s.id, from })),
      ),
    };
  });
  const twice = [...inside].filter(([, in_]) => in_.length > 1).map(([hole]) => hole);
  return {
    groups,
    twice,
    even:
      twice.length === 0 &&
      groups.every((g) => !g.leftOver.length && !g.gaps.length && !g.swapped.length),
    advice: adviceFor(log, groups, inside),
  };
}

/** A gap at the rim is better filled from further in, as long as one of its group is there. */
function adviceFor(
  log: OpenUpLog,
  groups: readonly GroupBalance[],
  inside: ReadonlyMap<string, string[]>,
): ScrewBalance['advice'] {
  const advice: ScrewBalance['advice'] = [];
  for (const g of groups) {
    const onBench = g.leftOver.length;
    const mine = log.screws.filter(isPlaced).filter((s) => (s.group ?? null) === g.group);
    const depth = new Map(mine.map((s) => [s.id, fromRim(log, s)]));
    // those on the bench go to the rim first; only what is short after that is moved
    const gaps = [...g.gaps, ...g.missingOnArrival.filter((id) => !inside.get(id)!.length)]
      .filter((id) => depth.has(id))
      .sort((a, b) => depth.get(a)! - depth.get(b)!)
      .slice(onBench);
    const donors = mine
      .filter((s) => inside.get(s.id)!.length === 1)
      .sort((a, b) => depth.get(b.id)! - depth.get(a.id)!);
    for (const gap of gaps) {
      const at = byLayer(log, gap);
      const donor = donors.findIndex(
        (d) => d.layer === at && depth.get(d.id)! > depth.get(gap)! + CLEARLY_NEARER_MM,
      );
      if (donor < 0) continue;
      advice.push({ gap, takeFrom: donors.splice(donor, 1)[0]!.id });
    }
  }
  return advice;
}

const byLayer = (log: OpenUpLog, id: string) => log.screws.find((s) => s.id === id)!.layer;
