import { useQueryClient } from '@tanstack/react-query';
import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { RecordIssue } from '@zugluft/core/record/checkRecord';
import type { Machine } from '../api/machines';
import type { Draft } from './draft';
import { readDraft } from './storedDraft';
import { useAutosave, type SaveState } from './useAutosave';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import { withBands } from '@zugluft/core/uncertainty/summary';
import { useDraws, type Draws } from './useDraws';
import { useEstimate, type LiveEstimate } from './useEstimate';
import { useLabDefaults } from './useLabDefaults';
import { useUndo } from './useUndo';

/** Everything a step of a machine's file works with. */
export interface MachineFileValue {
  machine: Machine;
  draft: Draft;
  change: (update: (draft: Draft) => Draft, touched?: string | null) => void;
  undo: () => void;
  redo: () => void;
  canUndo: boolean;
  canRedo: boolean;
  issues: RecordIssue[];
  issueAt: Map<string, string>;
  complete: boolean;
  save: SaveState;
  keepMine: () => void;
  takeTheirs: () => void;
  settingId: string | undefined;
  chooseSetting: (id: string) => void;
  live: LiveEstimate;
  draws: Draws;
  /** The answer shown is not that of what stands on the page. */
  stale: boolean;
}

const Context = createContext<MachineFileValue | null>(null);

export function useMachineFile(): MachineFileValue {
  const value = useContext(Context);
  if (!value) throw new Error('used outside a machine’s file');
  return value;
}

/** Holds one machine's file: its draft with undo, its checks, its saving and its estimate. */
export function MachineFile({ machine, children }: { machine: Machine; children: ReactNode }) {
  const [kept] = useState(() => readDraft(machine.id));
  const start = (kept?.record ?? machine.record) as Draft;
  const { draft, change, undo, redo, canUndo, canRedo } = useUndo(start);
  const parsed = useMemo(() => parseRecord(draft), [draft]);
  const startConflict = kept !== null && kept.baseRevision < machine.revision;
  const client = useQueryClient();
  const onSaved = useCallback(() => {
    void client.invalidateQueries({ queryKey: ['machines', 'list'] });
  }, [client]);
  const { state, overwrite, settled } = useAutosave(
    machine,
    draft,
    parsed.keepable,
    startConflict,
    onSaved,
  );
  const settings = parsed.record?.settings ?? [];
  const [chosen, chooseSetting] = useState<string | undefined>();
  const settingId = settings.some((s) => s.id === chosen) ? chosen : settings[0]?.id;
  const record = parsed.complete ? parsed.record : null;
  const lab = useLabDefaults();
  const request = useMemo<CaseRequest | null>(
    () => record && { record, setting: settingId, lab: { defaults: lab } },
    [record, settingId, lab],
  );
  const plain = useEstimate(request);
  const draws = useDraws(request);
  const live = useMemo(() => {
    const { summary } = draws;
    if (!summary || plain.request !== request) return plain;
    return {
      ...plain,
      estimate: plain.estimate && withBands(plain.estimate, summary),
      outlines: plain.outlines && withBands(plain.outlines, summary),
    };
  }, [plain, draws, request]);
  const issueAt = useMemo(() => {
    const map = new Map<string, string>();
    for (const i of parsed.issues) if (!map.has(i.path)) map.set(i.path, i.message);
    return map;
  }, [parsed]);
  const value: MachineFileValue = {
    machine,
    draft,
    change,
    undo,
    redo,
    canUndo,
    canRedo,
    issues: parsed.issues,
    issueAt,
    complete: parsed.complete,
    save: state,
    keepMine: overwrite,
    takeTheirs: () => {
      if (state.kind !== 'conflict') return;
      const { current } = state;
      settled(current);
      change(() => current.record as Draft);
    },
    settingId,
    chooseSetting,
    live,
    draws,
    stale: live.request !== request || !parsed.complete,
  };
  return <Context.Provider value={value}>{children}</Context.Provider>;
}
