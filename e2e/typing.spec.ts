import { expect, test, type Locator, type Page } from '@playwright/test';
import { openMachine, openParts, saved, watchErrors, watts } from './support';

/** Texts as people type them, half of them no number on the way. */
const AWKWARD: readonly (readonly [typed: string, millimetres: number])[] = [
  ['0.4', 0.4],
  ['.5', 0.5],
  ['7,5 cm', 75],
  ['1/2 in', 12.7],
  ['14 1/4 in', 361.95],
  ['~60', 60],
  ['ca. 60', 60],
  ['about 12', 12],
  ['12?', 12],
  ['12-14', 13],
  ['12 – 14 mm', 13],
  ['7.4 ± 0.1', 7.4],
];

/** Types a text key by key: the hand stays in the field, and what was typed stands there. */
async function typeByKeys(page: Page, field: Locator, text: string): Promise<void> {
  for (let i = 1; i <= text.length; i++) {
    await page.keyboard.type(text[i - 1]!);
    await expect(field).toBeFocused();
    await expect(field).toHaveValue(text.slice(0, i));
  }
}

const recordOf = (page: Page) =>
  page.evaluate(async () => {
    const id = location.pathname.split('/')[2]!;
    const res = await fetch(`/api/machines/${id}`);
    return ((await res.json()) as { record: Record<string, never> }).record;
  });

test('awkward figures are typed key by key in every kind of field, and understood', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openMachine(page, 'intake behind');
  // in a table, on a line of its own, along a pipe
  await openParts(page, 'Fin stacks');
  const cell = page.getByLabel('fins-left, depth, mm', { exact: true });
  for (const [text, mm] of AWKWARD.filter(([, mm]) => mm <= 200)) {
    await cell.click();
    await page.keyboard.press('Control+A');
    await typeByKeys(page, cell, text);
    await page.keyboard.press('Escape');
    await expect(cell).toHaveValue(String(mm));
  }
  await page.keyboard.press('o');
  const line = page.getByLabel('Width, mm', { exact: true });
  for (const [text, mm] of AWKWARD.filter(([, mm]) => mm >= 100)) {
    await line.click();
    await page.keyboard.press('Control+A');
    await typeByKeys(page, line, text);
    await page.keyboard.press('Escape');
    await expect(line).toHaveValue(String(mm));
  }
  // a share, a year, a day
  const share = page.getByRole('textbox', { name: /open share/ }).first();
  await page.getByTestId('vent-plan').getByRole('button', { name: /^vent/ }).first().click();
  await share.click();
  await page.keyboard.press('Control+A');
  await typeByKeys(page, share, '45%');
  await page.keyboard.press('Escape');
  await expect(share).toHaveValue('0.45');
  await page.keyboard.press('i');
  const year = page.getByLabel('Year', { exact: true });
  await year.click();
  await page.keyboard.press('Control+A');
  await typeByKeys(page, year, 'ca. 2025');
  await expect(
    page.getByText('= 2025 , estimated').or(page.getByText(/= 2025\s*, estimated/)),
  ).toBeVisible();
  await page.keyboard.press('Escape');
  const day = page.getByLabel('Received on');
  await day.click();
  await page.keyboard.press('Control+A');
  await typeByKeys(page, day, '25.11.2026');
  await expect(page.getByText('= 2026-11-25')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(day).toHaveValue('2026-11-25');
  // in a text it stays what was typed
  const firmware = page.getByLabel('Firmware', { exact: true });
  await firmware.click();
  await page.keyboard.press('Control+A');
  await typeByKeys(page, firmware, '12-14');
  await page.keyboard.press('Escape');
  await expect(firmware).toHaveValue('12-14');
  await expect(saved(page)).toBeVisible();
  const record = (await recordOf(page)) as unknown as {
    identity: { year: unknown; firmware: unknown };
  };
  expect(record.identity).toMatchObject({
    year: { value: 2025, origin: 'estimated' },
    firmware: '12-14',
  });
  expect(errors).toEqual([]);
});

test('the same in rows of points, in caps and in filters', async ({ page }) => {
  const errors = watchErrors(page);
  await openMachine(page, 'intake behind');
  await page.keyboard.press('o');
  // a new row of the sweep, then the row itself
  const entry = (column: string) =>
    page.getByLabel(`Level over fan speed, new row, ${column}`, { exact: true });
  await entry('fan-left').click();
  await typeByKeys(page, entry('fan-left'), 'ca. 3000');
  await page.keyboard.press('Tab');
  await typeByKeys(page, entry('fan-right'), '2900-3100');
  await page.keyboard.press('Tab');
  await typeByKeys(page, entry('level'), '34,1 ± 0.5');
  await page.keyboard.press('Enter');
  await expect(entry('fan-left')).toBeFocused();
  const cell = (column: string) =>
    page.getByRole('textbox', {
      name: new RegExp(`^Level over fan speed, row 1, ${column}`),
    });
  await expect(cell('fan-right')).toHaveValue('3000');
  await cell('level').click();
  await page.keyboard.press('Control+A');
  for (const [text, db] of [
    ['.', null],
    ['12?', 12],
    ['about 33', 33],
    ['33-35', 34],
  ] as const) {
    await page.keyboard.press('Control+A');
    await typeByKeys(page, cell('level'), text);
    if (db === null) continue;
    await page.keyboard.press('Escape');
    await expect(cell('level')).toHaveValue(String(db));
    await cell('level').click();
  }
  await page.keyboard.press('Escape');
  await expect(saved(page)).toBeVisible();
  const { noise } = (await recordOf(page)) as unknown as { noise: { sweep: unknown[] } };
  expect(noise.sweep).toEqual([
    {
      rpm: {
        'fan-left': { value: 3000, origin: 'estimated' },
        'fan-right': { value: 3000, plusMinus: 100, origin: 'estimated' },
      },
      dbA: { value: 34, plusMinus: 1, origin: 'estimated' },
    },
  ]);
  for (let i = 0; i < 12; i++) await page.keyboard.press('Control+z');
  await expect(entry('fan-left')).toBeVisible();

  // a cap of one's own
  await page.keyboard.press('k');
  const map = page.getByRole('region', { name: 'airway map' });
  for (const [text, cap] of [
    ['33,5', '33.5'],
    ['~36 dB', '36'],
    ['ca. 34', '34'],
    ['37-39 dB(A)', '38'],
  ] as const) {
    await map.getByLabel('cap of the map').selectOption('other');
    const field = map.getByLabel('cap of the map, dB(A)');
    await expect(field).toBeFocused();
    await typeByKeys(page, field, text);
    await page.keyboard.press('Enter');
    await expect(map.getByLabel('cap of the map')).toHaveValue(cap);
  }

  // filters of the library
  await page.goto('/library');
  await page.getByRole('button', { name: /^Filter/ }).click();
  const from = page.getByLabel('thickness, from');
  const found = page.getByTestId('library');
  for (const text of ['2,5 cm', '~25', '1 in', '24-26 mm']) {
    await from.click();
    await page.keyboard.press('Control+A');
    await typeByKeys(page, from, text);
    // 15.6 mm are left out, 29.5 mm are not
    await expect(found.getByRole('link', { name: 'Velmara Quill 14', exact: true })).toHaveCount(0);
    await expect(found.getByRole('link', { name: 'Tarnwick Ledger 15' }).first()).toBeVisible();
    await expect(from).not.toHaveAttribute('aria-invalid', 'true');
  }
  expect(errors).toEqual([]);
});

test('one refused figure holds no other back, and the last good answer survives a reload', async ({
  page,
}) => {
  await openMachine(page, 'intake behind');
  const before = await watts(page, '36');
  await openParts(page, 'Fin stacks');
  const depth = page.getByLabel('fins-left, depth, mm', { exact: true });
  const kept = Number(await depth.inputValue());
  await depth.click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('4x');
  await page.keyboard.press('Tab');
  await expect(page.getByText('“4x” is not a number').first()).toBeVisible();
  await expect(page.getByTestId('save-status')).toContainText('saved but for what is refused');
  // everything else goes on: it is saved, and the answer moves with it
  await page.keyboard.press('Escape');
  await page.keyboard.press('o');
  const room = page.getByLabel('Temperature, °C');
  await room.fill('41');
  await expect.poll(() => watts(page, '36')).toBeLessThan(before);
  await expect
    .poll(async () => (await recordOf(page)) as unknown)
    .toMatchObject({ room: { temperatureC: 41 } });
  const stacks = ((await recordOf(page)) as unknown as { finStacks: { depthMm: unknown }[] })
    .finStacks;
  expect(JSON.stringify(stacks[0]!.depthMm)).toContain(String(kept));
  const now = await watts(page, '36');
  await page.reload();
  await expect.poll(() => watts(page, '36')).toBe(now);
  await expect(page.getByText('Last good answer.')).toBeVisible();
  // what is missing leads to its field, where what was typed still stands
  await page.getByRole('button', { name: /“4x” is not a number/ }).click();
  await expect(depth).toBeFocused();
  await expect(depth).toHaveValue('4x');
  await page.keyboard.type(String(kept));
  await page.keyboard.press('Escape');
  await expect(saved(page)).toBeVisible();
  // a figure that is needed and was emptied: the answer of before stays too
  await depth.fill('');
  await page.keyboard.press('Escape');
  await expect(page.getByText('Last good answer.')).toBeVisible();
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await expect(page.getByText('Last good answer.')).toBeVisible();
  await expect.poll(() => watts(page, '36')).toBe(now);
  await page.getByRole('button', { name: /Depth, fins-left: needs a number/ }).click();
  await expect(depth).toBeFocused();
  await page.keyboard.type(String(kept));
  await expect(page.getByText('Last good answer.')).toHaveCount(0);
});

test('a new machine is written with its first letter, not before; typed without the server it waits', async ({
  page,
  context,
}) => {
  await page.goto('/library');
  const count = page.getByRole('status').filter({ hasText: /machines/ });
  const before = await count.textContent();
  await page.keyboard.press('n');
  await expect(page.getByLabel('Maker')).toBeFocused();
  await expect(page.getByTestId('save-status')).toHaveText('new, nothing typed yet');
  await page.goBack();
  await expect(count).toHaveText(before!);
  await page.keyboard.press('n');
  await expect(page.getByLabel('Maker')).toBeFocused();
  await page.keyboard.type('Oslund');
  await expect(saved(page)).toContainText('revision 1');
  await expect(page.getByTestId('family')).toBeVisible();
  await expect(page.getByLabel('Maker')).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.type('Drift 12');
  await expect(page.getByLabel('Model', { exact: true })).toHaveValue('Drift 12');
  await expect(saved(page)).toBeVisible();
  // without the server: it stands in the browser, and a list leads back to it
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Library', exact: true }).click();
  await expect(page.getByRole('link', { name: /Oslund Drift 12/ })).toBeVisible();
  await context.setOffline(true);
  await page.keyboard.press('n');
  await page.keyboard.type('Velmara');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Quill 11');
  await expect(page.getByTestId('save-status')).toContainText('kept in this browser');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Library', exact: true }).click();
  await expect(page.getByText('In this browser only')).toContainText('Velmara Quill 11');
  await context.setOffline(false);
  // sent by itself it stands among the others for a moment too
  await page.getByRole('link', { name: 'Velmara Quill 11' }).first().click();
  await expect(saved(page)).toBeVisible();
  await page.getByRole('link', { name: 'Library', exact: true }).click();
  await expect(page.getByTestId('library').getByRole('link', { name: /Quill 11/ })).toBeVisible();
  await expect(page.getByText('In this browser only')).toHaveCount(0);
});

test('keys that open something put the hand into it; Escape leaves search and filters', async ({
  page,
}) => {
  await page.goto('/library');
  await expect(page.getByTestId('library').getByRole('link').first()).toBeVisible();
  await page.keyboard.press('g');
  await expect(page.getByRole('combobox', { name: 'cap' })).toBeFocused();
  // another level, typed: the hand is still there, and goes on
  await page.getByRole('combobox', { name: 'cap' }).selectOption('other');
  await page.keyboard.type('37,5');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('combobox', { name: 'cap' })).toBeFocused();
  await expect(page.getByRole('combobox', { name: 'cap' })).toHaveValue('37.5');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('fans, from')).toBeFocused();
  await page.keyboard.type('2');
  await page.keyboard.press('Escape');
  await page.keyboard.press('f');
  await expect(page.getByRole('searchbox')).toBeFocused();
  await page.keyboard.type('heron');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('searchbox')).toHaveValue('heron');
  await page.keyboard.press('x');
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('F1 in a field tells how it is measured, and the hand returns to it; what is open is on a sheet', async ({
  page,
}) => {
  await openMachine(page, 'intake behind');
  await openParts(page, 'Fin stacks');
  const depth = page.getByLabel('fins-left, depth, mm', { exact: true });
  await depth.click();
  await page.keyboard.press('F1');
  const told = page.getByRole('dialog', { name: 'How to measure: depth' });
  await expect(told).toContainText('The way of the air');
  await expect(told.getByRole('img')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(depth).toBeFocused();
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'bench sheet to print' }).click();
  await expect(page.getByTestId('bench-sheet')).toContainText(/figures? still open/);
  await page.goto('/method?find=foot height');
  await expect(page.getByTestId('measuring').getByRole('img').first()).toBeVisible();
});
