import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { diffRecords } from '@zugluft/core/family/diffRecords';
import { unitFacts, type UnitFacts } from '@zugluft/core/family/unitFacts';
import { saveUnit } from '../api/families';
import type { HttpProblem } from '../api/http';
import { machineKeys, type Machine, type Unit } from '../api/machines';

const SAVE_AFTER_MS = 500;
const RETRY_AFTER_MS = 3000;
const MOST_SENT = 20;
const key = (unitId: string) => `zugluft.unit.${unitId}`;

export type UnitSaving =
  | { kind: 'saved' }
  | { kind: 'saving' }
  | { kind: 'held' }
  | { kind: 'away' }
  | { kind: 'failed'; message: string }
  | { kind: 'conflict'; current: Unit };

interface Kept {
  revision: number;
  facts: UnitFacts;
}

/** What this window sent of each unit: a newer version that is one of these is nobody else's. */
const sent = new Map<string, UnitFacts[]>();

function readKept(unitId: string): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(key(unitId)) ?? 'null') as Kept | null;
  } catch {
    return null;
  }
}

function keep(unitId: string, kept: Kept | null): void {
  try {
    if (kept) localStorage.setItem(key(unitId), JSON.stringify(kept));
    else localStorage.removeItem(key(unitId));
  } catch {
    // storage is switched off: the page itself still holds what was typed
  }
}

/** What is known of a unit, typed freely: kept in this browser at once, sent shortly after, never over somebody else's. */
export function useUnitFacts(machineId: string, unit: Unit) {
  const [kept] = useState(() => readKept(unit.id));
  const [facts, setFacts] = useState<UnitFacts>(kept?.facts ?? unit.facts);
  const base = useRef<Kept>({
    revision: kept?.revision ?? unit.revision,
    facts: unit.facts,
  });
  const [saving, setSaving] = useState<UnitSaving>({ kind: 'saved' });
  const [tick, setTick] = useState(0);
  const issues = new Map(
    unitFacts.safeParse(facts).error?.issues.map((i) => [String(i.path[0]), i.message]) ?? [],
  );
  const wrong = issues.size > 0;
  const inConflict = saving.kind === 'conflict';
  const client = useQueryClient();
  // whoever comes back to this step, or opens another, sees the unit as it is now
  const told = useCallback(
    (now: Unit) =>
      client.setQueryData<Machine>(machineKeys.one(machineId), (m) => m && { ...m, unit: now }),
    [client, machineId],
  );
  useEffect(() => {
    if (facts === base.current.facts) return;
    keep(unit.id, { revision: base.current.revision, facts });
    if (inConflict) return;
    if (wrong) {
      setSaving({ kind: 'held' });
      return;
    }
    let open = true;
    const timer = setTimeout(() => {
      setSaving({ kind: 'saving' });
      const own = [...(sent.get(unit.id) ?? []), facts].slice(-MOST_SENT);
      sent.set(unit.id, own);
      saveUnit(machineId, base.current.revision, facts).then(
        (now) => {
          base.current = { revision: now.revision, facts };
          told({ ...now, facts });
          if (!open) {
            // typed on meanwhile: what is newer is sent from the newer revision
            setTick((t) => t + 1);
            return;
          }
          keep(unit.id, null);
          setSaving({ kind: 'saved' });
        },
        (cause: HttpProblem) => {
          if (cause.status === 412) {
            const current = cause.body['current'] as Unit;
            if (own.some((f) => diffRecords(f, current.facts).length === 0)) {
              // sent from here while this step was left: go on from it
              base.current = { revision: current.revision, facts: current.facts };
              setTick((t) => t + 1);
            } else setSaving({ kind: 'conflict', current });
          } else if (cause.status === 0) {
            setSaving({ kind: 'away' });
            setTimeout(() => setTick((t) => t + 1), RETRY_AFTER_MS);
          } else setSaving({ kind: 'failed', message: cause.message });
        },
      );
    }, SAVE_AFTER_MS);
    return () => {
      open = false;
      clearTimeout(timer);
    };
  }, [facts, wrong, inConflict, machineId, unit.id, tick, told]);
  const set = useCallback((field: keyof UnitFacts, text: string) => {
    setFacts((f) => ({ ...f, [field]: text === '' ? undefined : text }));
  }, []);
  const keepMine = () => {
    if (saving.kind !== 'conflict') return;
    base.current = { revision: saving.current.revision, facts: saving.current.facts };
    setSaving({ kind: 'saving' });
  };
  const takeTheirs = () => {
    if (saving.kind !== 'conflict') return;
    const { current } = saving;
    base.current = { revision: current.revision, facts: current.facts };
    keep(unit.id, null);
    told(current);
    setFacts(current.facts);
    setSaving({ kind: 'saved' });
  };
  return { facts, set, saving, issues, keepMine, takeTheirs };
}
