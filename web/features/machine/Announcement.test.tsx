/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import { Announcement } from './Announcement';

const file = { typing: false, stale: false, provisional: false, caps: [36] };
jest.mock('../../documents/record/MachineFile', () => ({ useMachineFile: () => ({ ...file }) }));

const rung = (watts: number) =>
  [
    {
      cap: 36,
      together: {
        watts: watts * 1.1,
        p50: watts,
        held: [
          { limit: 'junction', part: 'gpu', share: 0.7 },
          { limit: 'pipe', part: 'pipe-1', share: 0.3 },
        ],
        binding: { limit: 'junction', part: 'gpu' },
      },
    },
  ] as unknown as Parameters<typeof Announcement>[0]['caps'];

test('the answer is announced once the hand rests and what stands there is computed, and not at first sight', () => {
  const show = (watts: number) => <Announcement caps={rung(watts)} readout="together" />;
  const { rerender } = render(show(80));
  const said = () => screen.getByTestId('announcement').textContent;
  expect(said()).toBe('');
  file.typing = true;
  rerender(show(85));
  expect(said()).toBe('');
  file.typing = false;
  file.stale = true;
  rerender(show(86));
  expect(said()).toBe('');
  file.stale = false;
  file.provisional = true;
  rerender(show(88));
  expect(said()).toBe('');
  file.provisional = false;
  rerender(show(90));
  expect(said()).toBe(
    'together at 36 dB(A): 90 watts, held by GPU junction 7 of 10, pipe-1 running dry 3 of 10',
  );
});
