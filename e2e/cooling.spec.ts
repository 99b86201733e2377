import { expect, test } from '@playwright/test';
import { openCopy, openParts, putAsideOpen, saved, watchErrors, watts } from './support';

test.afterEach(({ page }) => putAsideOpen(page));

test('open a demo machine, change a figure, see watts change, reload, find it saved', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openCopy(page, 'Studio, 8-core');
  const before = await watts(page, '36');
  await openParts(page, 'Fin stacks');
  const depth = page.getByLabel('fins-left, depth, mm');
  await depth.fill('12');
  await expect.poll(() => watts(page, '36')).toBeLessThan(before - 2);
  const after = await watts(page, '36');
  await expect(saved(page)).toContainText('revision 2');
  await page.reload();
  await expect(page.getByLabel('fins-left, depth, mm')).toHaveValue('12');
  await expect.poll(() => watts(page, '36')).toBe(after);
  expect(errors).toEqual([]);
});

test('impossible figures are refused beside the field, the last good answer stays, nothing is lost', async ({
  page,
}) => {
  await openCopy(page, 'separate loops');
  const before = await watts(page, '36');
  await openParts(page, 'Fin stacks');
  const depth = page.getByLabel('fins-left, depth, mm');
  const fin = page.getByLabel('fins-left, fin, mm');
  const cases: [typeof depth, string, RegExp][] = [
    [depth, '-4', /must be more than 0 mm/],
    [depth, 'deep', /“deep” is not a number/],
    [depth, '', /needs a number/],
    [depth, '99999', /must be at most 200 mm/],
  ];
  for (const [field, text, message] of cases) {
    await field.fill(text);
    await expect(page.getByRole('alert').filter({ hasText: message })).toBeVisible();
    await expect(field).toHaveAttribute('aria-invalid', 'true');
    await expect(page.getByText('Last good answer.')).toBeVisible();
    expect(await watts(page, '36')).toBe(before);
  }
  await depth.fill('21');
  await fin.fill('1.2');
  await expect(
    page.getByRole('alert').filter({ hasText: /do not fit a pitch of 1.11 mm/ }),
  ).toBeVisible();
  await expect(page.getByTestId('save-status')).toContainText('kept in this browser');
  // what was refused is still there after a reload, with its message
  await page.reload();
  await expect(page.getByLabel('fins-left, fin, mm')).toHaveValue('1.2');
  await expect(page.getByRole('alert').filter({ hasText: /do not fit/ })).toBeVisible();
  await page.getByLabel('fins-left, fin, mm').fill('0.15');
  await expect(page.getByText('Last good answer.')).toBeHidden();
  await expect(saved(page)).toBeVisible();

  await openParts(page, 'Heat pipes');
  await page.getByLabel('pipe-cpu, flattened to, mm').fill('9');
  await expect(
    page.getByRole('alert').filter({ hasText: /thicker than its diameter of 8 mm/ }),
  ).toBeVisible();
  await page.getByLabel('pipe-cpu, flattened to, mm').fill('2.6');

  await openParts(page, 'Fin stacks');
  await page
    .getByRole('group', { name: 'fins-left, fans' })
    .getByRole('button', { name: 'fan-left' })
    .click();
  await expect(page.getByRole('alert').filter({ hasText: /no fan blows through/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Last good answer.')).toBeHidden();
});

test('parts are added, copied, removed and brought back', async ({ page }) => {
  await openCopy(page, 'thick and quiet');
  const before = await watts(page, '36');
  await page.getByRole('button', { name: 'copy pipe-1' }).click();
  await expect(page.getByLabel('heat pipe 2, name')).toHaveValue('pipe-2');
  await expect.poll(() => watts(page, '36')).toBeGreaterThan(before);
  await page.getByRole('button', { name: 'remove pipe-2' }).click();
  await expect.poll(() => watts(page, '36')).toBe(before);
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('heat pipe 2, name')).toHaveValue('pipe-2');
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('heat pipe 2, name')).toBeHidden();
  await page.keyboard.press('Control+Shift+z');
  await expect(page.getByLabel('heat pipe 2, name')).toHaveValue('pipe-2');
  await page.keyboard.press('Control+z');
  await expect(saved(page)).toBeVisible();
});

test('the order of parts along a pipe is dragged, and by keyboard too', async ({ page }) => {
  await openCopy(page, 'intake behind');
  const order = () =>
    page
      .locator('li[data-part]')
      .evaluateAll((items) => items.map((i) => i.getAttribute('data-part')));
  expect(await order()).toEqual(['fins-left', 'plate-cpu', 'plate-gpu', 'fins-right']);
  const before = await watts(page, 'full');
  const grip = page.getByRole('button', { name: 'move fins-right' });
  const target = page.getByRole('button', { name: 'move plate-cpu' });
  const from = (await grip.boundingBox())!;
  const to = (await target.boundingBox())!;
  await page.mouse.move(from.x + 5, from.y + 5);
  await page.mouse.down();
  await page.mouse.move(from.x - 40, from.y + 5, { steps: 5 });
  await page.mouse.move(to.x + 5, to.y + 5, { steps: 20 });
  await page.mouse.up();
  await expect.poll(order).toEqual(['fins-left', 'fins-right', 'plate-cpu', 'plate-gpu']);
  await expect.poll(() => watts(page, 'full')).not.toBe(before);
  await page.keyboard.press('Control+z');
  await expect.poll(order).toEqual(['fins-left', 'plate-cpu', 'plate-gpu', 'fins-right']);

  await page.getByRole('button', { name: 'move fins-left' }).focus();
  await page.keyboard.press('Space');
  await page.waitForTimeout(300);
  await page.keyboard.press('ArrowRight');
  await page.waitForTimeout(300);
  await page.keyboard.press('Space');
  await expect.poll(order).toEqual(['plate-cpu', 'fins-left', 'plate-gpu', 'fins-right']);
  await page.keyboard.press('Control+z');
  await expect(saved(page)).toBeVisible();
});
