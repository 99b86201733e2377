import { expect, test, type Locator, type Page } from '@playwright/test';
import { countByKeys, openMachine, putAsideOpen } from './support';

/** Views of a machine's file and of the program. */
const VIEWS = [
  'identify',
  'outside',
  'cooling?parts=dies',
  'cooling?parts=finStacks',
  'cooling?parts=vents',
  'estimate',
  'runs',
  'runs?view=calibration',
  'levers',
  'verdict',
  'open-up',
  'open-up/parts',
  'open-up/score',
  'open-up/guide',
  'photos',
  'history',
] as const;

interface Small {
  what: string;
  width: number;
  height: number;
}

/** What can be hit and is smaller than allowed: links within a sentence and parts drawn to scale on a plan are not meant. */
const tooSmall = (page: Page, least: number): Promise<Small[]> =>
  page.evaluate((least) => {
    const hit = document.querySelectorAll<HTMLElement>(
      'a[href], button, input, select, textarea, summary, [role=button], [role=tab], [role=separator]',
    );
    const out: Small[] = [];
    for (const x of hit) {
      if (x.closest('svg') || !x.checkVisibility()) continue;
      if (x.matches('.sr-only, .sr-only *')) continue;
      // edges that are dragged are as long as their pane
      if (x.matches('[role=separator]')) continue;
      const inSentence =
        x.matches('p a, p button, figcaption a') && getComputedStyle(x).display === 'inline';
      if (inSentence) continue;
      const box = x.getBoundingClientRect();
      if (box.width === 0 || box.height === 0) continue;
      // a label that belongs to it is hit as well
      const label = x.closest('label')?.getBoundingClientRect();
      const width = Math.max(box.width, label?.width ?? 0);
      const height = Math.max(box.height, label?.height ?? 0);
      if (width < least - 0.5 || height < least - 0.5) {
        out.push({
          what: `${x.tagName} ${x.getAttribute('aria-label') ?? x.textContent?.trim().slice(0, 30)} ${x.className.toString().slice(0, 60)}`,
          width: Math.round(width),
          height: Math.round(height),
        });
      }
    }
    return out;
  }, least);

/** Words that are drawn smaller than 12 px. */
const smallWords = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const out = new Set<string>();
    const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walk.nextNode(); node; node = walk.nextNode()) {
      const at = node.parentElement;
      const words = node.textContent?.trim();
      if (!at || !words || !at.checkVisibility()) continue;
      // equations have their own sizes; what is for hearing only is not seen
      if (at.closest('.katex, .sr-only, script, style, title, option')) continue;
      let px = Number.parseFloat(getComputedStyle(at).fontSize);
      const svg = at.closest('svg');
      if (svg && at instanceof SVGGraphicsElement) {
        const m = at.getScreenCTM();
        if (m) px *= Math.hypot(m.a, m.b);
      }
      if (px < 11.9) out.add(`${px.toFixed(1)} px: ${words.slice(0, 30)} (${at.className})`);
    }
    return [...out];
  });

/** Waits until all is as large as it should be: drawings fit their words once they know their own size. */
async function expectReach(page: Page, view: string, leastPx: number): Promise<void> {
  const look = async () => [
    ...(await tooSmall(page, leastPx)).map((s) => `${s.width}×${s.height} ${s.what}`),
    ...(await smallWords(page)),
  ];
  await expect.poll(look, { message: view }).toEqual([]);
}

/** What a view shows late, so that it is looked at with it. */
const LATE: Partial<Record<string, (page: Page) => Locator>> = {
  'runs?view=calibration': (page) => page.getByRole('button', { name: /^hold out/ }).first(),
  levers: (page) => page.locator('[data-lever] svg').first(),
  verdict: (page) => page.getByTestId('headline'),
  '/': (page) => page.getByRole('region', { name: 'latest runs' }).getByRole('link').last(),
};

async function eachView(page: Page, look: (view: string) => Promise<void>): Promise<void> {
  const at = page.url().replace(/\/cooling.*$/, '');
  for (const view of VIEWS) {
    await page.goto(`${at}/${view}`);
    await expect(
      page.getByTestId('watts-36').or(page.getByTestId('answer-bar')).first(),
    ).toBeVisible();
    const late = LATE[view]?.(page);
    if (late) await expect(late).toBeAttached();
    await look(view);
  }
  const pages = [
    '/',
    '/?chamber=1',
    '/',
    '/method',
    '/house-rules',
    '/bench-day',
    '/runs',
    '/learned',
  ];
  for (const view of pages) {
    await page.goto(view);
    await expect(page.locator('main h1').first()).toBeVisible();
    const late = LATE[view]?.(page);
    if (late) await expect(late).toBeAttached({ timeout: 120_000 });
    await look(view);
  }
}

test('at the desk what is hit has at least 24 px, and words at least 12 px; no view asks anything of another address', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const asked = new Set<string>();
  page.on('request', (request) => {
    const url = new URL(request.url());
    if (url.protocol !== 'data:') asked.add(url.origin);
  });
  await openMachine(page, 'Studio, 8-core');
  await eachView(page, (view) => expectReach(page, view, 24));
  await page.goto('/library');
  await page.getByRole('button', { name: /^Quick count/ }).click();
  await countByKeys(page);
  await expectReach(page, 'quick count', 24);
  expect([...asked]).toEqual([new URL(page.url()).origin]);
  await putAsideOpen(page);
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('the answer stays in sight; what is hit has at least 44 px, words at least 12 px, keys are not shown', async ({
    page,
  }) => {
    test.setTimeout(300_000);
    await page.goto('/library');
    await page.getByRole('searchbox').fill('Studio, 8-core');
    await expect(page.getByTestId('library').getByRole('link')).toHaveCount(1);
    await page.getByTestId('library').getByRole('link').tap();
    // the answer stays in sight while one types at the end of a page, and opens to the ladder
    const bar = page.getByTestId('answer-bar');
    await expect(bar).toContainText(/\d W/);
    const before = await bar.textContent();
    const length = page.getByLabel('pipe-1, flattened width, mm', { exact: true });
    await length.scrollIntoViewIfNeeded();
    await length.tap();
    await page.keyboard.type('7');
    await expect(bar).toBeInViewport();
    await expect(bar).not.toHaveText(before ?? '');
    await bar.getByRole('button', { name: 'open the ladder' }).tap();
    await expect(page.getByTestId('watts-36')).toBeVisible();
    await bar.getByRole('button', { name: 'close the ladder' }).tap();
    await eachView(page, async (view) => {
      await expectReach(page, view, 44);
      const wide = await page.evaluate(() => document.documentElement.scrollWidth);
      expect(wide, `${view}, wide`).toBeLessThanOrEqual(390);
      expect(await page.locator('.key-hint:visible').count()).toBe(0);
    });
    await page.goto('/library');
    await page.getByRole('button', { name: /^Quick count/ }).tap();
    await countByKeys(page);
    await expectReach(page, 'quick count', 44);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(wide, 'quick count, wide').toBeLessThanOrEqual(390);
    await putAsideOpen(page);
  });
});
