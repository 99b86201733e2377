/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import { backTogether } from '@zugluft/core/service/backTogether';
import {
  addNote,
  liftStrip,
  putElsewhere,
  stamp,
  takeOne,
  takePart,
  unplugOne,
} from '@zugluft/core/service/benchEdits';
import { cautionsOf } from '@zugluft/core/service/cautions';
import { DEFAULT_RULES, rulesAt } from '@zugluft/core/service/houseRules';
import { addStep, editGroup, editScrew, editStep, withLayer } from '@zugluft/core/service/logEdits';
import { EMPTY_LOG, type OpenUpLog } from '@zugluft/core/service/openUpLog';
import { BackView } from './BackView';
import { EndView } from './EndView';
import { OpenView } from './OpenView';
import type { Bench } from './useBench';

const T0 = Date.parse('2026-03-02T10:00:00Z');

/** A cover with three A, one of them missing before, one B only counted, a ribbon, a fan, two strips and a note. */
function opened(): OpenUpLog {
  let log = withLayer(EMPTY_LOG, { widthMm: 340, depthMm: 240 });
  log = addStep(log, 'Base cover off', undefined, { state: 'planned' });
  for (const xMm of [10, 170, 330]) log = takeOne(log, 'step1', 'A', 'base', { xMm, yMm: 10 });
  log = editScrew(log, log.screws.at(-1)!.id, { onArrival: 'missing', out: false });
  log = takeOne(log, 'step1', 'B', 'base', null);
  log = editGroup(log, log.groups[0]!.id, { thread: 'M2', lengthMm: 5 });
  log = unplugOne(log, 'step1', 'flip-latch', 'base');
  log = takePart(log, 'step1', 'fan', 'base');
  log = liftStrip(liftStrip(log, 'step1', 'duct-seal', 'base'), 'step1', 'unknown', 'base');
  log = addNote(stamp(log, 'step1', 'x', T0), 'step1', 'hook bent');
  return editStep(log, 'step1', { posture: 'lid-at-right-angle', seconds: 65 });
}

function benchOf(log: OpenUpLog, more: Partial<Bench> = {}): Bench {
  const step = log.steps[0];
  const cautions = step ? cautionsOf(step) : [];
  const way = backTogether(log);
  return {
    log,
    step,
    index: 0,
    cautions,
    unread: cautions.filter((c) => !log.acknowledged.includes(c)),
    house: rulesAt('cover', DEFAULT_RULES),
    way,
    back: way[0],
    backIndex: 0,
    sure: false,
    ...more,
  } as Bench;
}
const text = (testId: string) => screen.getByTestId(testId).textContent;

test('the opening’s step: what is out, missing, counted, unplugged, lifted or left, and its time', () => {
  render(<OpenView bench={benchOf(opened())} photos={2} />);
  expect(text('bench-step')).toBe('Base cover off');
  expect(screen.getByText(/lid at a right angle/)).not.toBeNull();
  expect(text('bench-clock')).toMatch(/^1:05 stands/);
  const [a, b] = screen.getByTestId('bench-groups').children;
  expect(a!.textContent).toMatch(/2 out, 1 missing on arrival M2 × 5 mm$/);
  expect(b!.textContent).toMatch(/1 out, 1 not on the map/);
  const logged = text('bench-logged')!;
  for (const words of [
    'connector 1 off: flip the latch first',
    'fan out',
    'strip 1: duct seal, lifted',
    'strip 2: unknown, stays',
    '2 photos',
    'hook bent',
  ]) {
    expect(logged).toContain(words);
  }
});

test('cautions stand large until they are read, and quietly after', () => {
  const log = opened();
  const { rerender } = render(<OpenView bench={benchOf(log)} photos={0} />);
  expect(screen.getByRole('alert').textContent).toContain('Enter: read and understood');
  rerender(
    <OpenView bench={benchOf({ ...log, acknowledged: ['static', 'battery'] })} photos={0} />,
  );
  expect(screen.queryByRole('alert')).toBeNull();
  expect(text('bench-cautions')).toContain('Lithium battery');
});

test('with nothing logged it asks for the first step', () => {
  render(<OpenView bench={benchOf(EMPTY_LOG)} photos={0} />);
  expect(screen.getByText(/Say what comes first/)).not.toBeNull();
});

test('the way back: counts, order, latches, strips, and what is still open', () => {
  const log = editStep(opened(), 'step1', { state: 'done' });
  const { rerender } = render(<BackView bench={benchOf(editScrew(log, 's1', { back: 'own' }))} />);
  expect(text('bench-step')).toBe('Base cover on');
  const counts = [...screen.getByTestId('bench-groups').children].map((c) => c.textContent);
  expect(counts.some((c) => /1 of 2 back/.test(c!))).toBe(true);
  expect(counts.some((c) => /0 of 1 back/.test(c!))).toBe(true);
  expect(text('bench-connectors')).toBe('○ connector 1, close its latch');
  expect(screen.getByText('strip 1 back in its place')).not.toBeNull();
  expect(screen.queryByText(/strip 2/)).toBeNull();
  expect(screen.queryByTestId('bench-open')).toBeNull();
  rerender(<BackView bench={benchOf(log, { sure: true })} />);
  expect(text('bench-open')).toMatch(/A s2.*A s1.*B s4.*connector 1/);
  rerender(<BackView bench={benchOf(putElsewhere(log, 's1', 's4'))} />);
  expect(screen.getByText(/s4 now takes a screw from elsewhere/)).not.toBeNull();
});

test('a check comes without screws, the firmware’s with its caution', () => {
  const log = editStep(opened(), 'step1', { state: 'done' });
  const back = backTogether(log).find((b) => b.check === 'firmware')!;
  render(<BackView bench={benchOf(log, { back })} />);
  expect(text('bench-step')).toMatch(/firmware’s settings/);
  expect(screen.queryByTestId('bench-groups')).toBeNull();
  expect(screen.getByText(/beyond the maker’s settings/)).not.toBeNull();
});

test('the end names what lies on the bench, plugs and strips, apart from what was missing before', () => {
  render(<EndView bench={benchOf(opened())} />);
  expect(text('balance-words')).toBe(
    'A: 2 on the bench; A: open s1, s2. B: 1 on the bench; B: open s4',
  );
  expect(screen.getByText(/Not plugged in again: connector 1/)).not.toBeNull();
  expect(screen.getByText(/Not back in its place: strip 1\./)).not.toBeNull();
});
