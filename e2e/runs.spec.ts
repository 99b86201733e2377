import { expect, test } from '@playwright/test';
import { openMachine, watchErrors } from './support';

test('a run from its sheet to what was sustained, with a log of the load and one of the level', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openMachine(page, 'Studio, 8-core');
  await page.keyboard.press('g');
  await expect(page).toHaveURL(/\/runs$/);
  await expect(page.getByRole('button', { name: /new run/ })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('region', { name: 'sheet of the run' })).toBeVisible();
  await page.getByLabel('background').fill('19');
  await page.getByLabel('name').fill('both, 41 dB');
  await expect(page.getByRole('navigation', { name: 'runs' })).toContainText('both, 41 dB');
  await page
    .getByLabel('logs of this run')
    .setInputFiles(['examples/load-two-fans.csv', 'examples/level-two-fans.csv']);
  const says = page.getByRole('region', { name: 'what the logs say' });
  await expect(says.getByTestId('run-sustained')).toHaveText(/48 W CPU 57 W GPU/);
  await expect(says).toContainText(/at 41\.0 ± 0\.5 dB\(A\), background 19 taken off/);
  await expect(says).toContainText('short-term limit of CPU ends');
  await expect(says.getByTestId('run-against')).toContainText(
    /W measured, (inside|outside) its band/,
  );
  await expect(page.getByTestId('run-chart').locator('canvas')).toBeVisible();
  // what it is for, by one key
  const tab = page
    .getByRole('navigation', { name: 'runs' })
    .getByRole('button', { name: /both, 41 dB/ });
  await expect(tab).toContainText('fit');
  await page.keyboard.press('v');
  await expect(tab).toContainText('hold out');
  // it stands there after a reload
  await page.reload();
  await expect(page.getByTestId('run-sustained')).toHaveText(/48 W CPU/);
  expect(errors).toEqual([]);
});

test('a log that cannot be read says where, and nothing of the run is lost', async ({ page }) => {
  const errors = watchErrors(page);
  await openMachine(page, 'Studio, 8-core');
  await page.keyboard.press('g');
  await expect(page.getByRole('button', { name: /new run/ })).toBeVisible();
  await page.keyboard.press('n');
  await page.getByLabel('firmware').fill('1.04');
  const text = 'Time [s],CPU power [W]\n0,45\n5,46\n3,47\n';
  await page
    .getByLabel('logs of this run')
    .setInputFiles({ name: 'bad.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await expect(page.getByRole('alert')).toContainText(
    'bad.csv:row 4:column 1: its time lies before the one above it',
  );
  await expect(page.getByLabel('firmware')).toHaveValue('1.04');
  await expect(page.getByText('no log yet')).toBeVisible();
  expect(errors.filter((e) => !e.includes('422'))).toEqual([]);
});
