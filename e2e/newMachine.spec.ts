import { expect, test, type Page } from '@playwright/test';
import { openParts, watts } from './support';

async function fill(page: Page, fields: Record<string, string>): Promise<void> {
  for (const [label, text] of Object.entries(fields)) {
    await page.getByLabel(label, { exact: true }).fill(text);
  }
}

test('enter a new machine from nothing', async ({ page }) => {
  await page.goto('/library');
  await page.getByRole('button', { name: /New machine/ }).click();
  await expect(page).toHaveURL(/identify$/);
  await expect(page.getByText('No answer yet.')).toBeVisible();
  await fill(page, { Maker: 'Tarnwick', Model: 'Ledger 13', Variant: '4-core, passive twin' });
  await page.getByRole('link', { name: /Cooling/ }).click();

  await openParts(page, 'Dies');
  await page.getByRole('button', { name: 'add a die' }).click();
  await fill(page, { 'cpu, width, mm': '10', 'cpu, length, mm': '12' });
  await openParts(page, 'Plates');
  await page.getByRole('button', { name: 'add a plate' }).click();
  await openParts(page, 'Fans');
  await page.getByRole('button', { name: 'add a fan' }).click();
  await fill(page, { 'fan-1, impeller, mm': '50' });
  await openParts(page, 'Fin stacks');
  await page.getByRole('button', { name: 'add a fin stack' }).click();
  await fill(page, {
    'fins-1, width, mm': '55',
    'fins-1, height, mm': '6,5',
    'fins-1, depth, mm': '20',
    'fins-1, fins': '50',
  });
  await openParts(page, 'Heat pipes');
  await page.getByRole('button', { name: 'add a heat pipe' }).click();
  await fill(page, { 'pipe-1, diameter, mm': '6' });
  await expect(page.getByTestId('watts-full')).toBeVisible();
  const full = await watts(page, 'full');
  expect(full).toBeGreaterThan(10);
  expect(full).toBeLessThan(80);

  // an absent figure shows the value assumed for it; a recorded one moves the answer
  await openParts(page, 'Fans');
  await expect(page.getByLabel('fan-1, maximum, rpm')).toHaveAttribute('placeholder', /^\d{4}/);
  await page.getByLabel('fan-1, maximum, rpm').fill('3500');
  await expect.poll(() => watts(page, 'full')).toBeLessThan(full);

  // left at once: what was typed last is sent all the same
  await page.getByRole('link', { name: 'Library', exact: true }).click();
  await page.getByRole('searchbox').fill('ledger 13');
  const row = page.getByTestId('library').getByRole('row', { name: /Tarnwick Ledger 13/ });
  await expect(row).toContainText('4-core, passive twin');
  await expect(row.getByRole('cell').nth(9)).toContainText(/\d W/);
});
