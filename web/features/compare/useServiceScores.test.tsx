/** @jest-environment jsdom */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { useServiceScores } from './useServiceScores';

const settings = { rubric: { weight: 1 } };
jest.mock('../../documents/useLaboratory', () => ({
  useLabSettings: () => ({ settings, ready: true }),
}));
jest.mock('../../api/openUp', () => ({
  readLog: async (id: string) => {
    if (id === 'broken') throw new Error('not readable');
    return { log: { points: id.length } };
  },
}));
jest.mock('../../documents/answer/workers/wayClient', () => ({
  wayWorker: () => ({
    serviceScore: async (log: { points: number }, rubric: { weight: number }) => ({
      agreed: log.points * rubric.weight,
      computed: -1,
    }),
  }),
}));

const wrapper = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={client}>{children}</QueryClientProvider>
);
let client: QueryClient;
beforeEach(() => (client = new QueryClient()));
afterEach(() => client.clear());

test('each by the rubric of now, as the team agreed to it; another rubric scores them anew; one that cannot be read has none', async () => {
  const ids = ['a', 'bbb', 'broken'];
  const { result, rerender } = renderHook(() => useServiceScores(ids), { wrapper });
  await waitFor(() => expect(result.current).toEqual({ a: 1, bbb: 3, broken: null }));
  const same = result.current;
  rerender();
  // else every chart of the page would be drawn again with each key
  expect(result.current).toBe(same);
  settings.rubric = { weight: 2 };
  rerender();
  await waitFor(() => expect(result.current).toEqual({ a: 2, bbb: 6, broken: null }));
});
