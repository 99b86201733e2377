import { readFile } from 'node:fs/promises';
import { openCase, type CaseRequest } from '@zugluft/core/case/openCase';
import type { Log } from '@zugluft/core/logs/readLog';
import { joinLogs, placeLogs, type LogPlace } from '@zugluft/core/runs/alignLogs';
import { partIdsOf, withPartIds } from '@zugluft/core/runs/partIds';
import type { SoundAnalysis } from '@zugluft/core/sound/soundMeter';
import { withFullScale } from '@zugluft/core/sound/soundOfBlocks';
import { heardLog, heardOf, risesOrFalls, type Heard } from './recordings';
import { readSamples } from './sampleFile';

/** A log of a run: where its samples lie, and where a person put it. */
export interface RunLog {
  id: string;
  samples: string;
  /** Null: where the clocks or the load say. */
  offsetS: number | null;
  /** Of a recording: what is known of its level. */
  recording: { fullScaleDb: number | null; toneDb: number | null } | null;
}

/** Logs that are kept at hand. */
const AT_HAND = 6;
const atHand = new Map<string, Log>();

async function logOf(samples: string): Promise<Log> {
  const known = atHand.get(samples);
  if (known) {
    atHand.delete(samples);
    atHand.set(samples, known);
    return known;
  }
  const log = readSamples(await readFile(samples));
  atHand.set(samples, log);
  for (const oldest of atHand.keys()) {
    if (atHand.size <= AT_HAND) break;
    atHand.delete(oldest);
  }
  return log;
}

/** Recordings alone whose full scale is not known yet lie on no axis. */
const NO_LOG: Log = {
  timeS: new Float64Array(0),
  lines: new Float64Array(0),
  clockS: null,
  dated: false,
  columns: [],
  gaps: [],
  clockJumps: [],
  problems: [],
};

/** The logs of a run on one axis, and its recordings. */
export interface Joined {
  log: Log;
  /** Of those that lie on the axis. */
  places: (LogPlace & { id: string })[];
  recordings: Heard[];
}

/**
 * Lays the logs of a run on one axis; recordings after what was logged, whose clock rules.
 *
 * @param all logs and recordings in the order of the run
 * @param request whose parts the channels are of
 */
export async function joinRun(
  all: readonly RunLog[],
  request: CaseRequest | null,
): Promise<Joined | { apart: { at: number; message: string } }> {
  const heard = await heardOf(all);
  const logs: RunLog[] = [];
  const read: Log[] = [];
  const ordered = [...all.filter((l) => !l.recording), ...all.filter((l) => l.recording)];
  for (const l of ordered) {
    const own = l.recording ? heardLog(heard, l.id) : await logOf(l.samples);
    if (!own) continue;
    logs.push(l);
    read.push(own);
  }
  const recordings = heard;
  if (read.length === 0) return { log: NO_LOG, places: [], recordings };
  let found = placeLogs(read);
  if (!Array.isArray(found)) return { apart: { ...found, at: all.indexOf(logs[found.at]!) } };
  // nothing tells when such a recording was made: it lies on no axis, and is heard as a whole
  const loose = found.map(
    ({ by }, k) =>
      logs[k]!.recording !== null &&
      logs[k]!.offsetS === null &&
      (by === 'start' || !risesOrFalls(read[k]!)),
  );
  if (loose.includes(true)) {
    const stays = (_: unknown, k: number) => !loose[k];
    found = found.filter(stays);
    logs.splice(0, logs.length, ...logs.filter(stays));
    read.splice(0, read.length, ...read.filter(stays));
  }
  const places = found.map((p, k) => {
    const { id, offsetS } = logs[k]!;
    return offsetS === null || k === 0 ? { ...p, id } : { offsetS, by: 'person' as const, id };
  });
  const log = joinLogs(read, places);
  if (!request) return { log, places, recordings };
  return {
    log: { ...log, columns: withPartIds(log.columns, partIdsOf(openCase(request))) },
    places,
    recordings,
  };
}

/** The first recording of the machine whose full scale is known. */
export function wholeSound(recordings: readonly Heard[]): SoundAnalysis | null {
  const recorded = recordings.find((r) => r.tone === null && r.fullScaleDb !== null);
  return recorded ? withFullScale(recorded.sound, recorded.fullScaleDb!) : null;
}
