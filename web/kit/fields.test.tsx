/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useSyncExternalStore } from 'react';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { METRIC } from '@zugluft/core/record/units';
import type { Draft } from '../documents/record/draft';
import { ChoiceInput } from '../documents/record/ChoiceInput';
import { FigureInput } from '../documents/record/FigureInput';
import { RefsInput } from '../documents/record/RefsInput';
import { UnitContext } from './units';

/** A record as the page holds it, checked as it is typed. */
const held = {
  draft: {} as Draft,
  told: new Set<() => void>(),
  change(make: (d: Draft) => Draft) {
    held.draft = make(held.draft);
    for (const tell of held.told) tell();
  },
};
jest.mock('../documents/record/MachineFile', () => ({
  useMachineFile: () => {
    const draft = useSyncExternalStore(
      (tell) => {
        held.told.add(tell);
        return () => held.told.delete(tell);
      },
      () => held.draft,
    );
    const issues = parseRecord(draft).issues;
    return {
      draft,
      change: held.change,
      issueAt: new Map(issues.map((i) => [i.path, i.message])),
      questionAt: new Map(),
      live: {
        estimate: {
          assumed: [{ path: 'finStacks.fins.blockedShare', value: 0.4567, low: 0.3, high: 0.6 }],
        },
      },
    };
  },
}));
// its dialog has photos, which need a server
jest.mock('../documents/record/FigureDetails', () => ({ FigureDetails: () => <p>details</p> }));

beforeEach(() => {
  held.draft = {
    format: 'zugluft-record',
    formatVersion: 1,
    fans: [{ id: 'fan', impellerDiameterMm: { value: 58, plusMinus: 0.5, origin: 'photo' } }],
    finStacks: [{ id: 'fins', fans: ['fan', 'gone'] }],
  };
});
const fan = () => (held.draft['fans'] as Draft[])[0]!;
const figure = (name: string) => <FigureInput path={['fans', 0, name]} label="impeller" />;

test('a figure keeps its ± and origin when a plain number is typed, and shows where it came from', async () => {
  const user = userEvent.setup();
  render(figure('impellerDiameterMm'));
  const field = screen.getByLabelText<HTMLInputElement>('impeller, mm');
  expect(field.value).toBe('58');
  expect(screen.getByLabelText('impeller: photo, ± 0.5')).not.toBeNull();
  // a field that is entered is overtyped
  await user.tab();
  await user.keyboard('60,5');
  expect(fan()['impellerDiameterMm']).toEqual({ value: 60.5, plusMinus: 0.5, origin: 'photo' });
});

test('any unit, ± and origin are read and said at once', async () => {
  const user = userEvent.setup();
  render(figure('impellerDiameterMm'));
  const field = screen.getByLabelText('impeller, mm');
  await user.clear(field);
  await user.type(field, '2.5 in ± 0.1 label');
  expect(screen.getByText(/= 63\.5 mm ± 2\.54, label/)).not.toBeNull();
  expect(fan()['impellerDiameterMm']).toEqual({ value: 63.5, plusMinus: 2.54, origin: 'label' });
});

test('what cannot be stays as typed, with words at the field', async () => {
  const user = userEvent.setup();
  render(figure('impellerDiameterMm'));
  const field = screen.getByLabelText<HTMLInputElement>('impeller, mm');
  await user.clear(field);
  await user.type(field, '-4');
  expect(screen.getByRole('alert').textContent).toMatch(/at least|above/);
  expect(field.getAttribute('aria-invalid')).toBe('true');
  await user.clear(field);
  // emptied it is no figure any more, and what was known of it is gone
  expect(fan()['impellerDiameterMm']).toBeUndefined();
  await user.type(field, 'round');
  expect(screen.getByRole('alert').textContent).toMatch(/number/);
  await user.tab();
  expect(field.value).toBe('round');
  expect(fan()['impellerDiameterMm']).toBe('round');
});

test('an empty figure shows what is assumed for it; units are those one prefers', async () => {
  const { rerender } = render(
    <FigureInput path={['finStacks', 0, 'blockedShare']} label="blocked" />,
  );
  const field = screen.getByLabelText<HTMLInputElement>('blocked, 0–1');
  expect(field.placeholder).toBe('0.457');
  expect(field.title).toBe('assumed, 0.3 to 0.6');
  rerender(
    <UnitContext value={{ units: { ...METRIC, length: 'in' }, choose: () => undefined }}>
      {figure('impellerDiameterMm')}
    </UnitContext>,
  );
  const inches = screen.getByLabelText<HTMLInputElement>('impeller, in');
  expect(Number(inches.value)).toBeCloseTo(58 / 25.4, 4);
  const user = userEvent.setup();
  await user.clear(inches);
  await user.type(inches, '2');
  expect(fan()['impellerDiameterMm']).toBeCloseTo(50.8, 9);
});

test('Ctrl+Enter opens how a figure was found', async () => {
  const user = userEvent.setup();
  render(figure('impellerDiameterMm'));
  await user.tab();
  await user.keyboard('{Control>}{Enter}{/Control}');
  expect(screen.getByText('details')).not.toBeNull();
});

test('a choice can be none; a part that is gone can still be taken off', async () => {
  const user = userEvent.setup();
  render(
    <>
      <ChoiceInput
        path={['fans', 0, 'control']}
        label="control"
        options={['shared', 'own']}
        empty="not recorded"
      />
      <RefsInput path={['finStacks', 0, 'fans']} label="fans" ids={['fan']} />
    </>,
  );
  await user.selectOptions(screen.getByLabelText('control'), 'own');
  expect(fan()['control']).toBe('own');
  await user.selectOptions(screen.getByLabelText('control'), '');
  expect(fan()['control']).toBeUndefined();
  await user.click(screen.getByRole('button', { name: 'gone' }));
  expect((held.draft['finStacks'] as Draft[])[0]!['fans']).toEqual(['fan']);
  expect(screen.queryByRole('button', { name: 'gone' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'fan', pressed: true }));
  expect((held.draft['finStacks'] as Draft[])[0]!['fans']).toEqual([]);
});
