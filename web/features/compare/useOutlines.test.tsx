/** @jest-environment jsdom */
import { renderHook, waitFor } from '@testing-library/react';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import { useOutlines } from './useOutlines';

const asked = jest.fn();
jest.mock('../../documents/answer/workers/estimateClient', () => ({
  estimateWorker: () => ({ outline: asked }),
}));

const machine = (name: string) => ({ name, place: 0, request: { name } as unknown as CaseRequest });
const [a, b, broken] = [machine('a'), machine('b'), machine('broken')];
const hook = (machines: (typeof a)[], cap = 36) =>
  renderHook(([list, at]: [(typeof a)[], number]) => useOutlines(list, at), {
    initialProps: [machines, cap],
  });
beforeEach(() => {
  asked.mockReset();
  asked.mockImplementation(async ({ name }: { name: string }, cap: number) => {
    if (name === 'broken') throw new Error('no air moves');
    return [{ cpuWatts: cap, gpuWatts: 0, edge: null }];
  });
});

test('one that cannot be made is named and holds up no other; left out it is named no more', async () => {
  const { result, rerender } = hook([a, broken, b]);
  await waitFor(() => expect(result.current.outlines.map((o) => o.name)).toEqual(['a', 'b']));
  expect(result.current.problems).toEqual([{ name: 'broken', problem: 'no air moves' }]);
  rerender([[a, b], 36]);
  expect(result.current.problems).toEqual([]);
  expect(asked).toHaveBeenCalledTimes(3);
});

test('what is there is not made again; at another cap each is made anew, and none of the cap before is shown', async () => {
  const { result, rerender } = hook([a]);
  await waitFor(() => expect(result.current.outlines).toHaveLength(1));
  rerender([[b, a], 36]);
  await waitFor(() => expect(result.current.outlines.map((o) => o.name)).toEqual(['b', 'a']));
  expect(asked).toHaveBeenCalledTimes(2);
  rerender([[b, a], 40]);
  expect(result.current.outlines).toEqual([]);
  await waitFor(() =>
    expect(result.current.outlines.map((o) => o.corners[0]!.cpuWatts)).toEqual([40, 40]),
  );
});
