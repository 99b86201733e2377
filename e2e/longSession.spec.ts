import { expect, test, type Page } from '@playwright/test';
import { randomStream } from '@zugluft/core/uncertainty/random';
import { copyOf, putAsideOpen, saved } from './support';

/** Rounds of an hour's work; ZUGLUFT_ROUNDS=60 is about an hour of them. */
const ROUNDS = Number(process.env['ZUGLUFT_ROUNDS'] ?? 4);
/** Until then pages and their parts are still being read for the first time. */
const FIRST_ROUNDS = 3;
const VIEWS = ['identify', 'outside', 'cooling', 'estimate', 'levers', 'verdict', 'photos'];

/** What the page still points at; bytes are no measure of it, since machine code made on the way counts among them. */
interface Held {
  objects: number;
  nodes: number;
  listeners: number;
}

/** How many objects a page holds, seen always from the same views: what is drawn now and what was drawn last are held still. */
async function held(page: Page): Promise<Held> {
  for (const view of ['outside', 'identify']) {
    await page.getByRole('navigation', { name: 'steps' }).locator(`a[href*="/${view}"]`).click();
    await expect(page).toHaveURL(new RegExp(view));
    await page.waitForLoadState('networkidle');
  }
  const browser = await page.context().newCDPSession(page);
  await browser.send('HeapProfiler.enable');
  // what ends asynchronously lets go of what it held between two looks
  for (let k = 0; k < 3; k++) {
    await browser.send('HeapProfiler.collectGarbage');
    await page.evaluate(() => new Promise((resolve) => setTimeout(resolve, 100)));
  }
  const { result } = await browser.send('Runtime.evaluate', { expression: 'Object.prototype' });
  const found = await browser.send('Runtime.queryObjects', {
    prototypeObjectId: result.objectId as string,
  });
  const counted = await browser.send('Runtime.callFunctionOn', {
    objectId: found.objects.objectId as string,
    functionDeclaration: 'function () { return this.length; }',
    returnByValue: true,
  });
  const { nodes, jsEventListeners } = await browser.send('Memory.getDOMCounters');
  await browser.detach();
  return { objects: Number(counted.result.value), nodes, listeners: jsEventListeners };
}

/** Goes through a machine's file without loading anything anew, and types as it goes. */
async function workOneRound(page: Page, round: number, random: () => number): Promise<void> {
  for (const view of VIEWS) {
    await page.getByRole('navigation', { name: 'steps' }).locator(`a[href*="/${view}"]`).click();
    await expect(page.locator('main')).toBeVisible();
    if (view !== 'outside') continue;
    const field = page.getByLabel('Thickness, mm', { exact: true });
    await field.fill((18 + random() * 8).toFixed(1));
    await field.press('Enter');
    await expect(saved(page)).toHaveCount(1);
  }
  await page
    .getByRole('navigation', { name: 'place' })
    .getByRole('link', { name: 'Library' })
    .click();
  await page.getByRole('searchbox').fill(`round ${round % 2}`);
  await expect(page.getByRole('searchbox')).toHaveValue(/round/);
  await page.goBack();
}

test('an hour of typing and switching, shortened: what the page holds does not grow', async ({
  page,
}) => {
  test.setTimeout(7_200_000);
  const id = await copyOf(page, 'thick and quiet', { maker: 'Long', model: 'Session' });
  await page.goto(`/machines/${id}/estimate`);
  await expect(page.getByTestId('watts-36')).toBeVisible();
  const random = randomStream(11);
  for (let k = 0; k < FIRST_ROUNDS; k++) await workOneRound(page, k, random);
  const before = await held(page);
  for (let k = 0; k < ROUNDS; k++) await workOneRound(page, k, random);
  const after = await held(page);
  test.info().annotations.push({ type: 'held', description: JSON.stringify({ before, after }) });
  // forty rounds add less than a thousandth of the objects, and no node or listener but what comes and goes
  for (const what of ['objects', 'nodes', 'listeners'] as const)
    expect(after[what], what).toBeLessThan(before[what] * 1.02);
  expect(before.objects).toBeGreaterThan(10_000);
  await putAsideOpen(page);
});
