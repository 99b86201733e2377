/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { NoiseCaps, readLevels } from './NoiseCaps';

test.each([
  ['28 32  36', [28, 32, 36]],
  ['28; 32;36', [28, 32, 36]],
  ['28, 32, 36', [28, 32, 36]],
  ['40,5', [40.5]],
  ['28, 40,5', [28, 40.5]],
  ['28,32,36', [28, 32, 36]],
  ['quiet 30', ['quiet', 30]],
  ['', []],
])('“%s” is read as %j', (text, levels) => expect(readLevels(text)).toEqual(levels));

const saved: unknown[] = [];
const field = () => screen.getByLabelText<HTMLInputElement>('noise caps, dB(A)');
beforeEach(() => {
  saved.length = 0;
  render(<NoiseCaps caps={{ levelsDbA: [28, 36] }} ready save={(caps) => saved.push(caps)} />);
});

test('typed key by key it is saved once, in order, when it is left', async () => {
  const user = userEvent.setup();
  await user.clear(field());
  await user.type(field(), '45 31{Enter}');
  expect(saved).toEqual([{ levelsDbA: [31, 45] }]);
});

test('what cannot be is told with the level that is meant, saved by nothing, and taken back by Escape', async () => {
  const user = userEvent.setup();
  await user.clear(field());
  await user.type(field(), '31 quiet');
  expect(screen.getByRole('alert').textContent).toBe('“quiet” is no level');
  expect(field().getAttribute('aria-invalid')).toBe('true');
  await user.clear(field());
  await user.type(field(), '31 400');
  expect(screen.getByRole('alert').textContent).toMatch(/^400 must/);
  await user.keyboard('{Enter}');
  expect(saved).toEqual([]);
  expect(field().value).toBe('31 400');
  await user.keyboard('{Escape}');
  expect(field().value).toBe('28  36');
});

test('Escape takes back what could have been kept, too', async () => {
  const user = userEvent.setup();
  await user.clear(field());
  await user.type(field(), '33{Escape}');
  expect(saved).toEqual([]);
  expect(field().value).toBe('28  36');
});
