import { useQueryClient } from '@tanstack/react-query';
import { diffRecords } from '@zugluft/core/family/diffRecords';
import { unitFacts, type UnitFacts } from '@zugluft/core/family/unitFacts';
import { saveUnit } from '../api/families';
import { machineKeys, type Machine, type Unit } from '../api/machines';
import type { Kept } from '../keep/keeper';
import { sentFrom, storedPending } from '../keep/storedPending';
import { useKeeper } from '../keep/useKeeper';

const same = (a: UnitFacts, b: UnitFacts) => diffRecords(a, b).length === 0;

/** What stands in the storage, also where an earlier version of this program wrote it. */
function readKept(kept: unknown): Kept<UnitFacts, number> | null {
  const { value, base, facts, revision } = (kept ?? {}) as Record<string, unknown>;
  const at = base ?? revision;
  return typeof at === 'number' ? { value: (value ?? facts ?? {}) as UnitFacts, base: at } : null;
}

const issuesOf = (facts: UnitFacts) =>
  new Map(
    unitFacts.safeParse(facts).error?.issues.map((i) => [String(i.path[0]), i.message]) ?? [],
  );

/** What is known of a unit, typed freely: kept in this browser at once, sent shortly after, never over somebody else's. */
export function useUnitFacts(machineId: string, unit: Unit) {
  const client = useQueryClient();
  // whoever comes back to this step, or opens another, sees the unit as it is now
  const tell = (now: Unit) =>
    client.setQueryData<Machine>(machineKeys.one(machineId), (m) => m && { ...m, unit: now });
  const name = `zugluft.unit.${unit.id}`;
  const { value, state, keeper } = useKeeper<UnitFacts, number>(() => ({
    server: { value: unit.facts, base: unit.revision },
    ...storedPending(name, readKept, same),
    sent: sentFrom(name),
    takes: (facts) => issuesOf(facts).size === 0,
    send: async (base, facts) => {
      const now = await saveUnit(machineId, base, facts);
      tell({ ...now, facts });
      return now.revision;
    },
    theirs: ({ body }) => {
      const { facts, revision } = body['current'] as Unit;
      return { value: facts, base: revision };
    },
  }));
  return {
    facts: value,
    saving: state,
    issues: issuesOf(value),
    set: (field: keyof UnitFacts, text: string) =>
      keeper.change((f) => ({ ...f, [field]: text === '' ? undefined : text })),
    keepMine: () => keeper.choose(true),
    takeTheirs() {
      if (state.kind === 'conflict') {
        tell({ ...unit, facts: state.theirs.value, revision: state.theirs.base });
      }
      keeper.choose(false);
    },
  };
}
