import { appendFile, mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { UnknownSettingError } from '@zugluft/core/case/openCase';
import { fanNoise } from '@zugluft/core/instruments/fanNoise';
import { withFault, type Fault } from '@zugluft/core/instruments/faults';
import { hiddenMachine } from '@zugluft/core/instruments/hiddenMachine';
import { simulatedLogs, type SimulatedLogs } from '@zugluft/core/instruments/simulatedLogs';
import { wavBytes } from '@zugluft/core/sound/wavBytes';
import { BadInput } from './badInput';
import { capsOption, numberOption } from './options';
import { parsed } from './parsed';
import { recordOfFile } from './recordFile';

const USAGE =
  'usage: npm run --silent instruments -- RECORD.json --into FOLDER [--name WORDS] [--seed 1] [--setting ID] [--on cpu|gpu|both|none] [--cap full|off|DB] [--minutes 25] [--step S] [--speed 1…60 | --at-once] [--background 19] [--skew S] [--silent 0.002] [--drift K/h] [--dead-fan ID] [--dry-pipe ID] [--firmware-drop S,W] [--wav]';
const OPTIONS = {
  into: { type: 'string' },
  name: { type: 'string' },
  seed: { type: 'string' },
  setting: { type: 'string' },
  on: { type: 'string' },
  cap: { type: 'string' },
  minutes: { type: 'string' },
  step: { type: 'string' },
  speed: { type: 'string' },
  'at-once': { type: 'boolean' },
  background: { type: 'string' },
  skew: { type: 'string' },
  silent: { type: 'string' },
  drift: { type: 'string' },
  'dead-fan': { type: 'string' },
  'dry-pipe': { type: 'string' },
  'firmware-drop': { type: 'string' },
  wav: { type: 'boolean' },
} as const;

const IDLE_W = { cpu: 5, gpu: 3 };
/** How often a file grows, ms. */
const WRITE_MS = 500;
const RECORDING = { rate: 48_000, fullScaleDb: 100, seconds: 20, blades: 29, toneDb: 94 };

export interface InstrumentsOptions {
  /** Waits; replaced in tests, which do not. */
  sleep?: (ms: number) => Promise<void>;
  now?: () => number;
}

/**
 * Simulated instruments: a load on a machine whose true figures are drawn and hidden, logged by stand-ins into a folder, at once or
 * as time goes by.
 *
 * @param argv words after the command's name
 * @param tell told of progress
 */
export async function run(
  argv: readonly string[],
  tell: (line: string) => void = () => undefined,
  options: InstrumentsOptions = {},
): Promise<{ stdout: string; code: number }> {
  try {
    return { stdout: JSON.stringify(await write(argv, tell, options)), code: 0 };
  } catch (cause) {
    if (!(cause instanceof BadInput || cause instanceof UnknownSettingError)) throw cause;
    const path = cause instanceof BadInput ? cause.path : '--setting';
    return { stdout: JSON.stringify({ error: { path, message: cause.message } }), code: 2 };
  }
}

async function write(
  argv: readonly string[],
  tell: (line: string) => void,
  { sleep = (ms) => new Promise((go) => setTimeout(go, ms)), now = Date.now }: InstrumentsOptions,
): Promise<object> {
  const { values: v, positionals } = parsed(argv, OPTIONS, USAGE, tell);
  const [file] = positionals;
  if (file === undefined || positionals.length !== 1 || v.into === undefined) {
    tell(USAGE);
    throw new BadInput('', 'needs a record and --into FOLDER');
  }
  const number = (name: keyof typeof OPTIONS, usual: number, low: number, high: number) =>
    numberOption(`--${name}`, v[name] as string | undefined, low, high) ?? usual;
  const seed = number('seed', 1, 0, 2 ** 31);
  const speed = number('speed', 60, 1, 60);
  const stepS = number('step', 1, 0.1, 10);
  const on = v.on ?? 'both';
  if (!['cpu', 'gpu', 'both', 'none'].includes(on)) {
    throw new BadInput('--on', 'must be cpu, gpu, both or none');
  }
  const name = (v.name ?? 'bench').replace(/[^\p{L}\p{N}_-]+/gu, '-');
  const faults = faultsOf(v);
  let record = recordOfFile(file);
  for (const { at, fault } of faults) {
    try {
      record = withFault(record, fault);
    } catch (cause) {
      if (cause instanceof RangeError) throw new BadInput(at, cause.message);
      throw cause;
    }
  }
  const deadFans = faults.flatMap(({ fault }) => (fault.kind === 'dead-fan' ? [fault.fan] : []));
  const startedAtS = Math.floor(now() / 1000);
  const logs = simulatedLogs(hiddenMachine(record, seed, v.setting), {
    seed,
    cap: v.cap === undefined ? 'full' : capsOption('--cap', v.cap, 1)[0],
    loadS: 60 * number('minutes', 25, 0.5, 600),
    stepS,
    startedAtS,
    backgroundDbA: number('background', 19, -20, 100),
    skewS: number('skew', 1.5, -3600, 3600),
    silent: number('silent', 0.002, 0, 0.9),
    driftKPerHour: number('drift', 0, -20, 20),
    deadFans,
    ...(on === 'cpu' || on === 'none' ? { gpuLoadW: IDLE_W.gpu } : {}),
    ...(on === 'gpu' || on === 'none' ? { cpuLoadW: IDLE_W.cpu } : {}),
  });
  await mkdir(v.into, { recursive: true });
  const files = Object.entries({
    load: logs.load,
    level: logs.level,
    thermocouples: logs.thermocouples,
    wall: logs.wall,
  }).map(([kind, text]) => ({ path: join(v.into!, `${name}-${kind}.csv`), text }));
  if (v['at-once']) for (const { path, text } of files) await writeFile(path, text);
  else await stream(files, { stepS, speed, sleep, tell });
  const written = files.map((f) => f.path);
  if (v.wav) written.push(...(await recordings(logs, join(v.into, name), seed)));
  return { files: written };
}

/** Lets files grow line by line as time goes by, faster by a factor. */
async function stream(
  files: readonly { path: string; text: string }[],
  {
    stepS,
    speed,
    sleep,
    tell,
  }: {
    stepS: number;
    speed: number;
    sleep: (ms: number) => Promise<void>;
    tell: (line: string) => void;
  },
): Promise<void> {
  const open = files.map(({ path, text }) => ({ path, lines: text.trimEnd().split('\n'), at: 0 }));
  const most = Math.max(...open.map((f) => f.lines.length));
  for (const f of open) await writeFile(f.path, `${f.lines[f.at++]!}\n`);
  for (let sinceS = 0; open.some((f) => f.at < f.lines.length);) {
    await sleep(WRITE_MS);
    sinceS += (speed * WRITE_MS) / 1000;
    for (const f of open) {
      // the load logger writes every step, the others as many lines over the same time
      const upTo = Math.min(
        f.lines.length,
        1 + Math.floor((sinceS / stepS) * ((f.lines.length - 1) / Math.max(1, most - 1))),
      );
      if (upTo <= f.at) continue;
      await appendFile(f.path, `${f.lines.slice(f.at, upTo).join('\n')}\n`);
      f.at = upTo;
    }
    tell(`${Math.min(most - 1, Math.round(sinceS / stepS))} of ${most - 1} lines`);
  }
}

/** What a microphone would have recorded while the load was held, and of a calibrator. */
async function recordings({ truth }: SimulatedLogs, base: string, seed: number): Promise<string[]> {
  const { rate, fullScaleDb, seconds, blades, toneDb } = RECORDING;
  const levelDbA = truth.sustained.levelDbA ?? 20;
  const duty = truth.duty[Math.floor(0.8 * truth.steps)] ?? 0;
  const rpm = Math.max(600, duty * 5000);
  const noise = fanNoise(levelDbA, {
    sampleRateHz: rate,
    fullScaleDb,
    rpm,
    blades,
    seed,
    durationS: seconds,
  });
  const amplitude = 10 ** ((toneDb - fullScaleDb) / 20);
  const tone = Float64Array.from(
    { length: 5 * rate },
    (_, i) => amplitude * Math.sin((2 * Math.PI * 1000 * i) / rate),
  );
  const out = [`${base}-fan.wav`, `${base}-calibrator-${toneDb}.wav`];
  await writeFile(out[0]!, wavBytes([noise], { rate, bits: 24 }));
  await writeFile(out[1]!, wavBytes([tone], { rate, bits: 24 }));
  return out;
}

function faultsOf(v: {
  'dead-fan'?: string | undefined;
  'dry-pipe'?: string | undefined;
  'firmware-drop'?: string | undefined;
}): { at: string; fault: Fault }[] {
  const out: { at: string; fault: Fault }[] = [];
  if (v['dead-fan'] !== undefined)
    out.push({ at: '--dead-fan', fault: { kind: 'dead-fan', fan: v['dead-fan'] } });
  if (v['dry-pipe'] !== undefined)
    out.push({ at: '--dry-pipe', fault: { kind: 'dry-pipe', pipe: v['dry-pipe'] } });
  const drop = v['firmware-drop'];
  if (drop !== undefined) {
    const [afterS = NaN, cpuW = NaN] = drop.split(',').map(Number);
    if (!(afterS >= 0 && afterS <= 86_400 && cpuW > 0 && cpuW <= 400)) {
      throw new BadInput('--firmware-drop', 'needs seconds and watts, as 360,30');
    }
    out.push({ at: '--firmware-drop', fault: { kind: 'firmware-drop', afterS, cpuW } });
  }
  return out;
}
