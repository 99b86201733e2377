import { expect, test } from '@playwright/test';
import { watchErrors } from './support';

test('the overview: machines in work with their next step, the latest runs, care that is due', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/');
  await page.getByRole('link', { name: 'Overview' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Overview' })).toBeVisible();
  const work = page.getByRole('region', { name: 'in work' });
  await expect(work.getByRole('listitem')).toHaveCount(8);
  // what comes next is told for each, and leads there
  await expect(work.getByText('reading', { exact: true })).toHaveCount(0);
  await expect(work.getByRole('img', { name: /watts over the caps/ }).first()).toBeVisible();
  const runs = page.getByRole('region', { name: 'latest runs' });
  await expect(runs.getByRole('listitem').first()).toContainText(/foretold \d+ to \d+/);
  await expect(page.getByRole('region', { name: 'care' })).toContainText(
    'Tarnwick Ledger 14: paste now (usual)',
  );
  const first = work
    .getByRole('listitem')
    .filter({ hasText: 'Verdict: ready to be judged' })
    .first();
  await first.getByRole('link').click();
  await expect(page).toHaveURL(/\/verdict$/);
  await expect(page.getByTestId('headline')).toBeVisible();
  // from anywhere by its words
  await page.keyboard.press('/');
  await page.keyboard.type('overview');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/overview$/);
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
