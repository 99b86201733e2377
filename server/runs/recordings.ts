import { createReadStream } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import type { Log, LogFault } from '@zugluft/core/logs/readLog';
import { hearWav } from '@zugluft/core/sound/hearWav';
import {
  fullScaleFromTone,
  soundOfBlocks,
  type RecordedSound,
} from '@zugluft/core/sound/soundOfBlocks';
import type { SoundAnalysis } from '@zugluft/core/sound/soundMeter';
import { blockBytes, type WavHeader } from '@zugluft/core/sound/wavFile';
import type { RunLog } from './joinRun';
import type { ReadLog, RunJob } from './runJobs';
import { writeWhole } from './sampleFile';

/** Bytes that are read at a time. */
const PIECE = 1 << 18;

/** A recording of a run with what is known of its level. */
export interface Heard {
  id: string;
  /** Over a sine of full scale. */
  sound: SoundAnalysis;
  /** Null: not known yet. */
  fullScaleDb: number | null;
  /** Of a calibrator: what it gives, and why it tells nothing where it does not. */
  tone: { toneDb: number; fault: string | null } | null;
}

/** What is said of a recording; levels are null while its full scale is not known. */
export interface RecordingAnswer {
  id: string;
  durationS: number;
  clipped: number;
  fullScaleDb: number | null;
  leqDbA: number | null;
  leqDb: number | null;
  thirdOctavesDb: { hz: number; db: number }[];
  tones: SoundAnalysis['tones'];
  tone: Heard['tone'];
}

/** Hears a recording and keeps its levels and its spectrum beside it. */
export async function hear({
  file,
  samples,
}: RunJob & { do: 'hear' }): Promise<{ taken: ReadLog } | { fault: LogFault }> {
  const { size } = await stat(file);
  let listener: ReturnType<typeof soundOfBlocks> | null = null;
  const found = await hearWav(
    createReadStream(file, { highWaterMark: PIECE }),
    size,
    1,
    (header: WavHeader) => {
      const own = soundOfBlocks(header.sampleRateHz, header.dataBytes / blockBytes(header));
      listener = own;
      return own;
    },
  );
  if ('message' in found) return { fault: { row: 1, column: 1, message: found.message } };
  const { header } = found;
  const heard = (listener as unknown as ReturnType<typeof soundOfBlocks>).end();
  const kept = { ...heard, levelsDbA: [...heard.levelsDbA] };
  await writeWhole(samples, JSON.stringify(kept));
  const clipped = heard.sound.clipped;
  return {
    taken: {
      rows: header.dataBytes / blockBytes(header),
      durationS: heard.sound.durationS,
      stepS: 1 / header.sampleRateHz,
      channels: [],
      problems:
        clipped > 0
          ? [
              {
                row: 1,
                column: '',
                message: `${clipped} samples at full scale: record with less gain`,
              },
            ]
          : [],
      sample: [],
    },
  };
}

/** Recordings among the logs of a run; one of a calibrator tells full scale for those that say none of their own. */
export async function heardOf(
  logs: readonly RunLog[],
): Promise<(Heard & { kept: RecordedSound })[]> {
  const out: (Heard & { kept: RecordedSound })[] = [];
  for (const { id, samples, recording } of logs) {
    if (!recording) continue;
    const kept = JSON.parse(await readFile(samples, 'utf8')) as RecordedSound;
    const { sound } = kept;
    const { toneDb, fullScaleDb } = recording;
    const told = toneDb === null ? null : fullScaleFromTone(sound, toneDb);
    out.push({
      id,
      sound,
      kept,
      fullScaleDb: told && 'fullScaleDb' in told ? told.fullScaleDb : fullScaleDb,
      tone:
        toneDb === null ? null : { toneDb, fault: told && 'message' in told ? told.message : null },
    });
  }
  const tone = out.find((r) => r.tone && r.fullScaleDb !== null);
  return out.map((r) => ({ ...r, fullScaleDb: r.fullScaleDb ?? tone?.fullScaleDb ?? null }));
}

/** A recording's levels as a log that lies beside the others; null for a calibrator's, or while its full scale is not known. */
export function heardLog(
  heard: readonly (Heard & { kept: RecordedSound })[],
  id: string,
): Log | null {
  const own = heard.find((r) => r.id === id);
  if (!own || own.tone || own.fullScaleDb === null) return null;
  const { stepS, levelsDbA } = own.kept;
  const n = levelsDbA.length;
  if (n === 0) return null;
  return {
    timeS: Float64Array.from({ length: n }, (_, i) => (i + 0.5) * stepS),
    lines: Float64Array.from({ length: n }, (_, i) => i + 1),
    clockS: null,
    dated: false,
    columns: [
      {
        column: 'recording',
        is: 'levelDbA',
        unit: 'dB(A)',
        values: Float64Array.from(levelsDbA, (x) => x + own.fullScaleDb!),
      },
    ],
    gaps: [],
    clockJumps: [],
    problems: [],
  };
}

export function recordingAnswer({ id, sound, fullScaleDb, tone }: Heard): RecordingAnswer {
  const by = fullScaleDb;
  return {
    id,
    durationS: sound.durationS,
    clipped: sound.clipped,
    fullScaleDb: by,
    leqDbA: by === null ? null : sound.leqDbA + by,
    leqDb: by === null ? null : sound.leqDb + by,
    thirdOctavesDb:
      by === null ? [] : sound.thirdOctavesDb.map(({ hz, db }) => ({ hz, db: db + by })),
    tones: tone ? [] : sound.tones,
    tone,
  };
}

/** A level that moves by less than this tells nothing of when it was heard, dB (common practice, no source). */
const MOVES_DB = 3;

/** Whether a recording's level rises or falls, so that it can be laid beside a load: a steady hum lies anywhere as well. */
export function risesOrFalls({ columns }: Log): boolean {
  const sorted = Float64Array.from(columns[0]?.values ?? []).sort();
  if (sorted.length === 0) return false;
  const at = (p: number) => sorted[Math.round(p * (sorted.length - 1))]!;
  return at(0.95) - at(0.05) >= MOVES_DB;
}
