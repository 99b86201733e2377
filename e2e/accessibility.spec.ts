import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { countByKeys, openMachine, putAsideOpen } from './support';

const WIDE = { width: 1280, height: 800 };
const NARROW = { width: 390, height: 844 };

for (const theme of ['chalk', 'dim'] as const) {
  test(`no accessibility fault on any view, wide or narrow, ${theme}`, async ({ page }) => {
    // a dozen views, each looked through node by node while bands are being made
    test.setTimeout(1_800_000);
    // what fades in is looked at when it is there
    await page.emulateMedia({ reducedMotion: 'reduce' });
    await page.addInitScript((t) => localStorage.setItem('zugluft.theme', t), theme);
    await openMachine(page, 'Studio, 8-core');
    const faults: string[] = [];
    const check = async (view: string) => {
      for (const size of [WIDE, NARROW]) {
        await page.setViewportSize(size);
        const axe = new AxeBuilder({ page });
        // all but its colours is the same on a dim screen
        if (theme === 'dim') axe.withRules(['color-contrast', 'link-in-text-block']);
        const { violations } = await axe.analyze();
        for (const v of violations) {
          faults.push(
            `${view}, ${size.width} px: ${v.id}: ${v.nodes
              .map((n) => n.target.join(' '))
              .slice(0, 3)
              .join(' | ')}`,
          );
        }
      }
      await page.setViewportSize(WIDE);
    };
    for (const key of ['k', 'i', 'o', 'l', 'e', 'g']) {
      await page.keyboard.press(key);
      await page.waitForLoadState('networkidle');
      await check(page.url().split('/').pop()!);
    }
    await page.keyboard.press('l');
    await expect(page.getByTestId('screw-map')).toBeVisible();
    for (const [key, text] of [
      ['2', 'Parts ledger'],
      ['3', 'Agreed deviation'],
      ['4', 'Back together'],
    ] as const) {
      await page.keyboard.press(key);
      await expect(page.getByRole('heading', { name: text })).toBeVisible();
      await check(`open up, ${text}`);
    }
    await page.keyboard.press('f');
    await expect(page.getByTestId('bench-step')).toBeVisible();
    await check('bench');
    await page.keyboard.press('/');
    await expect(page.getByTestId('bench-panel')).toBeVisible();
    await check('bench, more');
    await page.keyboard.press('v');
    await check('bench, way back');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog', { name: 'bench mode' })).toHaveCount(0);
    await page.keyboard.press('k');
    await expect(page.getByRole('tab', { name: 'Vents' })).toBeVisible();
    await expect(async () => {
      await page.keyboard.press('6');
      await expect(page.getByRole('tab', { name: 'Vents' })).toHaveAttribute(
        'aria-selected',
        'true',
        { timeout: 1000 },
      );
    }).toPass();
    await check('cooling, vents');
    for (const [key, name] of [
      ['1', 'Dies'],
      ['2', 'Plates'],
      ['3', 'Heat pipes'],
      ['4', 'Fin stacks'],
      ['5', 'Fans'],
      ['7', 'Strips'],
      ['8', 'Pads'],
    ] as const) {
      await page.keyboard.press(key);
      await expect(page.getByRole('tab', { name })).toHaveAttribute('aria-selected', 'true');
      await check(`cooling, ${name}`);
    }
    await page.keyboard.press('e');
    await page.keyboard.press('w');
    await expect(
      page
        .getByRole('img', { name: /over time|watts/i })
        .or(page.getByText(/simulated|over/i))
        .first(),
    ).toBeVisible();
    await check('over time');
    await page.keyboard.press('?');
    await expect(page.locator('dialog[open]')).toHaveCount(1);
    await check('keys');
    await page.keyboard.press('Escape');
    await page.keyboard.press('u');
    await expect(page.locator('dialog[open]')).toHaveCount(1);
    await check('units');
    await page.keyboard.press('Escape');
    await page.keyboard.press('/');
    await expect(page.locator('#palette-list').getByRole('option').first()).toBeVisible();
    await check('palette');
    await page.keyboard.press('Escape');
    await page.goto(page.url().replace(/\/estimate.*$/, '/bench-sheet'));
    await expect(page.getByTestId('bench-sheet')).toBeVisible();
    await check('bench sheet');
    await page.keyboard.press('k');
    await page.getByLabel(/count/).first().focus();
    await page.keyboard.press('F1');
    await expect(page.locator('dialog[open]')).toHaveCount(1);
    await check('how to measure');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await page.keyboard.press('y');
    await expect(page.getByTestId('history')).toContainText('first kept');
    await check('history');
    await page.keyboard.press('9');
    await expect(page.locator('[data-lever] svg').first()).toBeVisible();
    await page.locator('[data-levers] button[aria-expanded]').first().click();
    await page.getByRole('button', { name: /the smallest fans/ }).click();
    await expect(page.getByTestId('design-machine').getByRole('img')).toBeVisible();
    await check('levers');
    await page.keyboard.press('0');
    await expect(page.getByTestId('headline')).toBeVisible();
    await check('verdict');
    await page.keyboard.press('p');
    const photo = page.getByRole('button', { name: /^open Underside/ });
    await expect(photo).toBeVisible();
    await check('photos');
    await photo.click();
    await expect(page.getByRole('dialog').getByRole('img')).toBeVisible();
    await check('a photo large');
    await page.keyboard.press('m');
    const pane = page.getByTestId('photo-pane');
    await expect(page.getByRole('region', { name: 'marks', exact: true })).toBeVisible();
    // the other manner of colour may have left its mark in this photo
    const marks = page.getByTestId('marks').getByRole('listitem');
    const before = await marks.count();
    await pane.focus();
    await page.keyboard.press('r');
    for (let i = 0; i < 4; i++) await page.keyboard.press('Enter');
    await page.keyboard.press('l');
    await page.keyboard.press('Enter');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('Enter');
    await expect(marks).toHaveCount(before + 1);
    await check('measuring in a photo');
    await page.goto('/house-rules');
    await expect(page.getByRole('radio').first()).toBeVisible();
    await check('house rules');
    await page.goto('/runs');
    await expect(page.getByTestId('residual-summary')).toBeVisible({ timeout: 120_000 });
    await check('runs of the library');
    await page.goto('/');
    await expect(
      page.getByRole('region', { name: 'in work' }).getByRole('link').first(),
    ).toBeVisible();
    await check('overview');
    await page.goto('/bench-day');
    await expect(page.getByRole('table', { name: 'acts of the day' })).toBeVisible();
    await check('bench day');
    await page.goto('/method');
    await expect(page.locator('.katex').first()).toBeVisible();
    await page.getByRole('button', { name: 'installed pressure coefficient' }).click();
    await check('method');
    await page.goto('/library');
    await expect(page.getByTestId('library').getByRole('link').first()).toBeVisible();
    await page.keyboard.press('g');
    await check('library');
    await page.keyboard.press('Escape');
    await page.keyboard.press('x');
    await expect(page.locator('dialog[open]')).toHaveCount(1);
    await check('import and export');
    await page.keyboard.press('Escape');
    await page.goto('/library?needW=80');
    await page.getByRole('button', { name: /^Quick count/ }).click();
    await countByKeys(page);
    await check('quick count');
    await page.getByLabel('fins of a stack').fill('300');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('alert')).toBeVisible();
    await page.getByRole('button', { name: 'start from a machine like this one' }).click();
    await expect(page.getByRole('searchbox', { name: 'a machine like this one' })).toBeFocused();
    await check('quick count, refused');
    await page.getByLabel('fins of a stack').fill('64');
    await page.keyboard.press('Escape');
    await putAsideOpen(page);
    await page.goto('/nowhere');
    await check('an unknown address');
    const ids = await page.evaluate(async () => {
      const list = (await (await fetch('/api/machines')).json()) as { items: { id: string }[] };
      return list.items.slice(0, 2).map((m) => m.id);
    });
    await page.goto(`/compare/${ids.join('/')}`);
    await expect(page.getByTestId('differences')).toBeVisible();
    await check('side by side');
    expect(faults).toEqual([]);
  });
}

test('a phone on the bench: nothing is wider than 390 px', async ({ page }) => {
  await openMachine(page, 'Studio, 8-core');
  await page.setViewportSize({ width: 390, height: 800 });
  for (const path of [
    'identify',
    'outside',
    'cooling',
    'estimate',
    'runs',
    'levers',
    'verdict',
    'history',
  ]) {
    await page.goto(page.url().replace(/[^/]+$/, path));
    await expect(page.getByTestId('answer-bar')).toContainText(/\d W/);
    const width = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(width).toBeLessThanOrEqual(390);
  }
  const at = page.url().replace(/[^/]+$/, 'open-up');
  for (const [path, there] of [
    ['', page.getByTestId('screw-map')],
    ['/parts', page.getByRole('heading', { name: 'Parts ledger' })],
    ['/score', page.getByTestId('score')],
    ['/guide', page.getByTestId('guide')],
    ['/bench', page.getByTestId('bench-step')],
  ] as const) {
    await page.goto(`${at}${path}`);
    await expect(there).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
      390,
    );
  }
  await page.goto('/library?chamber=1');
  await expect(page.getByTestId('library').getByRole('link').first()).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.goto('/method?find=psi');
  await expect(page.getByTestId('defaults')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});
