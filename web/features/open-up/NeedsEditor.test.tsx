/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { addStep, editStep } from '@zugluft/core/service/logEdits';
import { EMPTY_LOG } from '@zugluft/core/service/openUpLog';
import { NeedsEditor } from './NeedsEditor';

const three = ['Cover', 'Battery', 'Hatch', 'Card'].reduce((l, n) => addStep(l, n), EMPTY_LOG);

function Editor({ told }: { told: (needs: unknown) => void }) {
  const [log, setLog] = useState(editStep(three, 'step4', { needs: ['step2'] }));
  return (
    <NeedsEditor
      log={log}
      step={log.steps[3]!}
      set={(needs) => {
        told(needs);
        setLog(editStep(log, 'step4', { needs }));
      }}
    />
  );
}

test('a need gets an alternative, another need, and loses them again', async () => {
  const told = jest.fn();
  const user = userEvent.setup();
  render(<Editor told={told} />);
  await user.selectOptions(screen.getByLabelText('or another step instead of Battery'), 'step3');
  expect(told).toHaveBeenLastCalledWith([['step2', 'step3']]);
  await user.selectOptions(screen.getByLabelText('needs one more step'), 'step1');
  expect(told).toHaveBeenLastCalledWith([['step2', 'step3'], 'step1']);
  // all are used: nothing more can be added
  expect(screen.queryByLabelText('needs one more step')).toBeNull();
  await user.click(screen.getByRole('button', { name: 'does not need Battery' }));
  expect(told).toHaveBeenLastCalledWith(['step3', 'step1']);
  await user.click(screen.getByRole('button', { name: 'does not need Hatch' }));
  expect(told).toHaveBeenLastCalledWith(['step1']);
});

test('a need that is gone from the log is named as such', () => {
  const log = editStep(three, 'step4', { needs: ['step9'] });
  render(<NeedsEditor log={log} step={log.steps[3]!} set={() => undefined} />);
  expect(screen.getByText(/step9, gone/)).not.toBeNull();
});
