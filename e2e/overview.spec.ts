import { expect, test } from '@playwright/test';
import { copyOf, putAsideOpen, watchErrors } from './support';

test('the overview: machines in work with their next step, the latest runs, care that is due', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const errors = watchErrors(page);
  // changed last, so that it is in work whatever else was
  const id = await copyOf(page, 'five-year-old paste', { maker: 'Overseen', model: 'Ledger' });
  await page.goto('/');
  await expect(page.getByRole('heading', { level: 1, name: 'Overview' })).toBeVisible();
  const work = page.getByRole('region', { name: 'in work' });
  await expect(work.getByRole('listitem')).toHaveCount(10);
  // what comes next is told for each, and leads there
  await expect(work.getByText('reading', { exact: true })).toHaveCount(0);
  await expect(work.getByRole('img', { name: /watts over the caps/ }).first()).toBeVisible();
  const runs = page.getByRole('region', { name: 'latest runs' });
  // at first each is held against its record
  await expect(runs.getByRole('listitem').first()).toBeVisible({ timeout: 120_000 });
  await expect(page.getByRole('region', { name: 'care' })).toContainText(
    'Overseen Ledger: paste now (usual)',
  );
  const own = work.getByRole('listitem').filter({ hasText: 'Overseen Ledger' });
  await expect(own).toContainText('Identify: 4 of 7 open');
  await own.getByRole('link').click();
  await expect(page).toHaveURL(new RegExp(`${id}/identify$`));
  await expect(page.getByTestId('watts-36')).toBeVisible();
  // from anywhere by its words
  await page.keyboard.press('/');
  await page.keyboard.type('overview');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/:\d+\/$/);
  await page.goto(`/machines/${id}/estimate`);
  await putAsideOpen(page);
  expect(errors).toEqual([]);
});

test('an empty library is told what to do', async ({ page }) => {
  await page.route(/\/api\/machines\?/, (route) =>
    route.fulfill({ json: { items: [], total: 0, page: 1, pageSize: 10, caps: [36], pending: 0 } }),
  );
  await page.goto('/');
  const begin = page.getByRole('region', { name: 'begin' });
  await expect(begin.getByRole('button', { name: 'An example' })).toBeVisible();
  await begin.getByRole('button', { name: /^Import/ }).click();
  await expect(page).toHaveURL(/\/library$/);
  await expect(page.locator('dialog[open]')).toHaveCount(1);
  // asked for once
  await page.keyboard.press('Escape');
  await page.reload();
  await expect(page.getByRole('button', { name: 'An example' })).toBeVisible();
  await expect(page.locator('dialog[open]')).toHaveCount(0);
  await page.goto('/');
  await begin.getByRole('button', { name: /^Quick count/ }).click();
  await expect(page).toHaveURL(/\/count$/);
});

test('the start page: keys begin a machine, watts wanted lead to the quietest, an older address to its view of the library', async ({
  page,
}) => {
  await page.goto('/');
  const wanted = page.getByLabel('watts wanted');
  for (const nonsense of ['', 'many', '-5', '1e9']) {
    await wanted.fill(nonsense);
    await wanted.press('Enter');
    await expect(page.getByRole('alert')).toContainText('needs watts above 0');
  }
  await wanted.fill('62,5');
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.getByRole('button', { name: 'Show' }).click();
  await expect(page).toHaveURL(/\/library\?needW=62.5&sort=quietFor62.5W$/);
  await expect(page.getByRole('columnheader', { name: /quiet for 62.5 W/ })).toBeVisible();
  // one step back is the start page again
  await page.goBack();
  await expect(page.getByRole('heading', { level: 1, name: 'Overview' })).toBeVisible();
  await page.goto('/?q=heron');
  await expect(page).toHaveURL(/\/library\?q=heron$/);
  await page.goto('/overview');
  await expect(page).toHaveURL(/:\d+\/$/);
  await expect(page.getByRole('heading', { level: 1, name: 'Overview' })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByLabel('Maker')).toBeFocused();
});
