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
  await page.getByRole('link', { name: 'Overview' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Overview' })).toBeVisible();
  const work = page.getByRole('region', { name: 'in work' });
  await expect(work.getByRole('listitem')).toHaveCount(8);
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
  await expect(page).toHaveURL(/\/overview$/);
  await page.goto(`/machines/${id}/estimate`);
  await putAsideOpen(page);
  expect(errors).toEqual([]);
});

test('an empty library is told what to do', async ({ page }) => {
  await page.route(/\/api\/machines\?/, (route) =>
    route.fulfill({ json: { items: [], total: 0, page: 1, pageSize: 8, caps: [36], pending: 0 } }),
  );
  await page.goto('/overview');
  await page.getByRole('button', { name: 'Quick count' }).click();
  await expect(page).toHaveURL(/\/count$/);
});
