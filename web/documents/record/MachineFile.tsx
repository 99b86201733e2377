import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react';
import { questionsOf } from '@zugluft/core/record/questions';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { RecordIssue } from '@zugluft/core/record/checkRecord';
import type { BandedMachine } from '../../api/machines';
import type { Draft } from './draft';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { StoredBand } from '@zugluft/core/uncertainty/storedBands';
import type { DrawSummary } from '@zugluft/core/uncertainty/summary';
import type { RunMark } from '../answer/runMarks';
import { useRunMarks } from './useRunMarks';
import { useCalibration, type CalibrationInUse } from './useCalibration';
import { useBanded } from './useBanded';
import { useDraws, type Draws } from './useDraws';
import { useJudged } from './useJudged';
import { useLastGood } from './useLastGood';
import { useReadable } from './useReadable';
import { useEstimate, type LiveEstimate } from './useEstimate';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { capsOf } from '@zugluft/core/case/laboratory';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { Keeper, KeepView } from '../keeper';
import { useKept } from '../useDocument';
import { useLaboratory } from '../useLaboratory';

/** Everything a step of a machine's file works with. */
export interface MachineFileValue {
  machine: BandedMachine;
  /** False until the first figure of a new machine is kept: nothing else can belong to it yet. */
  made: boolean;
  draft: Draft;
  change: (update: (draft: Draft) => Draft, touched?: string | null) => void;
  /** Where the record is kept, with its steps back. */
  kept: KeepView<CaseRecord> & { keeper: Keeper<CaseRecord> };
  /** What is wrong with it, as far as it is judged: what is half typed waits for a pause. */
  issues: RecordIssue[];
  issueAt: Map<string, string>;
  /** What hardly can be so, by its field: a question, no mistake. */
  questionAt: Map<string, string>;
  /** Whether what stands there now can be estimated. */
  complete: boolean;
  /** Somebody types, so that nothing is to be announced. */
  typing: boolean;
  /** The record as far as it can be read: what is half typed as it was before; null where it never could be. */
  readable: CaseRecord | null;
  /** Whether something in it is that of before. */
  readsBefore: boolean;
  /** The noise caps the laboratory works with, off and full besides. */
  caps: readonly Cap[];
  /** One more cap beside those, for as long as this file is open; another one takes its place. */
  addCap: (cap: Cap) => void;
  settingId: string | undefined;
  chooseSetting: (id: string) => void;
  /** CPU to GPU watts with both dies loaded that somebody chose, in place of the setting's. */
  ratio: { cpu: number; gpu: number } | null;
  chooseRatio: (ratio: { cpu: number; gpu: number } | null) => void;
  live: LiveEstimate;
  /** Bands stored of just this case, before it has an answer. */
  stored: readonly StoredBand[] | null;
  /** The bands shown are those of a moment ago, moved along. */
  provisional: boolean;
  /** The newest draws there are, perhaps of a moment ago. */
  summary: DrawSummary | null;
  draws: Draws;
  /** The version that the estimate stands on; null: the record alone. */
  calibration: CalibrationInUse | null;
  /** What runs of it sustained. */
  marks: readonly RunMark[];
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
  machine: BandedMachine;
  /** Of its record. */
  keeper: Keeper<CaseRecord>;
  children: ReactNode;
}) {
  const kept = useKept(keeper);
  // while it is typed a record may hold text where a number should be
  const draft = kept.value as Draft;
  const parsed = useMemo(() => parseRecord(draft), [draft]);
  const { judged, typing, typed } = useJudged(parsed.issues);
  const change = useCallback(
    (update: (draft: Draft) => Draft, touched: string | null = null) => {
      if (touched !== null) typed();
      keeper.change((r) => update(r as Draft) as CaseRecord, touched);
    },
    [keeper, typed],
  );
  const readable = useReadable(parsed.record, kept.keepable);
  const record = useLastGood(machine.id, parsed.complete ? parsed.record : null, kept.keepable);
  const settings = record?.settings ?? [];
  const [chosen, chooseSetting] = useState<string | undefined>();
  const settingId = settings.some((s) => s.id === chosen) ? chosen : settings[0]?.id;
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
  const [ratio, chooseRatio] = useState<MachineFileValue['ratio']>(null);
  const plainRequest = useMemo<CaseRequest | null>(
    () => record && { record, setting: settingId, lab, ratio: ratio ?? undefined },
    [record, settingId, lab, ratio],
  );
  const { request, calibration } = useCalibration(machine.id, machine.revision > 0, plainRequest);
  const marks = useRunMarks(machine.id, machine.revision > 0);
  const plain = useEstimate(request);
  const draws = useDraws(request);
  // of the record as the server has it, in its first setting
  const stored =
    kept.state.kind === 'saved' &&
    kept.revision === machine.revision &&
    settingId === settings[0]?.id &&
    !ratio
      ? machine.bands
      : null;
  const { live, provisional, summary } = useBanded(plain, draws, request, stored);
  const issueAt = useMemo(() => {
    const map = new Map<string, string>();
    for (const i of judged) if (!map.has(i.path)) map.set(i.path, i.message);
    return map;
  }, [judged]);
  const asked = useMemo(() => (parsed.record ? questionsOf(parsed.record) : []), [parsed]);
  const questionAt = useMemo(
    () => new Map(typing ? [] : asked.map((q) => [q.path, q.message])),
    [asked, typing],
  );
  const value: MachineFileValue = {
    machine,
    made: machine.revision > 0,
    draft,
    change,
    kept,
    issues: judged,
    issueAt,
    questionAt,
    complete: parsed.complete,
    typing,
    readable,
    readsBefore: readable !== parsed.record,
    caps,
    addCap: (cap) => {
      if (typeof cap === 'number' && !caps.includes(cap)) setExtraCap(cap);
    },
    settingId,
    chooseSetting,
    ratio,
    chooseRatio,
    live,
    stored,
    provisional,
    summary,
    draws,
    calibration,
    marks,
    stale: live.request !== request || !parsed.complete,
  };
  return <Context.Provider value={value}>{children}</Context.Provider>;
}
