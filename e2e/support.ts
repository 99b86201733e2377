import { readFileSync } from 'node:fs';
import { expect, type Locator, type Page } from '@playwright/test';
import { DEMO_MACHINES } from '../demo/machines';

/** Opens a demo machine by words of its name, from the library, and waits for its answer. */
export async function openMachine(page: Page, words: string): Promise<void> {
  await page.goto('/library');
  await page.getByRole('searchbox').fill(words);
  const link = page.getByTestId('library').getByRole('link');
  await expect(link).toHaveCount(1);
  await link.click();
  await expect(page.getByTestId('watts-36')).toBeVisible();
}

/** The watts a rung of the ladder shows once its draws are made. */
export async function watts(page: Page, cap: string): Promise<number> {
  await expect(page.getByRole('list', { name: 'noise ladder' })).not.toHaveAttribute(
    'data-provisional',
  );
  return Number.parseFloat((await page.getByTestId(`watts-${cap}`).textContent()) ?? 'NaN');
}

/** Waits until the browser would open the page without a server: the program is kept, its worker at hand, and a machine read. */
export async function keptByBrowser(page: Page, machineId: string): Promise<void> {
  await page.evaluate(() => navigator.serviceWorker.ready);
  const isAtHand = () => page.evaluate(() => navigator.serviceWorker.controller !== null);
  await expect.poll(isAtHand).toBe(true);
  const path = `/api/machines/${machineId}`;
  const isKept = () => page.evaluate(async (p) => (await caches.match(p)) !== undefined, path);
  await expect.poll(isKept).toBe(true);
}

/** Counts a machine with two fans in an open quick count, up to its first answer. */
export async function countByKeys(page: Page): Promise<void> {
  await expect(page.getByLabel('fans', { exact: true })).toBeFocused();
  for (const text of ['2', '58', '8', '2', '70', '24']) {
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  }
  await expect(
    page.getByTestId('watts-36').or(page.getByTestId('answer-bar').getByText(/\d W/)).first(),
  ).toBeVisible();
}

/** Puts the open machine aside, so that the tests that follow find the library as it was. */
export async function putAsideOpen(page: Page): Promise<void> {
  await expect(saved(page)).toHaveCount(1);
  const id = /machines\/([^/?]+)/.exec(page.url())![1]!;
  const { revision } = (await (await page.request.get(`/api/machines/${id}`)).json()) as {
    revision: number;
  };
  const aside = await page.request.post(`/api/machines/${id}/put-aside`, {
    headers: { 'If-Match': `"${revision}"` },
  });
  expect(aside.ok()).toBe(true);
}

export const saved = (page: Page): Locator =>
  page.getByTestId('save-status').filter({ hasText: /^saved/ });

/** Opens the tab of a kind of part. */
export async function openParts(page: Page, name: string): Promise<void> {
  await page.getByRole('tab', { name }).click();
}

/** Fails the test on any error the page reports. */
export function watchErrors(page: Page): string[] {
  const errors: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));
  page.on('console', (m) => {
    if (m.type() === 'error') errors.push(m.text());
  });
  return errors;
}

/**
 * Makes a machine like a demo machine under a name of its own, so that what is done to it touches no other test; from the demo's own
 * record, since that in the library is whatever other tests have made of it.
 *
 * @param words of its variant
 */
export async function copyOf(page: Page, words: string, identity: object): Promise<string> {
  const record = DEMO_MACHINES.find((m) => m.identity?.variant?.includes(words));
  expect(record).toBeDefined();
  const made = await page.request.post('/api/machines', {
    data: { record: { ...record, identity } },
  });
  expect(made.status()).toBe(201);
  return ((await made.json()) as { id: string }).id;
}

/** Opens a copy of a demo machine that a test may change as it likes, and waits for its answer. */
export async function openCopy(page: Page, words: string): Promise<void> {
  const id = await copyOf(page, words, { maker: 'Apart', model: words });
  await page.goto(`/machines/${id}/cooling`);
  await expect(page.getByTestId('watts-36')).toBeVisible();
}

/** Makes a machine at the server and leaves the page in the library. */
export async function makeMachine(page: Page, identity: object): Promise<string> {
  await page.goto('/library');
  return page.evaluate(async (identity) => {
    const record = { format: 'zugluft-record', formatVersion: 1, identity };
    const made = await fetch('/api/machines', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ record }),
    });
    return ((await made.json()) as { id: string }).id;
  }, identity);
}

/** A new machine with the record of the example that the logs in examples were made of. */
export async function copyOfExample(page: Page): Promise<string> {
  const record = JSON.parse(readFileSync('examples/two-fan-shared-pipes.json', 'utf8')) as {
    identity?: object;
  };
  record.identity = { ...record.identity, variant: `Copy ${Date.now()}` };
  const made = await page.request.post('/api/machines', { data: { record } });
  expect(made.status()).toBe(201);
  return ((await made.json()) as { id: string }).id;
}

/** Opens the step Runs of such a machine with a run that holds no log yet. */
export async function newRunOfExample(page: Page): Promise<string> {
  const id = await copyOfExample(page);
  await page.goto(`/machines/${id}/runs`);
  await page.getByRole('button', { name: /new run/ }).click();
  await expect(page.getByText('no log yet')).toBeVisible();
  return id;
}
