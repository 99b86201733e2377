import type { PlacedPart } from '@zugluft/core/airway/placeParts';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';

/** A way of the air between two parts, with its flow where that is known. */
export interface AirWay {
  key: string;
  from: PlacedPart;
  to: PlacedPart;
  lps: number | undefined;
}

/**
 * Ways of the air through a machine: from vents to fans, from fans to stacks, from stacks to vents.
 *
 * @param byId parts where they lie
 * @param flowOf flow of a fan, L/s
 */
export function airLines(
  record: CaseRecord,
  byId: ReadonlyMap<string, PlacedPart>,
  flowOf: (fan: string) => number | undefined,
): AirWay[] {
  const out: AirWay[] = [];
  const add = (from: string, to: string, lps: number | undefined) => {
    const [a, b] = [byId.get(from), byId.get(to)];
    if (a && b) out.push({ key: `${from}>${to}`, from: a, to: b, lps });
  };
  const throughStack = (id: string) => {
    const fans = record.finStacks?.find((s) => s.id === id)?.fans ?? [];
    const flows = fans.map(flowOf).filter((f) => f !== undefined);
    return flows.length ? flows.reduce((a, b) => a + b, 0) : undefined;
  };
  for (const vent of record.vents ?? []) {
    if (vent.flow === 'intake') for (const id of vent.fans ?? []) add(vent.id, id, flowOf(id));
    if (vent.flow === 'exhaust') {
      for (const id of vent.finStacks ?? []) add(id, vent.id, throughStack(id));
    }
  }
  for (const stack of record.finStacks ?? []) {
    for (const id of stack.fans ?? []) add(id, stack.id, flowOf(id));
  }
  return out;
}
