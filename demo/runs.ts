import { hiddenMachine } from '@zugluft/core/instruments/hiddenMachine';
import { simulatedLogs, type SimulatedRunOptions } from '@zugluft/core/instruments/simulatedLogs';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { RunDocument } from '@zugluft/core/runs/runDocument';
import type { Library } from '@zugluft/server/library';

const FORETOLD_AT = '2026-11-20T16:00:00.000Z';
const FIRST_RUN_S = Date.parse('2026-11-21T09:30:00Z') / 1000;
const BETWEEN_RUNS_S = 3600;
const BACKGROUND_DBA = 19;
const STEP_S = 1;

/** A run of the co-operative, as its bench would have made it. */
interface DemoRun {
  name: string;
  on: 'cpu' | 'gpu' | 'both';
  fans: Cap;
  use?: RunDocument['use'];
  loadS?: number;
  /** Foretold before it. */
  foretold?: true;
  setting?: string;
  firmware?: string;
  /** The machine behaves as one with this change of its record. */
  truth?: (record: CaseRecord) => CaseRecord;
}

const withoutLaterLimit = (record: CaseRecord): CaseRecord => ({
  ...record,
  settings: record.settings?.map(({ later: _, ...setting }) => setting),
});

/** Paste pumped out further than anybody wrote down. */
const driedOut = (record: CaseRecord): CaseRecord => ({
  ...record,
  dies: record.dies?.map((d) => ({
    ...d,
    interface: { ...d.interface, ageYears: 14, conductivityWmK: 0.9 },
  })),
});

/** By words of the variant: one run contradicts its prediction, one never settles, one drops after six minutes, two firmwares. */
const RUNS: readonly [RegExp, number, readonly DemoRun[]][] = [
  [
    /^Studio, 8-core/,
    11,
    [
      { name: 'both, full speed', on: 'both', fans: 'full', foretold: true },
      { name: 'CPU alone', on: 'cpu', fans: 'full', loadS: 900 },
      { name: 'both, 36 dB(A)', on: 'both', fans: 36, use: 'hold-out' },
    ],
  ],
  [
    /first firmware/,
    11,
    [
      { name: 'firmware 1.01', on: 'both', fans: 'full', firmware: '1.01' },
      {
        name: 'firmware 1.04',
        on: 'both',
        fans: 'full',
        firmware: '1.04',
        use: 'leave-out',
        truth: withoutLaterLimit,
      },
    ],
  ],
  [
    /five-year-old/,
    5,
    [{ name: 'both, as it came', on: 'both', fans: 'full', foretold: true, truth: driedOut }],
  ],
  [/thick and quiet/, 7, [{ name: 'both, too short', on: 'both', fans: 32, loadS: 200 }]],
  [/vapor chamber/, 3, [{ name: 'both, full speed', on: 'both', fans: 'full', foretold: true }]],
  [/one thin fan/, 9, [{ name: 'CPU, full speed', on: 'cpu', fans: 'full', loadS: 900 }]],
  [/separate loops/, 4, [{ name: 'GPU alone', on: 'gpu', fans: 'full', loadS: 900 }]],
];

async function* pieces(text: string): AsyncGenerator<Uint8Array> {
  yield await Promise.resolve(Buffer.from(text));
}

/** Runs that simulated instruments logged of a demo machine whose true figures are hidden. */
export async function seedRuns(
  { runs, documents, db }: Library,
  machineId: string,
  record: CaseRecord,
): Promise<void> {
  const story = RUNS.findIndex(([words]) => words.test(record.identity?.variant ?? ''));
  const [, seed = 0, made = []] = RUNS[story] ?? [];
  for (const [k, run] of made.entries()) {
    const { name, on, fans, firmware, loadS = 1500, truth = (r) => r } = run;
    const setting = run.setting ?? record.settings?.[0]?.id;
    const id = idOf(story, k);
    const startedAtS = FIRST_RUN_S + k * BETWEEN_RUNS_S;
    const document: RunDocument = {
      format: 'zugluft-run',
      formatVersion: 1,
      id,
      name,
      startedAt: new Date(1000 * startedAtS).toISOString(),
      load: { kind: 'stress', on },
      ...(setting ? { setting } : {}),
      ...(firmware ? { firmware } : {}),
      source: 'mains',
      lid: 'open',
      room: { temperatureC: 23 },
      backgroundDbA: BACKGROUND_DBA,
      microphone: { distanceM: 0.5, place: 'operator', instrument: 'meter-1' },
      instruments: [
        {
          id: 'meter-1',
          kind: 'sound-level-meter',
          plusMinus: 0.5,
          checkBeforeDb: 94,
          checkAfterDb: 93.9,
        },
      ],
      use: run.use ?? 'fit',
    };
    await runs.make(machineId, document);
    if (run.foretold) {
      const { prediction } = await runs.foretell(machineId, id, fans);
      await db.models.Run.update(
        { prediction: JSON.stringify({ ...prediction, madeAt: FORETOLD_AT }) },
        { where: { id } },
      );
    }
    const options: SimulatedRunOptions = {
      seed: 100 * seed + k,
      cap: fans,
      loadS,
      stepS: STEP_S,
      startedAtS,
      skewS: 1.5,
      silent: 0.002,
      backgroundDbA: BACKGROUND_DBA,
      ...(on === 'cpu' ? { gpuLoadW: 3 } : {}),
      ...(on === 'gpu' ? { cpuLoadW: 5 } : {}),
    };
    const written = simulatedLogs(hiddenMachine(truth(record), seed, setting), options);
    const logs = [];
    for (const [file, text] of [
      ['load.csv', written.load],
      ['level.csv', written.level],
    ] as const) {
      const taken = await runs.takeLog(machineId, id, pieces(text), { file, map: null });
      logs.push({
        id: `log-${logs.length + 1}`,
        file,
        kind: taken.kind,
        sha256: taken.sha256,
        channels: taken.channels,
      });
    }
    await documents.write('run', id, 1, { ...document, logs });
  }
}

/** The same library each time. */
const idOf = (story: number, k: number) =>
  `00000000-0000-4000-8000-${String(100 * story + k).padStart(12, '0')}`;
