import type { OpenCase } from '../case/openCase';
import { simulateFirmware, type Simulation } from '../transient/simulateFirmware';
import type { Cap } from '../envelope/fanStates';
import { normalQuantile } from '../uncertainty/normal';
import { randomStream } from '../uncertainty/random';

/** How a simulated run is made and read. */
export interface SimulatedRunOptions {
  seed: number;
  cap?: Cap | undefined;
  /** What the load would draw; as much as it gets by default, nothing where a die is left alone. */
  cpuLoadW?: number | undefined;
  gpuLoadW?: number | undefined;
  idleS?: number | undefined;
  loadS?: number | undefined;
  coolDownS?: number | undefined;
  stepS?: number | undefined;
  backgroundDbA?: number | undefined;
  /** Share of cells of the load logger that fall silent. */
  silent?: number | undefined;
  /** When the meter's clock stands against the logger's, s. */
  skewS?: number | undefined;
  /** When the logger began, s since 1970. */
  startedAtS?: number | undefined;
  /** Fans that do not turn, whatever the firmware asks of them. */
  deadFans?: readonly string[] | undefined;
  /** What a thermocouple's reading wanders off in an hour, K. */
  driftKPerHour?: number | undefined;
}

/** What instruments wrote of one run, each a file of its own. */
export interface SimulatedLogs {
  /** Load logger: powers, junctions, speeds. */
  load: string;
  /** Level meter. */
  level: string;
  /** Thermocouples on fin blocks, pipes and skin, and one in the room. */
  thermocouples: string;
  /** Wall meter. */
  wall: string;
  /** What was really so. */
  truth: Simulation;
}

/** Errors of the stand-ins (common practice, no source): sensors tell whole kelvins and hundredths of watts. */
const NOISE = {
  powerW: 0.6,
  kelvin: 0.4,
  rpm: 12,
  levelDb: 0.3,
  thermocoupleK: 0.2,
  wallShare: 0.004,
};
/** Common practice, no source. */
const ADAPTER_EFFICIENCY = 0.88;
const IDLE_W = { cpuW: 5, gpuW: 3 };
const METER_STEP_S = 1;

/**
 * Runs a load on a simulated machine and lets simulated instruments log it: idle, load, cooling down.
 *
 * @param truth the machine as it really is; readings are what its sensors tell
 * @param options load, times, what goes wrong
 */
export function simulatedLogs(truth: OpenCase, options: SimulatedRunOptions): SimulatedLogs {
  const { idleS = 30, loadS = 900, coolDownS = 120, stepS = 0.5, backgroundDbA = 19 } = options;
  const { startedAtS = 1_795_600_000, skewS = 0, silent = 0 } = options;
  const isOn = (atS: number) => atS >= idleS && atS < idleS + loadS;
  const { model } = truth;
  const steps = Math.round((idleS + loadS + coolDownS) / stepS);
  const probes = probesOf(truth);
  const warm = probes.map(() => new Float64Array(steps));
  const drawnW = new Float64Array(steps);
  const simulation = simulateFirmware(truth, {
    watch: (k, nodeC, watts) => {
      probes.forEach((p, i) => (warm[i]![k] = p.read(nodeC)));
      drawnW[k] = watts;
    },
    cap: options.cap,
    stepS,
    durationS: idleS + loadS + coolDownS,
    cpuLoadW: options.cpuLoadW,
    gpuLoadW: options.gpuLoadW,
    loadAt: (atS) => (isOn(atS) ? { cpuW: Infinity, gpuW: Infinity } : IDLE_W),
  });
  const next = randomStream(options.seed);
  const noise = (sd: number) => sd * normalQuantile(next());
  const cell = (x: number, decimals: number) => (next() < silent ? '' : x.toFixed(decimals));
  const { data } = truth;
  const dead = new Set(options.deadFans ?? []);
  const clock = (atS: number) => new Date(1000 * (startedAtS + atS)).toISOString();
  const dies = data.dies.map((d, i) => ({ role: d.role, at: simulation.junctionC[i]! }));
  const header = [
    'Time',
    ...dies.map((d) => `${d.role.toUpperCase()} power [W]`),
    ...dies.map((d) => `${d.role.toUpperCase()} temperature [°C]`),
    ...data.fans.map((f) => `fanRpm.${f.id}`),
  ];
  const load = [header.join(',')];
  for (let k = 0; k < simulation.steps; k++) {
    const duty = simulation.duty[k]!;
    const cells = [
      clock(k * stepS),
      ...dies.map((d) =>
        cell(
          Math.max(
            0,
            (d.role === 'cpu' ? simulation.cpuW : simulation.gpuW)[k]! + noise(NOISE.powerW),
          ),
          2,
        ),
      ),
      ...dies.map((d) => cell(d.at.temperatureC[k]! + noise(NOISE.kelvin), 0)),
      ...data.fans.map((f) =>
        cell(duty > 0 && !dead.has(f.id) ? duty * f.maxRpm + noise(NOISE.rpm) : 0, 0),
      ),
    ];
    load.push(cells.join(','));
  }
  const level = ['Time,LAeq [dB(A)]'];
  const every = Math.max(1, Math.round(METER_STEP_S / stepS));
  for (let k = 0; k < simulation.steps; k += every) {
    const own = simulation.levelDbA[k]!;
    const both =
      10 * Math.log10((Number.isFinite(own) ? 10 ** (own / 10) : 0) + 10 ** (backgroundDbA / 10));
    level.push(`${clock(k * stepS + skewS)},${(both + noise(NOISE.levelDb)).toFixed(1)}`);
  }
  const text = (lines: readonly string[]) => `${lines.join('\n')}\n`;
  const warmLines = [['Time', ...probes.map((p) => `${p.is} [°C]`), 'roomC [°C]'].join(',')];
  const wall = ['Time,Wall power [W]'];
  const drift = options.driftKPerHour ?? 0;
  for (let k = 0; k < simulation.steps; k += every) {
    const atS = k * stepS;
    const off = (drift * atS) / 3600;
    const cells = [...warm.map((w) => w[k]!), data.room.temperatureC].map((x) =>
      cell(x + off + noise(NOISE.thermocoupleK), 1),
    );
    warmLines.push([clock(atS), ...cells].join(','));
    const watts = drawnW[k]! / ADAPTER_EFFICIENCY;
    wall.push(`${clock(atS)},${cell(watts * (1 + noise(NOISE.wallShare)), 1)}`);
  }
  return {
    load: text(load),
    level: text(level),
    thermocouples: text(warmLines),
    wall: text(wall),
    truth: simulation,
  };

  /** Where thermocouples lie. */
  function probesOf({ data: parts }: OpenCase) {
    const nodeMean =
      (segments: readonly { node: number; share: number }[]) =>
      (nodeC: (node: number) => number): number =>
        segments.reduce((sum, s) => sum + s.share * nodeC(s.node), 0);
    return [
      ...parts.stacks.map((s, i) => ({ is: `finC.${s.id}`, read: nodeMean(model.segments[i]!) })),
      ...parts.pipes.map((p, i) => ({
        is: `pipeC.${p.id}`,
        read: (nodeC: (node: number) => number) => nodeC(model.pipeNode[i]!),
      })),
      {
        is: 'skinC',
        read: (nodeC: (node: number) => number) => Math.max(...model.skinNode.map(nodeC)),
      },
    ];
  }
}
