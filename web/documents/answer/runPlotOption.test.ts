import type { Series } from '@zugluft/core/library/runAnswers';
import type { UnitPreference } from '@zugluft/core/record/units';
import { runLines, unitsOfPlots, type UnderRun } from './runLines';
import { runPlotOption, type RunMarks } from './runPlotOption';

const UNITS = { length: 'mm', temperature: '°C' } as unknown as UnitPreference;
const C = { ink: 'ink', rule: 'rule', ground: 'ground', air: 'air', heat: 'heat' };
const MARKS: RunMarks = { steady: [], segments: [], events: [] };
const SHOWN = { fromS: 0, toS: 600 };

const series = (channels: Record<string, [(number | null)[], (number | null)[]]>): Series => ({
  fromS: 0,
  toS: 600,
  lastS: 600,
  channels: Object.fromEntries(
    Object.entries(channels).map(([name, [least, most]]) => [name, { least, most }]),
  ),
});
interface DrawnLine {
  name: string;
  plot: number;
  data: Float64Array;
  endLabel: { offset?: [number, number] };
  markLine?: { data: { name: string; xAxis: number }[] };
}
const drawn = (s: Series, marks = MARKS, under: UnderRun[] = []): DrawnLine[] => {
  const units = unitsOfPlots(s, UNITS);
  const lines = runLines(s, under, UNITS);
  return units.flatMap((_, plot) =>
    (runPlotOption(lines, units, plot, marks, SHOWN, C).series as unknown as DrawnLine[]).map(
      (l) => ({ ...l, plot }),
    ),
  );
};

test('least and greatest of each pixel by turns, its middle in minutes; a pixel of one value once, a silent one not at all', () => {
  const [cpu] = drawn(
    series({
      cpuPowerW: [
        [40, null, 45, 46],
        [44, null, 45, 50],
      ],
    }),
  );
  expect([...cpu!.data]).toEqual([1.25, 40, 1.25, 44, 6.25, 45, 8.75, 46, 8.75, 50]);
});

test('power, temperature and level each have their plot; without a level its place is that of the fans', () => {
  const flat: [number[], number[]] = [[1], [1]];
  const own = { cpuPowerW: flat, gpuPowerW: flat, cpuC: flat };
  const places = (s: Series) => drawn(s).map((l) => [l.name, l.plot]);
  expect(places(series({ ...own, levelDbA: flat, 'fanRpm.fan-left': flat }))).toEqual([
    ['CPU', 0],
    ['GPU', 0],
    ['CPU', 1],
    ['level', 2],
  ]);
  expect(places(series({ ...own, 'fanRpm.fan-left': flat })).at(-1)).toEqual(['left', 2]);
});

test('two lines that end beside each other have their names above and below, those that end apart do not', () => {
  const ends = (gpu: number) =>
    drawn(
      series({
        cpuPowerW: [
          [90, 50],
          [90, 50],
        ],
        gpuPowerW: [
          [90, gpu],
          [90, gpu],
        ],
      }),
    ).map((l) => l.endLabel.offset?.[1]);
  expect(ends(55)).toEqual([7, -7]);
  expect(ends(45)).toEqual([-7, 7]);
  // alike: the first one is above
  expect(ends(50)).toEqual([-7, 7]);
  expect(ends(20)).toEqual([undefined, undefined]);
});

test('another run lies under it, moved by its shift', () => {
  const own = series({ cpuPowerW: [[40], [40]] });
  const other = { name: 'run 2', series: series({ cpuPowerW: [[30], [30]] }), shiftS: -60 };
  const lines = drawn(own, MARKS, [other]);
  expect(lines.map((l) => [l.name, [...l.data]])).toEqual([
    ['CPU', [5, 40]],
    ['run 2', [4, 30]],
  ]);
  // at the cursor each of its lines says what it is of
  expect(runLines(own, [other], UNITS).map((l) => l.told)).toEqual(['CPU', 'run 2, CPU']);
});

test('words of events stand where there is room: not over the plot’s name, nor over those before', () => {
  const at = (...s: number[]) => s.map((atS) => ({ atS, words: `at ${atS}` }));
  const [cpu] = drawn(series({ cpuPowerW: [[40], [40]] }), {
    ...MARKS,
    events: at(10, 40, 60, 183, 185, 340),
  });
  expect(cpu!.markLine!.data.map((d) => d.name)).toEqual(['', 'at 40', '', '', 'at 185', 'at 340']);
});
