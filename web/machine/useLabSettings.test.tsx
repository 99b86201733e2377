/** @jest-environment jsdom */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { DEFAULT_RULES } from '@zugluft/core/service/houseRules';
import type { LabSettings } from '../api/settings';
import { useLabSettings } from './useLabSettings';

const server = { settings: {} as LabSettings, away: false, refuse: false };
jest.mock('../api/settings', () => ({
  settingsKey: ['settings'],
  readSettings: async () => {
    if (server.away) throw new Error('away');
    return server.settings;
  },
  saveSetting: async (key: keyof LabSettings, value: never) => {
    if (server.refuse) throw new Error('refused');
    server.settings = { ...server.settings, [key]: value };
    return server.settings;
  },
}));

function open() {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  );
  return renderHook(() => useLabSettings(), { wrapper }).result;
}
beforeEach(() => {
  const taken = { ...DEFAULT_RULES, battery: 'take-out' as const };
  Object.assign(server, {
    settings: { 'house-rules': taken, rubric: {} },
    away: false,
    refuse: false,
  });
});

test('the lab’s own rules; built in while the server is away', async () => {
  const b = open();
  expect(b.current.settings['house-rules']).toEqual(DEFAULT_RULES);
  await waitFor(() => expect(b.current.settings['house-rules'].battery).toBe('take-out'));
  server.away = true;
  const other = open();
  await waitFor(() => expect(other.current.loading).toBe(false));
  expect(other.current.settings['house-rules']).toEqual(DEFAULT_RULES);
});

test('a change shows at once, and is taken back where the server refuses it', async () => {
  const b = open();
  // before the lab's own are known nothing is written over them
  act(() => b.current.save('rubric', { slots: { best: 1, worst: 2, weight: 1 } }));
  await waitFor(() => expect(b.current.ready).toBe(true));
  expect(server.settings.rubric).toEqual({});
  act(() => b.current.save('house-rules', { ...DEFAULT_RULES, lever: 'thin-metal' }));
  await waitFor(() => expect(b.current.settings['house-rules'].lever).toBe('thin-metal'));
  expect(server.settings['house-rules'].lever).toBe('thin-metal');
  server.refuse = true;
  act(() => b.current.save('house-rules', DEFAULT_RULES));
  await waitFor(() => expect(b.current.error?.message).toBe('refused'));
  await waitFor(() => expect(b.current.settings['house-rules'].lever).toBe('thin-metal'));
});
