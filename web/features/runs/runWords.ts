import type { RunAnalysis } from '../../api/runs';
import { capWord } from '@zugluft/core/case/answerWords';

/** When something happened, as minutes and seconds. */
export function clockWords(seconds: number): string {
  const s = Math.round(seconds);
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
}

const partWord = (part: string) => (part === 'cpu' || part === 'gpu' ? part.toUpperCase() : part);

const EVENT_WORDS: Readonly<Record<string, (part: string) => string>> = {
  'short-limit-ends': (part) => `short-term limit of ${part} ends`,
  'later-limit': (part) => `${part} drops later`,
  'throttle-junction': (part) => `${part} held at its junction limit`,
  'throttle-power': (part) => `${part} held by its power limit`,
  'throttle-unknown': (part) => `${part} gives way, the cause is not known`,
  skin: () => 'skin at its limit',
  adapter: () => 'adapter at its rating',
  fans: (part) => `${part} at full speed`,
  'log-gap': () => 'the log falls silent',
  'clock-jump': () => 'the clock was set',
};

/** An event in words. */
export const eventWords = ({ kind, part }: RunAnalysis['events'][number]): string =>
  EVENT_WORDS[kind]?.(partWord(part)) ?? `${kind} ${part}`;

export const USES = ['fit', 'hold-out', 'leave-out'] as const;

export const USE_WORDS = { fit: 'fit', 'hold-out': 'hold out', 'leave-out': 'leave out' } as const;

export const SEGMENT_WORDS: Readonly<Record<string, string>> = {
  idle: 'idle',
  ramp: '',
  short: 'short',
  sustained: 'sustained',
  later: 'after the drop',
  'cool-down': 'cools',
};

/** When the load of a run begins, s. */
export const loadStartS = (analysis: RunAnalysis): number =>
  analysis.segments.find((s) => s.kind === 'short' || s.kind === 'sustained')?.fromS ?? 0;

/** A fan state as people call it. */
export const capWords = (cap: number | 'off' | 'full'): string =>
  typeof cap === 'number' ? `${Number(cap.toFixed(1))} dB(A)` : capWord(cap);

const KIND_WORDS: Readonly<Record<string, string>> = {
  junction: 'junction',
  exhaust: 'exhaust air',
  fin: 'fin block',
  pipe: 'pipe',
  skin: 'skin',
  level: 'level',
  wall: 'wall power',
  flow: 'air of',
  freeDelivery: 'free delivery of',
  held: 'the pipes held',
};

/** A reading of a run in words. */
export const readingWords = (kind: string, part: string) =>
  [KIND_WORDS[kind] ?? kind, part].filter(Boolean).join(' ');

/** Channels of a log in words. */
export const CHANNEL_WORDS: Readonly<Record<string, string>> = {
  cpuPowerW: 'CPU power',
  gpuPowerW: 'GPU power',
  cpuC: 'CPU temperature',
  gpuC: 'GPU temperature',
  levelDbA: 'level',
  wallW: 'power at the wall',
  skinC: 'skin',
  roomC: 'room',
  cpuMHz: 'CPU clock',
  gpuMHz: 'GPU clock',
  framesPerS: 'frames',
  batteryW: 'battery power',
  fanRpm: 'fan speed',
  exhaustC: 'exhaust air',
  finC: 'fin block',
  pipeC: 'pipe',
};

const RAISED = '⁰¹²³⁴⁵⁶⁷⁸⁹';

/** Three figures of a number; a very small one by its power of ten: `5.49·10⁻⁶`. */
export function sig(x: number): string {
  if (x === 0 || Math.abs(x) >= 1e-3) return String(Number(x.toPrecision(3)));
  const [figures, power] = x.toExponential(2).split('e') as [string, string];
  const raised = [...String(Math.abs(Number(power)))].map((d) => RAISED[Number(d)]).join('');
  return `${Number(figures)}·10⁻${raised}`;
}
