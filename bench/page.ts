import { chromium, type Page } from '@playwright/test';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { openDatabase } from '@zugluft/server/database/openDatabase';
import { fill, start, type LoadRow } from './library';

const ROWS = 2000;
const OPENED = 8;
const KEYS = 120;
const FRAMES = 240;
const SCROLL_PX = 90;

const median = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1]!;

/** A hand is on a name for at least so long before it presses. */
const HAND_MS = 100;

/** From the click on a machine's name to its answer on the screen, ms, by the page's own clock. */
async function opening(page: Page): Promise<number> {
  const link = page.locator('[data-testid=library] a').first();
  await link.waitFor();
  // someone reads the row before opening it
  await page.waitForLoadState('networkidle');
  await link.hover();
  await page.waitForTimeout(HAND_MS);
  await page.evaluate(() => {
    const opened = new Promise<number>((resolve) => {
      addEventListener(
        'click',
        () => {
          const from = performance.now();
          const look = () => {
            const there = document.querySelector('[data-testid="watts-36"]');
            if (there && /\d/.test(there.textContent ?? '')) resolve(performance.now() - from);
            else requestAnimationFrame(look);
          };
          look();
        },
        { once: true, capture: true },
      );
    });
    Object.assign(window, { opened });
  });
  await page.mouse.down();
  await page.mouse.up();
  return page.evaluate(() => (window as unknown as { opened: Promise<number> }).opened);
}

/** The longest that a key kept the page from anything else, by Chromium's event timing, ms. */
async function typing(page: Page): Promise<number> {
  const depth = page.getByLabel(/depth, mm/).first();
  await page.getByRole('tab', { name: 'Fin stacks' }).click();
  await depth.waitFor();
  await page.evaluate(() => {
    const seen = window as unknown as { longest: number };
    seen.longest = 0;
    new PerformanceObserver((list) => {
      for (const e of list.getEntries() as PerformanceEventTiming[]) {
        seen.longest = Math.max(seen.longest, e.processingEnd - e.processingStart);
      }
    }).observe({ type: 'event', durationThreshold: 16 } as PerformanceObserverInit);
    new PerformanceObserver((list) => {
      for (const e of list.getEntries()) seen.longest = Math.max(seen.longest, e.duration);
    }).observe({ type: 'longtask' });
  });
  await depth.click();
  for (let k = 0; k < KEYS; k++) {
    await page.keyboard.press(k % 3 === 2 ? 'Backspace' : String(1 + (k % 3)));
  }
  // what the last keys set off
  await page.waitForTimeout(1500);
  return page.evaluate(() => (window as unknown as { longest: number }).longest);
}

/** How long frames take while the list scrolls, ms. */
async function scrolling(page: Page): Promise<number[]> {
  await page.locator('[data-testid=library] a').first().waitFor();
  return page.evaluate(
    ({ frames, px }) =>
      new Promise<number[]>((resolve) => {
        const holder = document.querySelector('[data-testid="library-rows"]')!;
        const took: number[] = [];
        let last = performance.now();
        const step = () => {
          const now = performance.now();
          took.push(now - last);
          last = now;
          holder.scrollTop += px;
          if (took.length < frames) requestAnimationFrame(step);
          else resolve(took.slice(10));
        };
        requestAnimationFrame(step);
      }),
    { frames: FRAMES, px: SCROLL_PX },
  );
}

/**
 * The page in Chromium on a library of 2,000 machines: opening a machine, the longest task while a figure is typed, frames while
 * the list scrolls.
 *
 * @param record what every machine is a copy of
 */
export async function benchPage(record: CaseRecord): Promise<LoadRow[]> {
  const folder = mkdtempSync(join(tmpdir(), 'zugluft-bench-'));
  const db = await openDatabase(folder);
  await fill(db, record, ROWS);
  await db.close();
  const { child, port } = await start(folder);
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--headless', '--no-sandbox', '--disable-gpu', '--no-first-run'],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  // the transpiler names functions by a helper that the page does not have
  await page.addInitScript('globalThis.__name = (f) => f');
  const opened: number[] = [];
  await page.goto(`http://127.0.0.1:${port}/library`);
  for (let k = 0; k <= OPENED; k++) {
    await page.getByRole('searchbox').fill(`variant ${100 + k}`);
    await page.waitForURL(`**/library?q=variant+${100 + k}`);
    const ms = await opening(page);
    // the first one also loads the parts of the page
    if (k > 0) opened.push(ms);
    await page
      .getByRole('navigation', { name: 'place' })
      .getByRole('link', { name: 'Library' })
      .click();
  }
  await page.goto(`http://127.0.0.1:${port}/library?q=variant+100`);
  await opening(page);
  const longest = await typing(page);
  await page.goto(`http://127.0.0.1:${port}/library`);
  const frames = await scrolling(page);
  await browser.close();
  child.kill('SIGTERM');
  await once(child, 'exit');
  rmSync(folder, { recursive: true, force: true });
  return [
    {
      name: `page, library of ${ROWS}: a machine opened, click to answer, median`,
      ms: median(opened),
      bound: 100,
    },
    { name: 'page: longest task while a figure is typed', ms: longest, bound: 50 },
    {
      name: `page, library of ${ROWS}: a frame while it scrolls, median`,
      ms: median(frames),
      bound: 1000 / 60 + 0.5,
    },
  ];
}
