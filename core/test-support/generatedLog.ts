import { normalQuantile } from '../uncertainty/normal';
import { randomStream } from '../uncertainty/random';

/** A level that a generated log holds for a while. */
export interface GeneratedLevel {
  forS: number;
  cpuW: number;
  gpuW: number;
}

export interface GeneratedOptions {
  stepS?: number;
  seed?: number;
  /** Deviation of powers, W, and of temperatures, K. */
  noiseW?: number;
  noiseK?: number;
  /** Figures are written in steps of this. */
  quantumW?: number;
  quantumK?: number;
  /** Share of cells that are missing. */
  missing?: number;
  roomC?: number;
  /** Temperature of a die: K per watt of its own and of the other's, each with its time constant. */
  ways?: readonly { own: number; other: number; timeConstantS: number }[];
  levelDbA?: (atS: number) => number;
}

/** Columns of a log whose truth is known. */
export interface GeneratedLog {
  timeS: number[];
  cpuPowerW: number[];
  gpuPowerW: number[];
  cpuC: number[];
  gpuC: number[];
  levelDbA: number[];
}

const WAYS = [
  { own: 0.3, other: 0, timeConstantS: 4 },
  { own: 0.4, other: 0.15, timeConstantS: 90 },
];

/**
 * A log made from levels of power, with temperatures that follow them through exact first-order lags: what is sought in it is known.
 *
 * @param levels one after the other
 */
export function generatedLog(
  levels: readonly GeneratedLevel[],
  options: GeneratedOptions = {},
): GeneratedLog {
  const {
    stepS = 0.5,
    seed = 1,
    noiseW = 0.5,
    noiseK = 0.3,
    quantumW = 0.01,
    quantumK = 0.1,
  } = options;
  const { missing = 0, roomC = 23, ways = WAYS, levelDbA = () => 40 } = options;
  const next = randomStream(seed);
  const noise = (sd: number) =>
    sd > 0 ? sd * normalQuantile(Math.min(1 - 1e-9, Math.max(1e-9, next()))) : 0;
  const cell = (x: number, quantum: number) =>
    next() < missing ? NaN : Math.round(x / quantum) * quantum;
  const out: GeneratedLog = {
    timeS: [],
    cpuPowerW: [],
    gpuPowerW: [],
    cpuC: [],
    gpuC: [],
    levelDbA: [],
  };
  const first = levels[0]!;
  const above = {
    cpu: ways.map((w) => w.own * first.cpuW + w.other * first.gpuW),
    gpu: ways.map((w) => w.own * first.gpuW + w.other * first.cpuW),
  };
  let k = 0;
  for (const { forS, cpuW, gpuW } of levels) {
    for (let i = 0; i < Math.round(forS / stepS); i++, k++) {
      const at = k * stepS;
      const sum = (x: number[]) => roomC + x.reduce((a, b) => a + b, 0);
      out.timeS.push(at);
      out.cpuPowerW.push(cell(cpuW + noise(noiseW), quantumW));
      out.gpuPowerW.push(cell(gpuW + noise(noiseW), quantumW));
      out.cpuC.push(cell(sum(above.cpu) + noise(noiseK), quantumK));
      out.gpuC.push(cell(sum(above.gpu) + noise(noiseK), quantumK));
      out.levelDbA.push(cell(levelDbA(at) + noise(0.2), 0.1));
      ways.forEach((w, j) => {
        const share = -Math.expm1(-stepS / w.timeConstantS);
        above.cpu[j]! += (w.own * cpuW + w.other * gpuW - above.cpu[j]!) * share;
        above.gpu[j]! += (w.own * gpuW + w.other * cpuW - above.gpu[j]!) * share;
      });
    }
  }
  return out;
}

/** A generated log as a file of commas. */
export function csvOf(log: GeneratedLog, from = 0): string {
  const names = [
    'Time [s]',
    'CPU Package Power [W]',
    'GPU Power [W]',
    'CPU Temperature [°C]',
    'GPU Temperature [°C]',
    'Level [dB(A)]',
  ];
  const columns = [log.cpuPowerW, log.gpuPowerW, log.cpuC, log.gpuC, log.levelDbA];
  const text = (x: number) => (Number.isFinite(x) ? x.toFixed(2) : 'N/A');
  const rows = log.timeS.map((t, i) =>
    [(t + from).toFixed(2), ...columns.map((c) => text(c[i]!))].join(','),
  );
  return `${[names.join(','), ...rows].join('\n')}\n`;
}
