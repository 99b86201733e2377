import Papa from 'papaparse';
import { safeCell } from '../exchange/cells';
import type { ComparedMachine, Comparison } from './compareMachines';

const rounded = (x: number): number => Number(x.toPrecision(6));
const orNull = (x: number | null) => (x === null ? null : rounded(x));

/** A comparison as the command and the page write it. */
export function comparisonDocument({ machines, better }: Comparison) {
  return {
    format: 'zugluft-comparison',
    formatVersion: 1,
    machines: machines.map((m) => ({
      ...m,
      at: m.at.map(({ cap, p05, p50, p95 }) => ({
        cap,
        p05: rounded(p05),
        p50: rounded(p50),
        p95: rounded(p95),
      })),
      wattsPerDb: orNull(m.wattsPerDb),
      wattsPerKg: orNull(m.wattsPerKg),
      wattsPerMm: orNull(m.wattsPerMm),
      finAreaCm2: rounded(m.finAreaCm2),
      sweptCm2: rounded(m.sweptCm2),
      pipeSectionMm2: rounded(m.pipeSectionMm2),
    })),
    better,
  };
}

const BUILT = [
  'wattsPerDb',
  'wattsPerKg',
  'wattsPerMm',
  'finAreaCm2',
  'sweptCm2',
  'pipeSectionMm2',
] as const satisfies readonly (keyof ComparedMachine)[];

/** A comparison as a CSV table, a machine a row, that no spreadsheet runs anything of. */
export function comparisonCsv({ machines }: Comparison): string {
  const caps = machines[0]?.at.map((a) => a.cap) ?? [];
  const head = ['name', ...caps.flatMap((c) => [`${c} p05`, `${c} p50`, `${c} p95`]), ...BUILT];
  const cell = (x: number | null) => (x === null ? '' : String(rounded(x)));
  const rows = machines.map((m) => [
    safeCell(m.name),
    ...m.at.flatMap((a) => [a.p05, a.p50, a.p95].map(cell)),
    ...BUILT.map((b) => cell(m[b])),
  ]);
  return `${Papa.unparse([head, ...rows], { newline: '\r\n' })}\r\n`;
}
