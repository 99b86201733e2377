import { mean, sampleCorrelation, sampleStandardDeviation } from 'simple-statistics';
import { openCase } from '../case/openCase';
import type { CaseRecord } from '../record/recordSchema';
import { exampleRecord } from '../test-support/exampleRecord';
import { drawFigures, figuresOf } from './drawnFigures';
import { planDraws } from './drawPlan';

const DRAWS = 2000;
const from = (value: number, plusMinus: number, scaleShare: number, photo: string) => ({
  value,
  plusMinus,
  origin: 'photo' as const,
  photo,
  mark: 'm',
  scaleShare,
});

/** Logarithms of two figures over the draws. */
function drawn(record: CaseRecord, paths: readonly string[]): number[][] {
  const plan = planDraws(openCase({ record }), { caps: [36], draws: DRAWS, togetherOnly: true });
  const figures = figuresOf(plan);
  const inputs = plan.columns.flatMap((c) => c.inputs);
  const at = paths.map((path) => inputs.find((i) => i.path === path)!.at[0]!);
  const out: number[][] = paths.map(() => []);
  for (let row = 0; row < DRAWS; row++) {
    drawFigures(plan, row, figures);
    at.forEach((k, i) => out[i]!.push(Math.log(figures.drawn[k]!)));
  }
  return out;
}

const WIDTH = 'finStacks.fins-left.widthMm';
const IMPELLER = 'fans.fan-left.impellerDiameterMm';

function withFigures(width: unknown, impeller: unknown): CaseRecord {
  const base = exampleRecord('two-fan-shared-pipes');
  return {
    ...base,
    finStacks: base.finStacks!.map((s) => (s.id === 'fins-left' ? { ...s, widthMm: width } : s)),
    fans: base.fans!.map((f) => (f.id === 'fan-left' ? { ...f, impellerDiameterMm: impeller } : f)),
  } as CaseRecord;
}

test('two lengths off one photo have its scale in common and each its own clicks', () => {
  const [a, b] = drawn(withFigures(from(70, 1.4, 0.015, 'p1'), from(58, 1.16, 0.015, 'p1')), [
    WIDTH,
    IMPELLER,
  ]) as [number[], number[]];
  // each as wide as its ± says
  expect(sampleStandardDeviation(a)).toBeCloseTo(0.02, 3);
  expect(sampleStandardDeviation(b)).toBeCloseTo(0.02, 3);
  expect(Math.exp(mean(a))).toBeCloseTo(70, 1);
  // by hand: common variance over all of it
  expect(sampleCorrelation(a, b)).toBeCloseTo((0.015 / 0.02) ** 2, 1);
});

test('off two photos they have nothing in common', () => {
  const [a, b] = drawn(withFigures(from(70, 1.4, 0.015, 'p1'), from(58, 1.16, 0.015, 'p2')), [
    WIDTH,
    IMPELLER,
  ]) as [number[], number[]];
  expect(Math.abs(sampleCorrelation(a, b))).toBeLessThan(0.08);
});

test('a scale can be no more of a figure than all of its ±', () => {
  const [a, b] = drawn(withFigures(from(70, 0.7, 0.5, 'p1'), from(58, 0.58, 0.5, 'p1')), [
    WIDTH,
    IMPELLER,
  ]) as [number[], number[]];
  expect(sampleStandardDeviation(a)).toBeCloseTo(0.01, 3);
  expect(sampleCorrelation(a, b)).toBeGreaterThan(0.999);
});
