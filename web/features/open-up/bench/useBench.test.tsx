/** @jest-environment jsdom */
import { act, renderHook } from '@testing-library/react';
import { useSyncExternalStore } from 'react';
import { houseRules } from '@zugluft/core/service/houseRules';
import { withLayer } from '@zugluft/core/service/logEdits';
import { EMPTY_LOG, openUpLog, type OpenUpLog } from '@zugluft/core/service/openUpLog';
import { keepPlace, readPlace } from './benchPlace';
import { useBench } from './useBench';

/** A log as the provider would hold it, without a server. */
const held = {
  log: EMPTY_LOG as OpenUpLog,
  past: [] as OpenUpLog[],
  rules: houseRules.parse({}),
  told: new Set<() => void>(),
  set(next: OpenUpLog) {
    held.log = next;
    for (const tell of held.told) tell();
  },
};
const change = (make: (l: OpenUpLog) => OpenUpLog) => {
  held.past.push(held.log);
  held.set(make(held.log));
};
const undo = () => held.set(held.past.pop() ?? held.log);

jest.mock('../../../documents/record/MachineFile', () => ({
  useMachineFile: () => ({ machine: { id: 'm' } }),
}));
jest.mock('../OpenUpLog', () => ({
  useOpenUp: () => ({
    log: useSyncExternalStore(
      (tell) => {
        held.told.add(tell);
        return () => held.told.delete(tell);
      },
      () => held.log,
    ),
    change,
    undo,
    canUndo: held.past.length > 0,
    rules: held.rules,
  }),
}));

const T0 = Date.parse('2026-03-02T10:00:00Z');
const at = (ms: number) => jest.setSystemTime(T0 + ms);

beforeEach(() => {
  jest.useFakeTimers();
  at(0);
  localStorage.clear();
  held.past = [];
  held.log = withLayer(EMPTY_LOG, { widthMm: 340, depthMm: 240 });
});
afterEach(() => jest.useRealTimers());

function open() {
  const { result, unmount } = renderHook(() => useBench());
  const doing = (run: (b: ReturnType<typeof useBench>) => void) => act(() => run(result.current));
  return { b: () => result.current, doing, unmount };
}

test('a step is begun with its clock, its cautions are read, and the next one asks for none of them again', () => {
  const { b, doing } = open();
  expect(b().step).toBeUndefined();
  doing((x) => x.begin('Base cover off', 'cover', 'after'));
  expect(b().step).toMatchObject({ name: 'Base cover off', state: 'planned' });
  expect(b().step!.runningSince).toBe(new Date(T0).toISOString());
  expect(b().unread).toEqual(['static', 'battery', 'seal']);
  doing((x) => x.read());
  expect(b().unread).toEqual([]);
  at(30_000);
  doing((x) => expect(x.end('done')).toBe(false));
  expect(held.log.steps[0]).toMatchObject({ state: 'done', seconds: 30 });
  doing((x) => x.begin('Battery plug out', 'battery', 'after'));
  expect(b().unread).toEqual(['wires-pulled']);
  expect(b().index).toBe(1);
});

test('where one pointed the screw has a place, once; else it is counted; the group stays until the next step', () => {
  const { b, doing } = open();
  doing((x) => x.begin('Base cover off', 'cover', 'after'));
  doing((x) => x.point({ xMm: 12, yMm: 20 }));
  doing((x) => x.take('B'));
  doing((x) => x.take(x.letter));
  expect(held.log.screws.map((s) => [s.xMm, s.out])).toEqual([
    [12, true],
    [undefined, true],
  ]);
  expect(b().letter).toBe('B');
  // from where the last one was on, and not over the rim
  doing((x) => x.nudge(-50, 5));
  doing((x) => x.take('A'));
  expect(held.log.screws[2]).toMatchObject({ xMm: 0, yMm: 25 });
  doing((x) => x.undo());
  expect(held.log.screws).toHaveLength(2);
  doing((x) => x.touch('s1'));
  expect(held.log.screws[0]).toMatchObject({ out: true, back: 'own' });
  doing((x) => x.begin('Battery plug out', 'battery', 'after'));
  expect(b().letter).toBe('A');
  doing((x) => x.before());
  expect(b().letter).toBe('B');
});

test('a step remembered late stands before this one, done, without a clock', () => {
  const { b, doing } = open();
  doing((x) => x.begin('Base cover off', 'cover', 'after'));
  doing((x) => x.begin('Seal looked at', undefined, 'before'));
  expect(held.log.steps.map((s) => [s.name, s.state])).toEqual([
    ['Seal looked at', 'done'],
    ['Base cover off', 'planned'],
  ]);
  expect(b().step!.name).toBe('Seal looked at');
  // its end changes nothing of it and goes on
  doing((x) => expect(x.end('done')).toBe(true));
  expect(b().step!.name).toBe('Base cover off');
});

test('a clock that ran on while the page was closed stops where it was last seen', () => {
  const first = open();
  first.doing((x) => x.begin('Base cover off', 'cover', 'after'));
  act(() => void jest.advanceTimersByTime(20_000));
  first.unmount();
  expect(readPlace('m')!.seenAt).toBe(T0 + 20_000);
  // eight hours later
  at(8 * 3_600_000);
  const { b } = open();
  expect(b().step).toMatchObject({ seconds: 20 });
  expect(b().step!.runningSince).toBeUndefined();
  expect(b().said).toMatch(/stood while this page was away/);
});

test('a short reload lets the clock run, and leads back to the step that one looked at', () => {
  const first = open();
  first.doing((x) => x.begin('Base cover off', 'cover', 'after'));
  first.doing((x) => x.begin('Battery plug out', 'battery', 'after'));
  first.doing((x) => x.before());
  first.unmount();
  at(5000);
  const { b } = open();
  expect(b().step!.name).toBe('Base cover off');
  expect(held.log.steps[1]!.runningSince).toBeDefined();
});

const closed = () =>
  openUpLog.parse({
    ...withLayer(EMPTY_LOG, { widthMm: 340, depthMm: 240 }),
    groups: [{ id: 'a', letter: 'A' }],
    screws: ['s1', 's2'].map((id, i) => ({
      id,
      layer: 'base',
      group: 'a',
      xMm: 100 * i,
      yMm: 10,
      out: true,
    })),
    connectors: [{ id: 'c', name: 'ribbon', release: 'flip-latch', off: true }],
    steps: [
      { id: 'cover', name: 'Base cover off', state: 'done', screws: ['s1', 's2'] },
      { id: 'bat', name: 'Battery plug out', state: 'done', connectors: ['c'] },
    ],
  });

test('the way back: what is open is shown first, Enter once more leaves it, checks come last', () => {
  held.log = closed();
  const { b, doing } = open();
  doing((x) => x.turn('back'));
  expect(b().back!.name).toMatch(/^Battery plug in/);
  doing((x) => x.endBackStep());
  expect(b().sure).toBe(true);
  doing((x) => x.plug());
  expect(b().sure).toBe(false);
  expect(held.log.connectors[0]).toMatchObject({ on: true, latchClosed: true });
  doing((x) => x.endBackStep());
  expect(b().back!.name).toBe('Base cover on');
  expect(b().order).toHaveLength(2);
  doing((x) => x.putBack('A'));
  doing((x) => x.lost());
  expect(held.log.screws.map((s) => s.back).sort()).toEqual(['lost', 'own']);
  doing((x) => x.endBackStep());
  for (let k = 0; k < 3; k++) doing((x) => x.endBackStep());
  expect(b().back).toBeUndefined();
  expect(held.log.checked).toEqual(['first-start', 'clock', 'firmware']);
  doing((x) => x.before());
  expect(b().back!.check).toBe('firmware');
});

test('all of a step at once; touched holes go back; the place is found again after a reload', () => {
  held.log = closed();
  keepPlace('m', { side: 'back', stepId: 'cover', seenAt: T0 });
  const { b, doing } = open();
  expect(b().back!.name).toBe('Base cover on');
  doing((x) => x.touch('s2'));
  expect(held.log.screws[1]!.back).toBe('own');
  doing((x) => x.putAllBack());
  expect(held.log.screws.every((s) => s.back === 'own')).toBe(true);
});
