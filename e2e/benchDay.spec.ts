import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { watchErrors } from './support';

/** A machine with a planned run. */
async function machineWithPlan(page: Page, variant: string): Promise<string> {
  const record = JSON.parse(readFileSync('examples/one-die.json', 'utf8')) as { identity?: object };
  record.identity = { maker: 'Oslund', model: variant, variant };
  const { id } = (await (
    await page.request.post('/api/machines', { data: { record } })
  ).json()) as {
    id: string;
  };
  const run = {
    format: 'zugluft-run',
    formatVersion: 1,
    id: crypto.randomUUID(),
    name: 'CPU, full speed',
    load: { kind: 'stress', on: 'cpu' },
  };
  expect((await page.request.post(`/api/machines/${id}/runs`, { data: run })).status()).toBe(201);
  return id;
}

async function putAside(page: Page, id: string): Promise<void> {
  const { revision } = (await (await page.request.get(`/api/machines/${id}`)).json()) as {
    revision: number;
  };
  await page.request.post(`/api/machines/${id}/put-aside`, {
    headers: { 'If-Match': `"${revision}"` },
  });
}

test('runs and openings of two machines are put in order, moved, begun, kept, saved as a calendar and printed', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const stamp = Date.now();
  const first = await machineWithPlan(page, `Daybreak${stamp}`);
  const second = await machineWithPlan(page, `Nightfall${stamp}`);
  // the day of the demo library makes room
  const { revision } = (await (await page.request.get('/api/documents/day/laboratory')).json()) as {
    revision: number;
  };
  const cleared = await page.request.put('/api/documents/day/laboratory', {
    headers: { 'If-Match': `"${revision}"` },
    data: { value: { format: 'zugluft-day', formatVersion: 1, hands: 1, acts: [] } },
  });
  expect(cleared.ok()).toBe(true);
  await page.goto('/bench-day');
  await expect(page.getByText('Nothing yet.')).toBeVisible();
  await page.getByLabel('begins').fill('2031-03-04T09:00');
  const add = page.getByRole('region', { name: 'add to the day' });
  for (const name of [`Daybreak${stamp}`, `Nightfall${stamp}`]) {
    await add.getByLabel('machine to add').fill(name);
    await add.getByRole('button', { name: new RegExp(name) }).click();
    await add.getByRole('button', { name: /^CPU, full speed, \d+ min$/ }).click();
    await add.getByRole('button', { name: /^open up, \d+ min$/ }).click();
    await expect(add.getByText('CPU, full speed: in the day')).toBeVisible();
  }
  await page.getByRole('heading', { name: 'Bench day' }).click();
  await page.keyboard.press('o');
  await expect(page.getByText(/ends at \d\d:\d\d, no order ends earlier/)).toBeVisible();
  const table = page.getByRole('region', { name: 'table of the day' });
  await expect(table.getByRole('button')).toHaveCount(4);
  await expect(page.getByRole('list', { name: 'what cannot be' })).toHaveCount(0);
  // one that is moved into another says so, and comes back by undo
  const act = table.getByRole('button', { name: new RegExp(`Daybreak${stamp}, open up`) });
  const before = await act.getAttribute('aria-label');
  await act.focus();
  const wrong = page.getByRole('list', { name: 'what cannot be' });
  for (let k = 0; k < 40 && (await wrong.count()) === 0; k++) {
    await page.keyboard.press(/09:00/.test(before ?? '') ? 'ArrowRight' : 'ArrowLeft');
  }
  await expect(wrong).toContainText(`Daybreak${stamp}`);
  await page.getByRole('heading', { name: 'Bench day' }).click();
  await page.keyboard.press('o');
  await expect(wrong).toHaveCount(0);
  // what is dragged snaps to five minutes
  const box = (await act.boundingBox())!;
  await page.mouse.move(box.x + 8, box.y + 8);
  await page.mouse.down();
  await page.mouse.move(box.x + 150, box.y + 8, { steps: 5 });
  await page.mouse.up();
  await expect(act).toHaveAttribute('aria-label', /, \d\d:\d[05] to/);
  // kept: a reload shows the same
  await expect(page.getByTestId('day-saving')).toContainText(/saved/);
  const label = await act.getAttribute('aria-label');
  await page.reload();
  await expect(act).toHaveAttribute('aria-label', label!);
  // the calendar holds an event for each
  const download = page.waitForEvent('download');
  await page.keyboard.press('i');
  const text = readFileSync((await (await download).path())!, 'utf8');
  expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(4);
  // what begins moves the rest on: nobody begins before now
  const begins = page.getByLabel('begins', { exact: true });
  await begins.fill(
    await page.evaluate(() => {
      const local = new Date(Date.now() - 60_000 * (90 + new Date().getTimezoneOffset()));
      return local.toISOString().slice(0, 16);
    }),
  );
  await expect(page.getByRole('status').filter({ hasText: 'due since' })).toBeVisible();
  await page.getByRole('button', { name: new RegExp(`Daybreak${stamp}, open up begins`) }).click();
  await expect(
    page.getByRole('button', { name: new RegExp(`Daybreak${stamp}, open up is done`) }),
  ).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('button', { name: /Put in order/ })).toBeHidden();
  await expect(page.getByRole('table', { name: 'acts of the day' })).toBeVisible();
  await page.emulateMedia({ media: 'screen' });
  for (let left = 4; left > 0; left--) {
    await page
      .getByRole('button', { name: /^remove / })
      .first()
      .click();
    await expect(page.getByRole('button', { name: /^remove / })).toHaveCount(left - 1);
  }
  await begins.fill('');
  await expect(page.getByText('Nothing yet.')).toBeVisible();
  await expect(page.getByTestId('day-saving')).toContainText(/saved/);
  await putAside(page, first);
  await putAside(page, second);
  expect(errors).toEqual([]);
});
