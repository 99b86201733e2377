import type { OpenUpLog } from './openUpLog';
import { tighteningOrder, type TighteningOrder } from './tighteningOrder';

export interface BackStep {
  /** The step of the log that is undone; null for what comes after the last one. */
  undoes: string | null;
  name: string;
  /** Screws by group, few and odd ones first. */
  screws: { group: string | null; holes: string[] }[];
  tightening: TighteningOrder | null;
  connectors: { id: string; closeLatch: boolean; lead: string | null }[];
}

/** What follows once everything is in its place. Source: common practice, no source. */
export const AFTERWARDS = [
  'Start it for the first time: after the battery was off this may take minutes.',
  'Check the clock.',
  'Check the firmware’s settings: preset, fan mode, limits.',
] as const;

/**
 * The way back: the steps that were done, the last one first, each with the screws that it took out by group, their order of
 * tightening, and the connectors, latches and leads to put on again. Screws that were lost, and steps that were skipped, are left
 * out. Screws that went into other holes stand with the hole they are for.
 *
 * @param log the log of an opening
 */
export function backTogether(log: OpenUpLog): BackStep[] {
  const screws = new Map(log.screws.map((s) => [s.id, s]));
  const connectors = new Map(log.connectors.map((c) => [c.id, c]));
  const back = log.steps
    .filter((s) => s.state === 'done' || s.state === 'went-wrong')
    .reverse()
    .map((step): BackStep => {
      const holes = step.screws
        .map((id) => screws.get(id))
        .filter((s) => s !== undefined && s.onArrival !== 'missing' && s.back !== 'lost')
        .map((s) => s!);
      const byGroup = new Map<string | null, string[]>();
      for (const s of holes) {
        const group = log.groups.some((g) => g.id === s.group) ? s.group! : null;
        byGroup.set(group, [...(byGroup.get(group) ?? []), s.id]);
      }
      return {
        undoes: step.id,
        name: step.name,
        screws: [...byGroup]
          .map(([group, ids]) => ({ group, holes: ids }))
          .sort((a, b) => a.holes.length - b.holes.length),
        tightening: holes.length > 1 ? tighteningOrder(holes) : null,
        connectors: step.connectors
          .map((id) => connectors.get(id))
          .filter((c) => c !== undefined)
          .map((c) => ({
            id: c.id,
            closeLatch: c.release === 'flip-latch' || c.release === 'hold-down-bar',
            lead: c.lead ?? null,
          })),
      };
    });
  return [
    ...back,
    ...AFTERWARDS.map((name) => ({
      undoes: null,
      name,
      screws: [],
      tightening: null,
      connectors: [],
    })),
  ];
}
