/** A point that the cursor of a chart meets. */
export interface CursorPoint {
  seriesIndex?: number | undefined;
  seriesName?: string | undefined;
  axisIndex?: number | undefined;
  /** Minutes, and what the line tells there. */
  value: unknown;
}

/**
 * What stands at the cursor of a run's chart, a line for each line of the chart: a pixel's least and greatest where they differ.
 *
 * @param points as the chart gives them
 * @param units of the plots, from the top
 */
export function cursorWords(points: readonly CursorPoint[], units: readonly string[]): string {
  const lines = new Map<number, { name: string; unit: string; least: number; most: number }>();
  let minutes: number | null = null;
  for (const { seriesIndex = 0, seriesName = '', axisIndex = 0, value } of points) {
    const [at, y] = value as [number, number];
    if (!Number.isFinite(y)) continue;
    minutes ??= at;
    const own = lines.get(seriesIndex);
    if (own) [own.least, own.most] = [Math.min(own.least, y), Math.max(own.most, y)];
    else {
      const unit = units[axisIndex] ?? '';
      lines.set(seriesIndex, { name: seriesName, unit, least: y, most: y });
    }
  }
  if (minutes === null) return '';
  const words = [...lines]
    .sort(([a], [b]) => a - b)
    .map(([, { name, unit, least, most }]) => {
      const text = (y: number) => y.toFixed(unit === 'rpm' ? 0 : 1);
      const band = text(least) === text(most) ? text(most) : `${text(least)} to ${text(most)}`;
      return `${name} ${band} ${unit}`;
    });
  return [clock(minutes), ...words].join('\n');
}

/** 4:05 for four minutes and five seconds. */
function clock(minutes: number): string {
  const seconds = Math.round(minutes * 60);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}
