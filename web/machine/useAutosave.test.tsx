/** @jest-environment jsdom */
import { act, renderHook } from '@testing-library/react';
import { HttpProblem } from '../api/http';
import type { Machine } from '../api/machines';
import { readDraft } from './storedDraft';
import { lastSave, useAutosave } from './useAutosave';

const server = { revision: 1, record: {} as object, away: false, status: 0, writes: 0 };
jest.mock('../api/machines', () => ({
  saveMachine: async (id: string, seen: number, record: object) => {
    if (server.away) throw new HttpProblem(0, 'the server does not answer');
    if (server.status) throw new HttpProblem(server.status, 'refused');
    if (seen !== server.revision) {
      throw new HttpProblem(412, 'changed', { current: machine() });
    }
    server.record = record;
    server.revision++;
    server.writes++;
    return machine(id);
  },
}));
function machine(id = 'm'): Machine {
  const { revision, record } = server;
  return { id, revision, record, updatedAt: '2026-03-02T10:00:00.000Z' } as unknown as Machine;
}

const pass = (ms: number) => act(() => jest.advanceTimersByTimeAsync(ms));
beforeEach(() => {
  jest.useFakeTimers();
  localStorage.clear();
  Object.assign(server, { revision: 1, record: {}, away: false, status: 0, writes: 0 });
});
afterEach(() => jest.useRealTimers());

function open(startConflict = false) {
  const base = machine();
  const onSaved = jest.fn();
  const { result, rerender, unmount } = renderHook(
    ({ draft, keepable }: { draft: object; keepable: boolean }) =>
      useAutosave(base, draft as never, keepable, startConflict, onSaved),
    { initialProps: { draft: base.record as object, keepable: true } },
  );
  return {
    type: (draft: object, keepable = true) => rerender({ draft, keepable }),
    state: () => result.current.state,
    result,
    onSaved,
    unmount,
  };
}

test('kept here at once, sent after a pause, once', async () => {
  const { type, state, onSaved } = open();
  type({ a: 1 });
  type({ a: 2 });
  expect(readDraft('m')).toMatchObject({ baseRevision: 1, record: { a: 2 } });
  await pass(600);
  expect(server).toMatchObject({ record: { a: 2 }, writes: 1 });
  expect(state()).toMatchObject({ kind: 'saved', revision: 2 });
  expect(onSaved).toHaveBeenCalledTimes(1);
  expect(readDraft('m')).toBeNull();
});

test('what the server would refuse is held here until mended', async () => {
  const { type, state } = open();
  type({ a: -1 }, false);
  await pass(5000);
  expect(state().kind).toBe('held');
  expect(server.writes).toBe(0);
  expect(readDraft('m')).toMatchObject({ record: { a: -1 } });
  type({ a: 1 });
  await pass(600);
  expect(server.record).toEqual({ a: 1 });
});

test('while the server is away it is tried again with what stands there by then', async () => {
  const { type, state } = open();
  server.away = true;
  type({ a: 1 });
  await pass(600);
  expect(state().kind).toBe('away');
  type({ a: 2 });
  await pass(4000);
  server.away = false;
  await pass(4000);
  expect(server).toMatchObject({ record: { a: 2 }, writes: 1 });
  expect(state().kind).toBe('saved');
});

test('another window’s version is shown for choosing, never written over unseen', async () => {
  const { type, state, result } = open();
  server.revision = 5;
  server.record = { theirs: true };
  type({ mine: true });
  await pass(600);
  expect(state()).toMatchObject({ kind: 'conflict', current: { revision: 5 } });
  type({ mine: 2 });
  await pass(5000);
  expect(server.record).toEqual({ theirs: true });
  act(() => result.current.overwrite());
  await pass(1000);
  expect(server).toMatchObject({ record: { mine: 2 }, revision: 6 });
});

test('a draft that is older than the server’s version opens as a conflict', async () => {
  const { type, state, result } = open(true);
  expect(state().kind).toBe('conflict');
  type({ a: 1 });
  await pass(3000);
  expect(server.writes).toBe(0);
  // the page takes the other version
  const theirs = machine();
  act(() => result.current.settled(theirs));
  type(theirs.record);
  expect(state().kind).toBe('saved');
  expect(readDraft('m')).toBeNull();
});

test('a page that is left sends at once; whoever opens the machine next waits for that', async () => {
  const { type, unmount } = open();
  type({ a: 1 });
  unmount();
  await lastSave('m');
  expect(server.record).toEqual({ a: 1 });
});

test('a refusal is said with its words', async () => {
  const { type, state } = open();
  server.status = 400;
  type({ a: 1 });
  await pass(600);
  expect(state()).toEqual({ kind: 'failed', message: 'refused' });
  expect(readDraft('m')).not.toBeNull();
});
