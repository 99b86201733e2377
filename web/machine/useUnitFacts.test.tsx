/** @jest-environment jsdom */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook } from '@testing-library/react';
import type { ReactNode } from 'react';
import type { UnitFacts } from '@zugluft/core/family/unitFacts';
import { HttpProblem } from '../api/http';
import type { Machine, Unit } from '../api/machines';
import { useUnitFacts } from './useUnitFacts';

const server = { revision: 1, facts: {} as UnitFacts, away: false, writes: 0 };
jest.mock('../api/families', () => ({
  saveUnit: async (_: string, seen: number, facts: UnitFacts): Promise<Unit> => {
    if (server.away) throw new HttpProblem(0, 'away');
    if (seen !== server.revision) {
      throw new HttpProblem(412, 'changed', { current: unit() });
    }
    Object.assign(server, { facts, revision: seen + 1, writes: server.writes + 1 });
    return unit();
  },
}));
let id = 0;
const unit = (): Unit => ({ id: `u${id}`, revision: server.revision, facts: server.facts });

const client = new QueryClient();
const wrapper = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={client}>{children}</QueryClientProvider>
);
const pass = (ms: number) => act(() => jest.advanceTimersByTimeAsync(ms));
const open = () => {
  const { result, unmount } = renderHook(() => useUnitFacts('m', unit()), { wrapper });
  const type = (field: keyof UnitFacts, text: string) => act(() => result.current.set(field, text));
  return { b: () => result.current, type, unmount };
};

beforeEach(() => {
  jest.useFakeTimers();
  localStorage.clear();
  // what one window sent of a unit is remembered: each test has a unit of its own
  id++;
  Object.assign(server, { revision: 1, facts: {}, away: false, writes: 0 });
  client.setQueryData(['machines', 'one', 'm'], { id: 'm' });
});
afterEach(() => jest.useRealTimers());

test('a fact is kept and sent, an emptied one is gone, and the machine on the page knows', async () => {
  const { b, type } = open();
  type('serial', 'FS-1');
  type('source', 'lent');
  expect(b().saving.kind).toBe('saving');
  await pass(600);
  expect(server).toMatchObject({ facts: { serial: 'FS-1', source: 'lent' }, writes: 1 });
  type('source', '');
  await pass(600);
  expect(JSON.parse(JSON.stringify(server.facts))).toEqual({ serial: 'FS-1' });
  const known = client.getQueriesData<Machine>({ queryKey: ['machines'] });
  expect(known.some(([, m]) => m?.unit?.revision === 3)).toBe(true);
});

test('a fact that the server would refuse is said at its field and held here', async () => {
  const { b, type } = open();
  type('receivedOn', 'yesterday');
  await pass(3000);
  expect(b().issues.get('receivedOn')).toBeDefined();
  expect(b().saving.kind).toBe('held');
  expect(server.writes).toBe(0);
  type('receivedOn', '2026-03-02');
  await pass(600);
  expect(b().issues.size).toBe(0);
  expect(server.facts.receivedOn).toBe('2026-03-02');
});

test('what an earlier version of the page kept is still sent', async () => {
  localStorage.setItem(
    `zugluft.unit.u${id}`,
    JSON.stringify({ revision: 1, facts: { serial: 'FS-9' } }),
  );
  const { b } = open();
  expect(b().facts.serial).toBe('FS-9');
  await pass(100);
  expect(server.facts).toEqual({ serial: 'FS-9' });
});

test('in a conflict one chooses; the other version is shown at once', async () => {
  const { b, type } = open();
  Object.assign(server, { revision: 4, facts: { serial: 'theirs' } });
  type('serial', 'mine');
  await pass(600);
  expect(b().saving.kind).toBe('conflict');
  act(() => b().takeTheirs());
  expect(b().facts).toEqual({ serial: 'theirs' });
  expect(b().saving.kind).toBe('saved');
  type('serial', 'mine again');
  await pass(600);
  expect(server).toMatchObject({ revision: 5, facts: { serial: 'mine again' } });
});

test('a step that is left while the server is away goes on sending', async () => {
  const { type, unmount } = open();
  server.away = true;
  type('serial', 'FS-2');
  unmount();
  await pass(1000);
  server.away = false;
  await pass(4000);
  expect(server.facts).toEqual({ serial: 'FS-2' });
  expect(localStorage.getItem(`zugluft.unit.u${id}`)).toBeNull();
});
