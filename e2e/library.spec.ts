import { expect, test } from '@playwright/test';
import { openMachine, openParts, saved, watchErrors } from './support';

test('the library searches, sorts, keeps its view in the address bar, puts aside and back', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/library');
  const rows = page.getByTestId('library').getByTestId('rows').locator('tr');
  await expect.poll(() => rows.count()).toBeGreaterThanOrEqual(8);
  await page.getByRole('button', { name: /mass/ }).click();
  await page.getByRole('button', { name: /mass/ }).click();
  await expect(page).toHaveURL(/sort=-massKg|sort=massKg/);
  await page.getByRole('searchbox').fill('quill one thin');
  await expect(rows).toHaveCount(1);
  await expect(page).toHaveURL(/q=quill/);
  await page.reload();
  await expect(rows).toHaveCount(1);
  await page.getByRole('button', { name: /^put aside Velmara/ }).click();
  await expect(page.getByText('No machine has these words.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rows).toHaveCount(1);
  await page.getByRole('searchbox').fill('<script>%_\'"');
  await expect(page.getByText('No machine has these words.')).toBeVisible();
  expect(errors).toEqual([]);
});

test('keys: sheet, palette, steps', async ({ page }) => {
  await openMachine(page, 'Expedition');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('o');
  await expect(page).toHaveURL(/outside$/);
  await page.keyboard.press('e');
  await expect(page).toHaveURL(/estimate$/);
  await page.keyboard.press('/');
  await page.getByRole('combobox', { name: 'find a machine or do something' }).fill('quill 14');
  await expect(page.getByRole('option', { name: /Velmara Quill 14/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/cooling/);
  await expect(page.getByRole('navigation', { name: 'place' })).toContainText('Quill 14');
});

test('rows are chosen by keys, Shift and all at once, and stand side by side', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/library');
  const boxes = page.getByTestId('rows').getByRole('checkbox');
  await expect(boxes.first()).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByTestId('library-rows')).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  const bar = page.getByRole('form', { name: 'the chosen machines' });
  await expect(bar).toContainText('3 chosen');
  await page.keyboard.press(' ');
  await expect(bar).toContainText('2 chosen');
  await page.keyboard.press('c');
  await expect(page.getByRole('heading', { name: 'Side by side' })).toBeVisible();
  await expect(page.getByRole('list', { name: 'noise ladder' })).toHaveCount(2);
  await expect(page.getByRole('heading', { name: /fields differ/ })).toBeVisible();
  await page.goBack();
  await expect(boxes.first()).toBeVisible();
  await boxes.nth(0).click();
  await boxes.nth(2).click({ modifiers: ['Shift'] });
  await expect(bar).toContainText('3 chosen');
  await bar.getByRole('button', { name: /Compare/ }).click();
  await expect(page.getByRole('list', { name: 'noise ladder' })).toHaveCount(3);
  await page.goBack();
  await page.getByLabel('choose all that are shown').click();
  await expect(bar).toContainText(/\d+ chosen/);
  expect(await boxes.count()).toBe(await page.getByTestId('rows').locator('input:checked').count());
  await bar.getByRole('button', { name: /Compare/ }).click();
  // any number of them is ranked
  await expect(page).toHaveURL(/\/compare\//);
  await expect(page.getByRole('heading', { name: /^Ranked, at 36 dB/ })).toBeVisible();
  // from the palette, beside the one that is open
  await openMachine(page, 'Studio, 8-core');
  await page.keyboard.press('/');
  await page.keyboard.type('compare with one thin');
  await page.getByRole('option', { name: /Compare with Velmara Quill 14/ }).click();
  await expect(page.getByRole('list', { name: 'noise ladder' })).toHaveCount(2);
  expect(errors).toEqual([]);
});

test('an address that leads nowhere says so, and shows the way on', async ({ page }) => {
  await page.goto('/nowhere/at-all');
  await expect(
    page.getByRole('heading', { name: 'There is nothing at this address' }),
  ).toBeVisible();
  await expect(page.getByText('/nowhere/at-all')).toBeVisible();
  await page.getByRole('main').getByRole('link', { name: 'Library' }).click();
  await expect(page.getByRole('heading', { name: 'Library' })).toBeVisible();
});

test('the envelope is read off with the arrow keys', async ({ page }) => {
  await openMachine(page, 'Stage, vapor chamber');
  await page.keyboard.press('e');
  const marked = page.getByTestId('marked-watts');
  await expect(marked).toContainText('W CPU');
  await expect(page.getByTestId('envelope-chart').locator('canvas').first()).toBeVisible();
  await expect(page.getByTestId('chain-cpu')).toContainText('CPU junction');
  const first = await marked.textContent();
  await page.keyboard.press('ArrowRight');
  await expect(marked).not.toHaveText(first!);
  const second = await marked.textContent();
  await page.keyboard.press('ArrowUp');
  await expect(marked).not.toHaveText(second!);
  // what the marked point says is announced, and the same stands in a table
  await expect(page.getByTestId('marked-words')).toContainText(/W CPU and .* W GPU, held by/);
  await expect(page.getByTestId('envelope-chart')).toHaveAccessibleName(/envelope.*marked/);
  await page.getByText('as a table').click();
  await expect(
    page.getByRole('region', { name: 'corners of the envelope' }).getByRole('row').nth(3),
  ).toBeVisible();
});

test('another window’s change is joined where it does not touch, and asked about where it does', async ({
  page,
  context,
}) => {
  await openMachine(page, 'first firmware');
  await openParts(page, 'Fans');
  const other = await context.newPage();
  await other.goto(page.url());
  await other.getByLabel('fan-left, maximum, rpm').fill('4400');
  await expect(saved(other)).toContainText('revision 2');
  // another figure: both stand
  await page.getByLabel('fan-right, maximum, rpm').fill('4600');
  await expect(saved(page)).toContainText('revision 3');
  await expect(page.getByLabel('fan-left, maximum, rpm')).toHaveValue('4400');
  // the same figure: asked, the figure named with all that was typed
  await other.getByLabel('fan-right, maximum, rpm').fill('4700');
  const asked = other.getByRole('dialog', { name: 'Changed in another window' });
  await expect(asked).toContainText('5000');
  await expect(asked).toContainText('4600');
  await asked.getByRole('button', { name: /keep what stands here, 4700/ }).click();
  await expect(asked).toBeHidden();
  await expect(saved(other)).toContainText('revision 4');
  await other.close();
  await page.getByLabel('fan-right, maximum, rpm').fill('4650');
  const dialog = page.getByRole('dialog', { name: 'Changed in another window' });
  await dialog.getByRole('button', { name: /take the other window’s, 4700/ }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByLabel('fan-right, maximum, rpm')).toHaveValue('4700');
  await expect(saved(page)).toContainText('revision 4');
});

test('what is typed while the server is away is kept and sent when it is back', async ({
  page,
}) => {
  await openMachine(page, 'five-year-old');
  await openParts(page, 'Fans');
  await page.route('**/api/**', (route) => route.abort());
  await page.getByLabel('fan, maximum, rpm').fill('4300');
  await expect(page.getByTestId('save-status')).toContainText('server away');
  await page.unroute('**/api/**');
  await expect(saved(page)).toContainText('revision 2');
  await page.reload();
  await openParts(page, 'Fans');
  await expect(page.getByLabel('fan, maximum, rpm')).toHaveValue('4300');
});

test('the library says how quietly some watts are had, is narrowed by it and sorted', async ({
  page,
}) => {
  await page.goto('/library');
  await page.getByRole('button', { name: /^Filter/ }).click();
  const wanted = page.getByLabel('watts wanted, watts');
  await wanted.click();
  await page.keyboard.type('80');
  const library = page.getByTestId('library');
  const heads = library.getByRole('columnheader', { name: /quiet for 80 W/ });
  await expect(heads).toBeVisible();
  // those that never reach them are left out
  await expect(library.getByRole('link', { name: 'Velmara Quill 14', exact: true })).toHaveCount(0);
  await expect(library.getByRole('row', { name: /thick and quiet/ })).toContainText(/≤ 28 dB\(A\)/);
  await expect(library.getByRole('row', { name: /Studio, 8-core/ })).toContainText(
    /3[123] dB\(A\)/,
  );
  await page.getByLabel('level for the watts wanted, up to').fill('30');
  await expect(library.getByRole('row', { name: /Studio, 8-core/ })).toHaveCount(0);
  await expect(library.getByRole('row', { name: /thick and quiet/ })).toBeVisible();
  await page.getByLabel('level for the watts wanted, up to').fill('');
  await heads.getByRole('button').click();
  await heads.getByRole('button').click();
  await expect(page).toHaveURL(/sort=quietFor80W/);
  const first = library.getByTestId('rows').getByRole('row').first();
  await expect(first).toContainText(/≤ 28 dB\(A\)/);
});
