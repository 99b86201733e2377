import type { Points, RunLine } from './runLines';

/**
 * What stands at the cursor of a run's chart, a line for each line of the chart: a pixel's least and greatest where they differ.
 *
 * @param lines of the chart
 * @param minutes where the cursor stands
 * @param reach how far beside it a line's nearest points may lie to be told, min
 * @returns the time of the nearest points, then a line for each; empty where nothing is near
 */
export function cursorWords(lines: readonly RunLine[], minutes: number, reach: number): string[] {
  let atMinutes: number | null = null;
  const words: string[] = [];
  for (const { told, unit, points } of lines) {
    const k = nearest(points, minutes);
    if (k < 0 || Math.abs(points[k]! - minutes) > reach) continue;
    atMinutes ??= points[k]!;
    let [least, most] = [Infinity, -Infinity];
    for (let i = k; i < points.length && points[i] === points[k]; i += 2) {
      least = Math.min(least, points[i + 1]!);
      most = Math.max(most, points[i + 1]!);
    }
    const text = (y: number) => y.toFixed(unit === 'rpm' ? 0 : 1);
    const band = text(least) === text(most) ? text(most) : `${text(least)} to ${text(most)}`;
    words.push(`${told} ${band} ${unit}`);
  }
  return atMinutes === null ? [] : [clock(atMinutes), ...words];
}

/** The first of the points nearest to a time; −1 where there are none. */
function nearest(points: Points, minutes: number): number {
  const n = points.length / 2;
  if (n === 0) return -1;
  let from = 0;
  let to = n;
  while (from < to) {
    const middle = (from + to) >> 1;
    if (points[2 * middle]! < minutes) from = middle + 1;
    else to = middle;
  }
  let k = Math.min(from, n - 1);
  if (k > 0 && minutes - points[2 * (k - 1)]! < Math.abs(points[2 * k]! - minutes)) k--;
  while (k > 0 && points[2 * (k - 1)] === points[2 * k]) k--;
  return 2 * k;
}

/** 4:05 for four minutes and five seconds. */
function clock(minutes: number): string {
  const seconds = Math.round(minutes * 60);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}
