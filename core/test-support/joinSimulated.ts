import type { SimulatedLogs } from '../instruments/simulatedLogs';

/** Both simulated logs as one: the level meter's reading of the same second as a last column of the load logger's. */
export function joinSimulated({ load, level }: SimulatedLogs): string {
  const seconds = (line: string) => line.slice(0, 19);
  const heard = new Map(
    level
      .trim()
      .split('\n')
      .slice(1)
      .map((line) => [seconds(line), line.slice(line.lastIndexOf(',') + 1)]),
  );
  const [header, ...rows] = load.trim().split('\n');
  return `${[`${header!},LAeq [dB(A)]`, ...rows.map((r) => `${r},${heard.get(seconds(r)) ?? ''}`)].join('\n')}\n`;
}
