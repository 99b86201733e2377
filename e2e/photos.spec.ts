import { expect, test } from '@playwright/test';
import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { openMachine, openParts, saved, watchErrors } from './support';

const photo = (colour: string) =>
  sharp({ create: { width: 800, height: 600, channels: 3, background: colour } })
    .jpeg()
    .toBuffer();

test('photos are added, covered by keys, read from, put aside and brought back', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openMachine(page, 'five-year-old');
  await page.keyboard.press('p');
  const main = page.getByRole('main');
  await expect(main.getByRole('button', { name: /^open / })).toHaveCount(3);
  await page.getByLabel('new ones belong to').selectOption('fans.fan');
  await page.getByLabel('choose photos or papers').setInputFiles([
    { name: 'fan label.jpg', mimeType: 'image/jpeg', buffer: await photo('#ddd8c8') },
    { name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('this is no picture at all') },
    { name: 'sheet.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-1.4 sheet %%EOF') },
  ]);
  await expect(main.getByRole('button', { name: /^open / })).toHaveCount(5);
  await expect(main.getByRole('alert')).toContainText(/notes\.png was not taken:.*by its content/);
  await main.getByRole('button', { name: 'dismiss' }).click();

  // large, and covered without a mouse
  await main.getByRole('button', { name: 'open fan label.jpg' }).click();
  const view = page.getByRole('dialog');
  await expect(view.getByRole('img')).toBeVisible();
  await page.keyboard.press('c');
  const box = view.getByRole('button', { name: /^box 1/ });
  await expect(box).toBeFocused();
  for (const key of ['ArrowUp', 'ArrowLeft', 'Shift+ArrowDown']) {
    for (let i = 0; i < 5; i++) await page.keyboard.press(key);
  }
  await view.getByLabel('Caption').fill('label of the fan');
  await expect(view.getByText('1 box.')).toBeVisible();
  // asked for at once, before anything was saved by itself: the copy has the box all the same
  const download = page.waitForEvent('download');
  await view.getByRole('button', { name: /Save a copy/ }).click();
  const bytes = readFileSync(await (await download).path());
  const { data } = await sharp(bytes).raw().toBuffer({ resolveWithObject: true });
  const grey = (x: number, y: number) => data[(y * 800 + x) * 3]!;
  // 35 % − 5 % across, 45 % − 5 % down, 30 % wide, 10 % + 5 % high
  expect(grey(Math.round(0.45 * 800), Math.round(0.53 * 600))).toBeLessThan(40);
  expect(grey(Math.round(0.45 * 800), Math.round(0.38 * 600))).toBeGreaterThan(200);
  await page.keyboard.press('Escape');
  await expect(main.getByText('label of the fan')).toBeVisible();

  // a figure that was read from it
  await page.keyboard.press('k');
  await openParts(page, 'Fans');
  await page.getByLabel('fan, impeller, mm').focus();
  await page.keyboard.press('Control+Enter');
  const figure = page.getByRole('dialog', { name: 'fan, impeller' });
  await figure.getByLabel('Read from').selectOption({ label: 'label of the fan' });
  await figure.getByRole('button', { name: 'Done' }).click();
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await openParts(page, 'Fans');
  await expect(page.getByText('Photos of fan')).toBeVisible();
  await page.getByRole('button', { name: 'open label of the fan' }).click();
  await page.keyboard.press('Delete');
  await page.getByRole('button', { name: 'Bring back' }).click();
  await expect(page.getByRole('button', { name: 'open label of the fan' })).toBeVisible();
  // what the server refused stands in the console too, once
  expect(errors.filter((e) => !/415/.test(e))).toEqual([]);
});

test('photos wait while the server is away and go when it is back', async ({ page }) => {
  await openMachine(page, 'one thin fan');
  await page.keyboard.press('p');
  let away = true;
  await page.route(/attachments\?name=/, (route) =>
    away ? route.abort('connectionrefused') : route.continue(),
  );
  await page.getByLabel('choose photos or papers').setInputFiles([
    { name: 'a.jpg', mimeType: 'image/jpeg', buffer: await photo('#eee') },
    { name: 'b.jpg', mimeType: 'image/jpeg', buffer: await photo('#ddd') },
  ]);
  await expect(page.getByRole('status').filter({ hasText: '2 wait here' })).toBeVisible();
  away = false;
  await expect(page.getByRole('button', { name: 'open b.jpg' })).toBeVisible();
  await expect(page.getByText('wait here')).toHaveCount(0);
});

test('a drawn box hides, and comes back off with undo', async ({ page }) => {
  await openMachine(page, 'separate loops');
  await page.keyboard.press('p');
  await page.getByRole('button', { name: /^open Base cover off/ }).click();
  const layer = page.getByTestId('cover-layer');
  const at = (await layer.boundingBox())!;
  const point = (x: number, y: number): [number, number] => [
    at.x + x * at.width,
    at.y + y * at.height,
  ];
  await page.mouse.move(...point(0.2, 0.2));
  await page.mouse.down();
  await page.mouse.move(...point(0.5, 0.3), { steps: 4 });
  await page.mouse.up();
  const box = page.getByRole('button', { name: /^box 1/ });
  await expect(box).toBeVisible();
  const drawn = (await box.boundingBox())!;
  expect(Math.abs(drawn.width / at.width - 0.3)).toBeLessThan(0.02);
  await page.keyboard.press('Control+z');
  await expect(box).toHaveCount(0);
});
