import { expect, test, type Page } from '@playwright/test';
import { openMachine, watchErrors, watts } from './support';

const numbers = async (page: Page, testId: string) =>
  (await page.getByTestId(testId).locator('td').allTextContents()).map((t) =>
    Number(t.replace('−', '-').replace(/[^0-9.-]/g, '')),
  );

test('bands appear by themselves, a finer one is made and cancelled by key', async ({ page }) => {
  const errors = watchErrors(page);
  await openMachine(page, 'Studio, 8-core');
  const status = page.getByTestId('draw-status');
  await expect(status).toContainText('5–95 % of 400 draws');
  const rung = page.locator('li[data-cap="36"]');
  await expect(rung).toContainText(/\d+ to \d+ W · \d+ CPU \+ \d+ GPU · GPU junction/);
  const [low, high] = /(\d+) to (\d+) W/
    .exec((await rung.textContent())!)!
    .slice(1)
    .map(Number);
  const middle = await watts(page, '36');
  expect(low!).toBeLessThan(middle);
  expect(high!).toBeGreaterThan(middle);
  await page.keyboard.press('b');
  await expect(status).toContainText(/of 4000 draws/);
  await page.keyboard.press('b');
  await expect(status).toContainText('5–95 % of 400 draws');
  await expect(page.getByRole('region', { name: 'measure next' })).toContainText(
    /± [\d.]+ → [\d.]+ W/,
  );
  // what is typed moves the band along until its own is made
  await page.getByRole('tab', { name: 'Fans' }).click();
  await page.getByLabel('fan-left, maximum, rpm').fill('4700');
  await expect(status).toContainText('5–95 % of 400 draws');
  await page.keyboard.press('Control+z');
  expect(errors).toEqual([]);
});

test('the other way round: how quiet the machine can be at watts that are wanted', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openMachine(page, 'Studio, 8-core');
  const quiet = page.getByTestId('quiet-for');
  await expect(quiet).toHaveText(
    /^need about \d+ dB\(A\) \(\d+ dB\(A\) to (\d+ dB\(A\)|out of reach)\)\.$/,
  );
  const levelOf = async () => Number(/about (\d+)/.exec((await quiet.textContent())!)![1]);
  const wanted = page.getByLabel('watts wanted, W');
  await wanted.fill('70');
  await expect.poll(levelOf).toBeLessThan(33);
  await wanted.fill('5');
  await expect(quiet).toContainText('fans off');
  await wanted.fill('300');
  await expect(quiet).toContainText('out of reach in 10 of 10 draws');
  await wanted.fill('much');
  await expect(page.getByText('watts above 0 and up to')).toBeVisible();
  await wanted.fill('');
  // another ratio than the setting's
  const before = await watts(page, '36');
  const ratio = page.getByLabel('CPU to GPU as');
  await ratio.fill('1:');
  await expect(page.getByText('two figures above 0')).toBeVisible();
  await ratio.fill('1 : 20');
  await page.keyboard.press('Enter');
  await expect(page.locator('li[data-cap="36"]')).toContainText(
    /\d W · 3\.\d CPU \+ \d+ GPU|\d W · 4\.\d CPU \+ \d+ GPU/,
  );
  expect(await watts(page, '36')).toBeLessThan(before);
  await page.getByRole('button', { name: /chosen here; back to 54 : 90/ }).click();
  await expect.poll(() => watts(page, '36')).toBe(before);
  expect(errors).toEqual([]);
});

test('where the kelvins go adds up to the junction, and what would be next is named', async ({
  page,
}) => {
  await openMachine(page, 'thick and quiet');
  await page.keyboard.press('e');
  const chain = page.getByTestId('chain-cpu');
  await expect(chain).toContainText('Interface material');
  const cells = (await numbers(page, 'chain-cpu')).filter((_, i) => i % 2 === 0);
  const junction = cells.pop()!;
  const sum = cells.reduce((a, b) => a + b, 0);
  expect(Math.abs(sum - junction)).toBeLessThan(0.6);
  await expect(page.getByTestId('limits-ahead').getByRole('row').first()).toContainText(
    /junction *\+ \d+ W/,
  );
  await expect(page.getByTestId('limits-set')).toContainText('firmware limit, CPU');
  await page.keyboard.press('d');
  await expect(page.getByTestId('chain-gpu')).toBeVisible();
  await page.keyboard.press('r');
  // which of its limits is nearest depends on where the pointer rests on the chart
  await expect(page.getByRole('row', { name: /Load of pipe-1/ })).toContainText(
    /\d+ % *of (capillary|boiling)/,
  );
});

test('a lab’s own default is refused in words, kept, used by every estimate, and given back', async ({
  page,
}) => {
  await openMachine(page, 'separate loops');
  const before = await watts(page, 'full');
  const machine = page.url();
  await page.keyboard.press('m');
  await expect(page.getByRole('heading', { name: 'Method', exact: true })).toBeVisible();
  await expect(page.locator('.katex').first()).toBeVisible();
  // typed as fast as it goes, no letter is lost
  const search = page.getByRole('searchbox', { name: 'search the method' });
  await search.pressSequentially('uneven flow');
  await expect(search).toHaveValue('uneven flow');
  await expect(page).toHaveURL(/find=uneven(\+|%20)flow$/);
  await expect(page).toHaveURL(/find=uneven/);
  await page.getByRole('button', { name: 'uneven flow and fin joints, on UA' }).click();
  const value = page.getByLabel('uneven flow and fin joints, on UA, value');
  const use = page.getByRole('button', { name: 'Use this' });
  await value.fill('1.4');
  await expect(page.getByRole('alert').filter({ hasText: 'between 0 and 1' })).toBeVisible();
  await expect(use).toBeDisabled();
  await value.fill('much');
  await expect(page.getByRole('alert').filter({ hasText: '“much” is not a number' })).toBeVisible();
  await value.fill('0,55');
  await page
    .getByLabel('uneven flow and fin joints, on UA, where from')
    .fill('own duct, six stacks');
  await use.click();
  const row = page.locator('[data-default="finStacks.uaFactor"]');
  await expect(row).toContainText('own 0.55');
  await expect(row).toContainText('own duct, six stacks');
  await page.goto(machine);
  await expect.poll(() => watts(page, 'full')).toBeLessThan(before - 2);
  await page.goto('/method?find=finStacks.uaFactor');
  await page.getByRole('button', { name: 'uneven flow and fin joints, on UA' }).click();
  await page.getByRole('button', { name: 'Back to 0.7' }).click();
  await expect(row).not.toContainText('own');
  await page.goto(machine);
  await expect.poll(() => watts(page, 'full')).toBe(before);
});

test('a strip is computed in both its states', async ({ page }) => {
  await openMachine(page, 'intake behind');
  await page.getByRole('tab', { name: 'Strips' }).click();
  const strips = page.getByRole('region', { name: 'strips in both states' });
  if ((await page.getByRole('tab', { name: /Strips 0/ }).count()) > 0) {
    await page.getByRole('button', { name: 'add a strip' }).click();
    await page.getByLabel('strip-1, at').selectOption('fins-left');
    await page.getByLabel('strip-1, covers').fill('0.4');
  }
  await expect(strips).toContainText(/present \d+ W\s*removed \d+ W/);
});

test('a machine with one die shows why at each cap', async ({ page }) => {
  await openMachine(page, 'one thin fan');
  await page.keyboard.press('e');
  const chain = page.getByTestId('chain-cpu');
  await expect(chain).toContainText('Fins to air');
  await expect(page.getByTestId('limits-ahead').getByRole('row').first()).toContainText('binds');
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowUp');
  await expect(chain).toContainText('Shell to room');
  await expect(page.getByRole('complementary', { name: 'at the chosen cap' })).toContainText(
    'fans off',
  );
});

test('over time: the firmware’s later limit cuts in, and the marked point is read at every cap', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openMachine(page, 'first firmware');
  await page.keyboard.press('e');
  await expect(page.getByTestId('marked-watts')).toBeVisible();
  await page.keyboard.press('w');
  await expect(page.getByText(/later limit of CPU cuts in/)).toBeVisible();
  await expect(page.locator('canvas').first()).toBeVisible();
  await expect(page.getByTestId('steady-skin')).toHaveText(/^\d+ °C$/);
  // without fans the skin passes its limit, which this setting does not say is held
  await page.getByLabel('fans').selectOption('off');
  await expect(page.getByTestId('skin-left-out')).toContainText('skin limit of 48 °C is left out');
  await page.locator('body').click({ position: { x: 640, y: 20 } });
  await page.keyboard.press('w');
  await expect(page.getByTestId('marked-watts')).toBeVisible();
  const first = await page.getByTestId('marked-watts').textContent();
  for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowUp');
  await expect(page.getByTestId('marked-watts')).not.toHaveText(first!);
  expect(errors).toEqual([]);
});
