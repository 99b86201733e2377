import type { Series } from '@zugluft/core/library/runAnswers';
import { toShown, type UnitPreference } from '@zugluft/core/record/units';

/** Something drawn under a run, moved so that the loads begin together. */
export interface UnderRun {
  name: string;
  series: Series;
  shiftS: number;
}

/** Minutes and values by turns: a list of pairs is copied pair by pair whenever it is drawn. */
export type Points = Float64Array;

/** What channels are called beside their lines. */
const OWN_NAMES = {
  cpuPowerW: 'CPU',
  gpuPowerW: 'GPU',
  cpuC: 'CPU',
  gpuC: 'GPU',
  levelDbA: 'level',
} as const;

/** One line of a run's chart. */
export interface RunLine {
  name: string;
  /** Its name at the cursor, where that of another run would stand before all of its lines alike. */
  told: string;
  /** Watts, temperatures, or what stands below them. */
  plot: number;
  unit: string;
  points: Points;
  colour: 'ink' | 'heat' | 'air';
  kind: 'first' | 'second' | 'under';
}

/** Units of the plots, from the top: the third has the level, or the speeds of the fans where none was measured. */
export function unitsOfPlots(series: Series, units: UnitPreference): string[] {
  const third = 'levelDbA' in series.channels ? 'dB(A)' : fansOf(series).length > 0 ? 'rpm' : null;
  return ['W', units.temperature, ...(third ? [third] : [])];
}

/**
 * Power, temperature and level of a run and of what lies under it.
 *
 * @param series least and greatest by pixel
 */
export function runLines(
  series: Series,
  under: readonly UnderRun[],
  units: UnitPreference,
): RunLine[] {
  const plots = unitsOfPlots(series, units);
  const hasLevel = plots[2] === 'dB(A)';
  const of = (
    channel: string,
    name: string,
    plot: number,
    colour: RunLine['colour'],
    kind: RunLine['kind'],
    from = series,
    shiftS = 0,
  ): RunLine[] => {
    if (!(channel in from.channels)) return [];
    const turn = plot === 1 ? (x: number) => toShown(x, '°C', units) : (x: number) => x;
    const points = pointsOf(from, channel, turn, shiftS);
    const told =
      kind === 'under' ? `${name}, ${OWN_NAMES[channel as keyof typeof OWN_NAMES]}` : name;
    return [{ name, told, plot, unit: plots[plot]!, points, colour, kind }];
  };
  const own = [
    ...of('cpuPowerW', OWN_NAMES.cpuPowerW, 0, 'ink', 'first'),
    ...of('gpuPowerW', OWN_NAMES.gpuPowerW, 0, 'ink', 'second'),
    ...of('cpuC', OWN_NAMES.cpuC, 1, 'heat', 'first'),
    ...of('gpuC', OWN_NAMES.gpuC, 1, 'heat', 'second'),
    ...(hasLevel
      ? of('levelDbA', OWN_NAMES.levelDbA, 2, 'air', 'first')
      : fansOf(series).flatMap((f, i) => of(f, fanWord(f), 2, 'air', i ? 'second' : 'first'))),
  ];
  const below = under.flatMap(({ name, series: other, shiftS }) =>
    [
      ...of('cpuPowerW', name, 0, 'ink', 'under', other, shiftS),
      ...of('gpuPowerW', name, 0, 'ink', 'under', other, shiftS),
      ...of('cpuC', name, 1, 'heat', 'under', other, shiftS),
      ...of('gpuC', name, 1, 'heat', 'under', other, shiftS),
      ...(hasLevel ? of('levelDbA', name, 2, 'air', 'under', other, shiftS) : []),
    ].filter((l) => l.points.length > 0),
  );
  return [...own, ...below];
}

const fansOf = (series: Series) => Object.keys(series.channels).filter((x) => x.startsWith(FAN));
const FAN = 'fanRpm.';

/** “left” for `fanRpm.fan-left`: there is little room beside a line. */
const fanWord = (channel: string) => channel.slice(FAN.length).replace(/^fan-/, '');

/** Least and greatest of each pixel, one after the other, so that a line through them shows every peak. */
function pointsOf(
  series: Series,
  channel: string,
  turn: (x: number) => number,
  shiftS: number,
): Points {
  const own = series.channels[channel];
  if (!own) return new Float64Array();
  const n = own.least.length;
  const step = (series.toS - series.fromS) / n;
  const out = new Float64Array(4 * n);
  let length = 0;
  for (let k = 0; k < n; k++) {
    const low = own.least[k] ?? null;
    const high = own.most[k] ?? null;
    // a pixel without a sample between two that have some is no silence
    if (low === null || high === null) continue;
    const at = (series.fromS + (k + 0.5) * step + shiftS) / 60;
    out[length++] = at;
    out[length++] = turn(low);
    if (high === low) continue;
    out[length++] = at;
    out[length++] = turn(high);
  }
  return out.slice(0, length);
}
