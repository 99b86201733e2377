/** @jest-environment jsdom */
import { renderHook } from '@testing-library/react';
import { openCase, type CaseRequest } from '@zugluft/core/case/openCase';
import { estimate } from '@zugluft/core/case/estimate';
import { exampleRecord } from '@zugluft/core/test-support/exampleRecord';
import { estimateWithDraws } from '@zugluft/core/uncertainty/estimateWithDraws';
import { useBanded } from './useBanded';

const record = exampleRecord('two-fan-shared-pipes');
const first: CaseRequest = { record, lab: { caps: [36] } };
const second: CaseRequest = {
  record: { ...record, finStacks: record.finStacks!.map((s) => ({ ...s, blockedShare: 0.4 })) },
  lab: { caps: [36] },
};
const plainOf = (request: CaseRequest) => {
  const found = estimate(openCase(request));
  return { estimate: found, outlines: found, request, record: request.record, error: null };
};
const drawsOf = (request: CaseRequest) =>
  estimateWithDraws(openCase(request), { draws: 40, envelopes: false }).summary;

test('no figure before the first draws; then the median, which moves along while the next draws are made', () => {
  const summary = drawsOf(first);
  const { result, rerender } = renderHook((p: Parameters<typeof useBanded>) => useBanded(...p), {
    initialProps: [plainOf(first), { summary: null, error: null }, first],
  });
  expect(result.current.live.estimate).toBeNull();
  expect(result.current.provisional).toBe(true);

  rerender([plainOf(first), { summary, error: null }, first]);
  const own = result.current.live.estimate!.caps[1]!.together;
  expect(result.current.provisional).toBe(false);
  expect(own.p50).toBe(summary.bands[1]!.together!.p50);
  // outlines go through the median on the axis
  const { envelope } = result.current.live.outlines!.caps[1]!;
  expect(envelope[0]!.gpuWatts).toBeCloseTo(summary.bands[1]!.gpuAlone!.p50, 6);

  // typed on: the readouts are new, the draws are not
  rerender([plainOf(second), { summary: null, error: null }, second]);
  const moved = result.current.live.estimate!.caps[1]!.together;
  expect(result.current.provisional).toBe(true);
  expect(moved.watts).toBeLessThan(own.watts);
  expect(moved.p50! / moved.watts).toBeCloseTo(own.p50! / own.watts, 12);
  // what to measure next need not go away meanwhile
  expect(result.current.summary).toBe(summary);

  // draws of another case than the readouts are not theirs
  rerender([plainOf(first), { summary: drawsOf(second), error: null }, second]);
  expect(result.current.provisional).toBe(true);
});

test('where draws cannot be made the central figure is better than none', () => {
  const { result } = renderHook(() =>
    useBanded(plainOf(first), { summary: null, error: 'out of memory' }, first),
  );
  const r = result.current.live.estimate!.caps[1]!.together;
  expect([r.p50, r.watts > 50]).toEqual([null, true]);
});

test('before the first draws stand the bands that are stored of the case', () => {
  const stored = [{ cap: 36 as const, p05: 60, p50: 70, p95: 80 }];
  const { result, rerender } = renderHook((p: Parameters<typeof useBanded>) => useBanded(...p), {
    initialProps: [plainOf(first), { summary: null, error: null }, first, stored],
  });
  expect(result.current.live.estimate!.caps[1]!.together.p50).toBeCloseTo(70, 9);
  expect(result.current.provisional).toBe(true);
  // whoever types before the first draws goes on from them
  rerender([plainOf(second), { summary: null, error: null }, second, null]);
  const typed = result.current.live.estimate!.caps[1]!.together;
  expect(typed.p50! / typed.watts).toBeCloseTo(
    70 / plainOf(first).estimate.caps[1]!.together.watts,
    9,
  );
  // its own draws take their place, also as what later ones start from
  const summary = drawsOf(first);
  rerender([plainOf(first), { summary, error: null }, first, stored]);
  const own = result.current.live.estimate!.caps[1]!.together;
  expect(own.p50).toBe(summary.bands[1]!.together!.p50);
  rerender([plainOf(first), { summary: null, error: null }, second, stored]);
  expect(result.current.live.estimate!.caps[1]!.together.p50).toBeCloseTo(own.p50!, 9);
});
