import { expect, test } from '@playwright/test';
import { openMachine, saved, watchErrors, watts } from './support';

test('a vent is recorded where one clicks, moved by keys, blocked, removed and undone', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openMachine(page, 'thick and quiet');
  await page.keyboard.press('o');
  const plan = page.getByTestId('vent-plan');
  await expect(plan.getByRole('button')).toHaveCount(4);
  const before = await watts(page, '36');

  // half of the left intake covered: the answer moves
  await plan.getByRole('button', { name: /^vent base-left/ }).click();
  await page.getByLabel('base-left, blocked share').fill('85 %');
  await page.keyboard.press('Escape');
  await expect.poll(() => watts(page, '36')).toBeLessThan(before);
  await page.keyboard.press('Control+z');
  await expect.poll(() => watts(page, '36')).toBeCloseTo(before, 6);

  // a passive slot at the user's left: the strip on the right of the plan
  const strip = (await plan.locator('[data-face="left"]').boundingBox())!;
  await page.mouse.click(strip.x + strip.width / 2, strip.y + strip.height * 0.6);
  const fresh = plan.getByRole('button', { name: /user’s left, exhaust/ });
  await expect(fresh).toBeVisible();
  const id = (await fresh.getAttribute('data-part'))!;
  await page.getByLabel(`${id}, flow`).selectOption('passive');
  const passive = plan.getByRole('button', { name: `vent ${id}, user’s left, passive` });
  const at = (await passive.boundingBox())!;
  await passive.focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowUp');
  await expect.poll(async () => (await passive.boundingBox())!.y).toBeLessThan(at.y - 10);
  // dragged over to the base it becomes one of the base
  const base = (await plan.locator('[data-face="base"]').boundingBox())!;
  const now = (await passive.boundingBox())!;
  await page.mouse.move(now.x + now.width / 2, now.y + now.height / 2);
  await page.mouse.down();
  await page.mouse.move(base.x + base.width / 2, base.y + base.height / 2, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByLabel(`${id}, side`)).toHaveValue('base');
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await expect(plan.getByRole('button', { name: `vent ${id}, base, passive` })).toBeVisible();
  await plan.getByRole('button', { name: `vent ${id}, base, passive` }).focus();
  await page.keyboard.press('Delete');
  await expect(plan.getByRole('button')).toHaveCount(4);
  await page.keyboard.press('Control+z');
  await expect(plan.getByRole('button')).toHaveCount(5);
  // others open this machine too: it is left as it was found
  await page.keyboard.press('Control+Shift+z');
  await expect(plan.getByRole('button')).toHaveCount(4);
  const machine = page.url().match(/machines\/([^/]+)/)![1]!;
  await expect(async () => {
    const kept = await page.request.get(`/api/machines/${machine}`);
    const { record } = (await kept.json()) as { record: { vents: unknown[] } };
    expect(record.vents).toHaveLength(4);
  }).toPass();
  expect(errors).toEqual([]);
});

test('a share is typed key by key: field and plan stay, nothing else hears the keys, a reload keeps the half', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openMachine(page, 'thick and quiet');
  await page.keyboard.press('o');
  const plan = page.getByTestId('vent-plan');
  const share = page.getByRole('textbox', { name: 'base-left, open share' });
  await plan.getByRole('button', { name: /^vent base-left/ }).click();
  await share.fill('');
  for (const [key, half] of [
    ['0', '0'],
    ['.', '0.'],
    ['3', '0.3'],
  ] as const) {
    await page.keyboard.press(key);
    await expect(share).toHaveValue(half);
    await expect(share).toBeFocused();
    await expect(plan).toBeVisible();
  }
  await expect(page).toHaveURL(/outside$/);
  // one that cannot be stays, and can be mended key by key after a reload too
  await share.fill('0');
  await expect(page.getByText('The plan is that of before the figure in hand.')).toBeVisible();
  await page.keyboard.press('Tab');
  await page.reload();
  // the plan is drawn with what stood there before
  await plan.getByRole('button', { name: /^vent base-left/ }).click();
  await expect(share).toHaveValue('0');
  await share.press('End');
  await page.keyboard.press('.');
  await page.keyboard.press('4');
  await expect(share).toBeFocused();
  await expect(share).toHaveValue('0.4');
  await expect(plan).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(saved(page)).toBeVisible();
  expect(errors).toEqual([]);
});
