import type { CaseData, VentData } from '../record/caseData';
import { groupByLinks } from './components';

type Groups = ReturnType<typeof groupByLinks>;

/** What shares a plenum: fans by their intake vents, fans and stacks by their links, stacks by their exhaust vents. */
export interface PlenumGroups {
  inGroups: Groups;
  /** Fans, then stacks. */
  linked: Groups;
  outGroups: Groups;
}

/** Finds what shares a plenum in a machine. */
export function plenumGroups({ fans, stacks, vents }: CaseData): PlenumGroups {
  const of = (flow: VentData['flow']) => vents.filter((x) => x.flow === flow);
  return {
    inGroups: groupByLinks(
      fans.length,
      of('intake').map((x) => x.fans),
    ),
    linked: groupByLinks(
      fans.length + stacks.length,
      stacks.map((s, i) => [fans.length + i, ...s.fans]),
    ),
    outGroups: groupByLinks(
      stacks.length,
      of('exhaust').map((x) => x.stacks),
    ),
  };
}
