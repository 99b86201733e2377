import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { ForetoldResult } from '@zugluft/core/runs/foretoldResult';
import type { Page } from '@zugluft/core/library/answers';
import {
  MAX_LOG_MB,
  type FanSweepAnswer,
  type Inbox,
  type KeptRun,
  type ResidualPage,
  type Series,
  type SteadyOfRuns,
  type UsualOfRuns,
  type TakenLog,
  type WhyOutsideAnswer,
} from '@zugluft/core/library/runAnswers';
import type { RunDocument } from '@zugluft/core/runs/runDocument';
import { fetchJson, HttpProblem, sendFile } from './http';

export type {
  ResidualPage,
  FanSweepAnswer,
  Inbox,
  KeptRun,
  RunDocument,
  Series,
  TakenLog,
  WhyOutsideAnswer,
};
/** What a person says of a log. */
export type LogLayout = NonNullable<TakenLog['layout']>;

export const runKeys = {
  steady: (machineId: string) => ['machines', 'runs', machineId, 'steady'] as const,
  usual: (machineId: string) => ['machines', 'runs', machineId, 'usual'] as const,
  sweep: (machineId: string) => ['machines', 'runs', machineId, 'sweep'] as const,
  why: (id: string, revision: number) => ['runs', 'why', id, revision] as const,
  inbox: ['inbox'] as const,
  residuals: (page: number) => ['machines', 'residuals', page] as const,
  of: (machineId: string) => ['machines', 'runs', machineId] as const,
  analysis: (id: string, revision: number) => ['runs', 'analysis', id, revision] as const,
  series: (id: string, revision: number, fromS: number | null, toS: number | null) =>
    ['runs', 'series', id, revision, fromS, toS] as const,
};

const at = (machineId: string) => `/api/machines/${machineId}/runs`;

/** All runs of a machine that are not put aside, page after page. */
export async function listRuns(machineId: string, signal?: AbortSignal): Promise<KeptRun[]> {
  const all: KeptRun[] = [];
  for (let page = 1; ; page++) {
    const { items, total } = await fetchJson<Page<KeptRun>>(
      `${at(machineId)}?page=${page}`,
      signal ? { signal } : {},
    );
    all.push(...items);
    if (!items.length || all.length >= total) return all;
  }
}

export const makeRun = (machineId: string, run: RunDocument) =>
  fetchJson<KeptRun>(at(machineId), { method: 'POST', body: run });

/** Puts a run aside, or brings it back. */
export const putRunAside = async (
  id: string,
  revision: number,
  aside: boolean,
): Promise<{ revision: number }> =>
  fetchJson(`/api/documents/run/${id}/${aside ? 'put-aside' : 'bring-back'}`, {
    method: 'POST',
    ifMatch: revision,
  });

/** Foretells a run before its first log. */
export const foretellRun = async (machineId: string, runId: string, cap: Cap): Promise<KeptRun> =>
  fetchJson(`${at(machineId)}/${runId}/foretell`, { method: 'POST', body: { cap } });

/** Sends a log's bytes; what it says the server tells. */
export async function sendLog(
  machineId: string,
  runId: string,
  file: File,
  told: (share: number) => void,
  signal?: AbortSignal,
): Promise<TakenLog> {
  if (file.size > MAX_LOG_MB * 1e6) {
    throw new HttpProblem(413, `${file.name} is larger than ${MAX_LOG_MB / 1000} GB`);
  }
  const params = new URLSearchParams({ file: file.name.slice(0, 300) || 'log' });
  return sendFile<TakenLog>(
    `${at(machineId)}/${runId}/logs?${params.toString()}`,
    file,
    told,
    signal,
  );
}

/** What each run of a machine sustained. */
export const readSteady = async (machineId: string, signal?: AbortSignal): Promise<SteadyOfRuns> =>
  fetchJson(`${at(machineId)}/steady`, signal ? { signal } : {});

/** What other machines did under the same loads at such watts. */
export const readUsual = async (machineId: string, signal?: AbortSignal): Promise<UsualOfRuns> =>
  fetchJson(`${at(machineId)}/usual`, signal ? { signal } : {});

/** Fan speeds against level, out of all runs. */
export const readFanSweep = async (
  machineId: string,
  signal?: AbortSignal,
): Promise<FanSweepAnswer> => fetchJson(`${at(machineId)}/fan-sweep`, signal ? { signal } : {});

/** What would bring a run back into its band. */
export const readWhyOutside = async (
  machineId: string,
  runId: string,
  signal?: AbortSignal,
): Promise<WhyOutsideAnswer> =>
  fetchJson(`${at(machineId)}/${runId}/why-outside`, signal ? { signal } : {});

/** Reads a log that is on the server by what is said of it. */
export const sendLayout = async (
  machineId: string,
  runId: string,
  said: { sha256: string; file: string; layout: LogLayout },
): Promise<TakenLog> =>
  fetchJson(`${at(machineId)}/${runId}/layout`, { method: 'POST', body: said });

/** Brings a run in from a zip. */
export const sendRun = async (machineId: string, file: File): Promise<KeptRun> =>
  fetchJson(`${at(machineId)}/import`, { method: 'POST', body: file });

/** Where a run’s zip is. */
export const runZipUrl = (machineId: string, runId: string) => `${at(machineId)}/${runId}/run.zip`;

/** Runs of the library against what their records foretell. */
export const readResiduals = async (page: number, signal?: AbortSignal): Promise<ResidualPage> =>
  fetchJson(`/api/runs?page=${page}`, signal ? { signal } : {});

export const readInbox = async (signal?: AbortSignal): Promise<Inbox> =>
  fetchJson('/api/inbox', signal ? { signal } : {});

/** Takes a file of the inbox as it stands. */
export const takeFromInbox = async (
  machineId: string,
  runId: string,
  file: string,
): Promise<TakenLog> =>
  fetchJson(`${at(machineId)}/${runId}/take`, { method: 'POST', body: { file } });

/** What the analyse command answers, as far as it is shown. */
export interface RunAnalysis {
  log: {
    rows: number;
    durationS: number;
    gaps: { fromS: number; toS: number }[];
    problems: { row: number; column: string; message: string }[];
    logs?: { id: string; offsetS: number; by: string }[];
  };
  segments: { fromS: number; toS: number; kind: string; means: Record<string, { mean: number }> }[];
  events: { atS: number; kind: string; part: string }[];
  settled: boolean;
  whyNot: string | null;
  steady: ({
    fromS: number;
    toS: number;
    kind: string;
    chosenBy: string;
    settledShare: number;
  } & Record<
    string,
    { mean: number; plusMinus: number; upperBound?: boolean } | number | string
  >)[];
  timeConstantsS: Record<string, number[]>;
  against: {
    cap: number | 'full';
    measuredW: number;
    p05: number;
    p50: number;
    p95: number;
    inBand: boolean;
  } | null;
  /** Against what was foretold before the run. */
  foretold: ForetoldResult | null;
  sound: {
    leqDbA: number;
    upperBound: boolean;
    thirdOctavesDb: { hz: number; db: number }[];
    tones: { hz: number; toneToNoiseDb: number; prominent: boolean }[];
  } | null;
  recordings: {
    id: string;
    durationS: number;
    clipped: number;
    /** Null while nothing tells it. */
    fullScaleDb: number | null;
    leqDbA: number | null;
    thirdOctavesDb: { hz: number; db: number }[];
    tones: { hz: number; toneToNoiseDb: number; prominent: boolean }[];
    tone: { toneDb: number; fault: string | null } | null;
  }[];
  /** The firmware’s own figures, as the run shows them. */
  firmware: { path: string; value: number; plusMinus: number; how: string }[];
}

export const readAnalysis = (machineId: string, id: string, signal?: AbortSignal) =>
  fetchJson<RunAnalysis>(`${at(machineId)}/${id}/analysis`, signal ? { signal } : {});

export function readSeries(
  machineId: string,
  id: string,
  shown: { fromS: number | null; toS: number | null; pixels: number },
  signal?: AbortSignal,
): Promise<Series> {
  const params = new URLSearchParams({ pixels: String(shown.pixels) });
  if (shown.fromS !== null) params.set('fromS', String(shown.fromS));
  if (shown.toS !== null) params.set('toS', String(shown.toS));
  return fetchJson<Series>(
    `${at(machineId)}/${id}/series?${params.toString()}`,
    signal ? { signal } : {},
  );
}
