import type { Page } from '@playwright/test';

/** Begins to watch for tasks that keep a page from anything else; those under 50 ms are not told by Chromium. */
export const watchTasks = (page: Page): Promise<void> =>
  page.evaluate(() => {
    const seen = window as unknown as { longest: number };
    seen.longest = 0;
    new PerformanceObserver((list) => {
      for (const e of list.getEntries()) seen.longest = Math.max(seen.longest, e.duration);
    }).observe({ type: 'longtask' });
  });

/** The longest since then, ms; 0 where none took 50. */
export const longestTask = (page: Page): Promise<number> =>
  page.evaluate(() => (window as unknown as { longest: number }).longest);
