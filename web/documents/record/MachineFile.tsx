import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { RecordIssue } from '@zugluft/core/record/checkRecord';
import type { Machine } from '../../api/machines';
import type { Draft } from './draft';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import { withBands } from '@zugluft/core/uncertainty/summary';
import { useDraws, type Draws } from './useDraws';
import { useEstimate, type LiveEstimate } from './useEstimate';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { capsOf } from '@zugluft/core/case/laboratory';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { Keeper, KeepView } from '../keeper';
import { useKept } from '../useDocument';
import { useLaboratory } from '../useLaboratory';

/** Everything a step of a machine's file works with. */
export interface MachineFileValue {
  machine: Machine;
  draft: Draft;
  change: (update: (draft: Draft) => Draft, touched?: string | null) => void;
  /** Where the record is kept, with its steps back. */
  kept: KeepView<CaseRecord> & { keeper: Keeper<CaseRecord> };
  issues: RecordIssue[];
  issueAt: Map<string, string>;
  complete: boolean;
  /** The noise caps the laboratory works with, off and full besides. */
  caps: readonly Cap[];
  /** One more cap beside those, for as long as this file is open; another one takes its place. */
  addCap: (cap: Cap) => void;
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
export function MachineFile({
  machine,
  keeper,
  children,
}: {
  machine: Machine;
  /** Of its record. */
  keeper: Keeper<CaseRecord>;
  children: ReactNode;
}) {
  const kept = useKept(keeper);
  // while it is typed a record may hold text where a number should be
  const draft = kept.value as Draft;
  const change = useCallback(
    (update: (draft: Draft) => Draft, touched: string | null = null) =>
      keeper.change((r) => update(r as Draft) as CaseRecord, touched),
    [keeper],
  );
  const parsed = useMemo(() => parseRecord(draft), [draft]);
  const settings = parsed.record?.settings ?? [];
  const [chosen, chooseSetting] = useState<string | undefined>();
  const settingId = settings.some((s) => s.id === chosen) ? chosen : settings[0]?.id;
  const record = parsed.complete ? parsed.record : null;
  const laboratory = useLaboratory();
  const [extraCap, setExtraCap] = useState<number | null>(null);
  const lab = useMemo(
    () =>
      extraCap === null
        ? laboratory
        : { ...laboratory, caps: [...(laboratory.caps ?? []), extraCap] },
    [laboratory, extraCap],
  );
  const caps = useMemo(() => capsOf(lab), [lab]);
  const request = useMemo<CaseRequest | null>(
    () => record && { record, setting: settingId, lab },
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
    kept,
    issues: parsed.issues,
    issueAt,
    complete: parsed.complete,
    caps,
    addCap: (cap) => {
      if (typeof cap === 'number' && !caps.includes(cap)) setExtraCap(cap);
    },
    settingId,
    chooseSetting,
    live,
    draws,
    stale: live.request !== request || !parsed.complete,
  };
  return <Context.Provider value={value}>{children}</Context.Provider>;
}
