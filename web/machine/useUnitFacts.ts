import { useCallback, useEffect, useRef, useState } from 'react';
import { unitFacts, type UnitFacts } from '@zugluft/core/family/unitFacts';
import { saveUnit } from '../api/families';
import type { HttpProblem } from '../api/http';
import type { Unit } from '../api/machines';

const SAVE_AFTER_MS = 500;
const RETRY_AFTER_MS = 3000;
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
      saveUnit(machineId, base.current.revision, facts).then(
        (now) => {
          base.current = { revision: now.revision, facts };
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
            setSaving({ kind: 'conflict', current: cause.body['current'] as Unit });
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
  }, [facts, wrong, inConflict, machineId, unit.id, tick]);
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
    setFacts(current.facts);
    setSaving({ kind: 'saved' });
  };
  return { facts, set, saving, issues, keepMine, takeTheirs };
}
