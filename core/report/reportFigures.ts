import Papa from 'papaparse';
import { safeCell } from '../exchange/cells';
import { workDone } from '../runs/workDone';
import type { Verdict } from '../verdict/verdict';
import type { MeasuredState } from './report';

/** One figure of a report. */
export interface ReportFigure {
  figure: string;
  cap: string;
  unit: string;
  p05: number | null;
  value: number;
  p95: number | null;
  /** What it goes back to. */
  from: 'computed' | 'calibrated' | 'measured' | 'log' | 'usual';
}

const rounded = (x: number): number => Number(x.toPrecision(6));

/** Every figure of a verdict, one after the other. */
export function figuresOfReport(
  verdict: Verdict,
  measured: readonly MeasuredState[],
): ReportFigure[] {
  const from = verdict.isCalibrated ? 'calibrated' : 'computed';
  const banded = (
    figure: string,
    cap: Verdict['cap'],
    unit: string,
    band: { p05: number; p50: number; p95: number },
  ): ReportFigure => ({
    figure,
    cap: String(cap),
    unit,
    p05: rounded(band.p05),
    value: rounded(band.p50),
    p95: rounded(band.p95),
    from,
  });
  const plain = (
    figure: string,
    unit: string,
    value: number,
    of: ReportFigure['from'],
    cap = '',
  ): ReportFigure => ({ figure, cap, unit, p05: null, value: rounded(value), p95: null, from: of });
  const { at, burst, advice, score } = verdict;
  return [
    ...at.flatMap((c) => [
      banded('sustained', c.cap, 'W', c.watts),
      banded('sustained as set', c.cap, 'W', c.configured),
      ...(c.cpuAlone ? [banded('CPU alone', c.cap, 'W', c.cpuAlone)] : []),
      ...(c.gpuAlone ? [banded('GPU alone', c.cap, 'W', c.gpuAlone)] : []),
    ]),
    ...verdict.work.map((w) =>
      banded(`sustained in the split of ${w.name}`, verdict.cap, 'W', w.band),
    ),
    ...(burst.seconds === null
      ? []
      : [
          plain(
            `burst of ${Math.round(burst.cpuW + burst.gpuW)} W held`,
            's',
            burst.seconds,
            from,
            String(verdict.cap),
          ),
        ]),
    ...advice.map((a) => banded(`gained by: ${a.name}`, verdict.cap, 'W', a.gain.wattsGained)),
    ...(typeof score?.computed !== 'number'
      ? []
      : [plain('service score', 'of 10', score.agreed ?? score.computed, 'log')]),
    ...measured.flatMap((m) => [
      plain(`run ${m.run}: CPU`, 'W', m.cpuW, 'measured'),
      plain(`run ${m.run}: GPU`, 'W', m.gpuW, 'measured'),
      ...(m.levelDbA === null
        ? []
        : [plain(`run ${m.run}: level`, 'dB(A)', m.levelDbA, 'measured')]),
      ...workDone([m]).flatMap(({ done, unit, perWatt }) => {
        const name = unit === 'points' ? 'score' : 'frame rate';
        return [
          plain(`run ${m.run}: ${name}`, unit, done, 'measured'),
          plain(`run ${m.run}: ${name} for each watt`, `${unit}/W`, perWatt, 'measured'),
          ...(m.usual ?? []).flatMap((u) =>
            u.unit !== unit || u.usual.refused
              ? []
              : [
                  {
                    ...plain(
                      `run ${m.run}: usual ${name} at such watts`,
                      unit,
                      u.usual.p50,
                      'usual',
                    ),
                    p05: u.usual.p05,
                    p95: u.usual.p95,
                  },
                ],
          ),
        ];
      }),
    ]),
  ];
}

const COLUMNS = ['figure', 'cap', 'unit', 'p05', 'value', 'p95', 'from'] as const;

/** The figures as a CSV table that no spreadsheet runs anything of. */
export function figuresCsv(figures: readonly ReportFigure[]): string {
  const rows = figures.map((f) =>
    COLUMNS.map((c) => (f[c] === null ? '' : safeCell(String(f[c])))),
  );
  return `${Papa.unparse([[...COLUMNS], ...rows], { newline: '\r\n' })}\r\n`;
}
