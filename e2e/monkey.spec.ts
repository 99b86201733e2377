import { expect, test, type Page } from '@playwright/test';
import { copyOf, putAsideOpen, watchErrors } from './support';

/** The same keys each time; another seed in MONKEY_SEED tries others. */
const SEED = Number(process.env['MONKEY_SEED'] ?? 5);
/** On each step; MONKEY_KEYS asks for more or fewer. */
const KEYS = Number(process.env['MONKEY_KEYS'] ?? 2000);
/** Keys between two looks. */
const LOOK_EVERY = 50;

/** A seeded generator (mulberry32, public domain). */
function random(seed: number): () => number {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** What a restless hand presses in a field: figures and their half, words, ways through the fields. */
const TYPED = [
  ...'0123456789',
  '.',
  ',',
  '-',
  '/',
  '%',
  '?',
  '~',
  ' ',
  'm',
  'c',
  'i',
  'n',
  'x',
  'e',
];
const MOVES = [
  'Enter',
  'Enter',
  'Enter',
  'Shift+Enter',
  'Tab',
  'Shift+Tab',
  'Backspace',
  'Delete',
  'End',
  'Home',
];

const inField = (page: Page) =>
  page.evaluate(() => document.activeElement?.matches('input, select, textarea') ?? false);

/** Figures as the server has them. */
const recordOf = (page: Page, id: string) =>
  page.evaluate(
    async (id) =>
      ((await (await fetch(`/api/machines/${id}`)).json()) as { record: unknown }).record,
    id,
  );

for (const step of ['identify', 'outside', 'cooling', 'cooling?parts=finStacks'] as const) {
  test(`a restless hand on ${step}: nothing is thrown, no stored figure is lost, no key goes astray`, async ({
    page,
  }) => {
    test.setTimeout(1_800_000);
    const errors = watchErrors(page);
    const id = await copyOf(page, 'thick and quiet', { maker: 'Restless', model: step });
    await page.goto(`/machines/${id}/${step}`);
    await expect(page.getByTestId('watts-36')).toBeVisible();
    const before = await recordOf(page, id);
    const next = random(SEED);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!;
    const fields = page.locator('main').locator('input[type=text], input:not([type])');
    await fields.first().click();
    const start = page.url();
    for (let k = 0; k < KEYS; k++) {
      if (!(await inField(page))) {
        // on a button or link, which a key would press: back to a field
        await fields.nth(Math.floor(next() * (await fields.count()))).focus();
      }
      await page.keyboard.press(next() < 0.75 ? pick(TYPED) : pick(MOVES));
      if (k % LOOK_EVERY) continue;
      // no key was taken for a command: the page is the same one, and nothing opened
      expect(page.url().split('?')[0]).toBe(start.split('?')[0]);
      await expect(page.locator('dialog[open]')).toHaveCount(0);
      expect(errors).toEqual([]);
    }
    // what is half typed is left; then every step is taken back, and all is as it was
    await page.keyboard.press('Escape');
    await expect(page.getByTestId('save-status')).toContainText(/saved|kept/);
    const undo = page.getByRole('button', { name: 'undo', exact: true });
    for (let k = 0; k < 400 && (await undo.isEnabled()); k++)
      await page.keyboard.press('Control+z');
    await expect(page.getByTestId('save-status')).toContainText(/^saved/);
    expect(await recordOf(page, id)).toEqual(before);
    expect(errors).toEqual([]);
    await putAsideOpen(page);
  });
}
