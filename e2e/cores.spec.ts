import { expect, test, type Page } from '@playwright/test';
import { openMachine, watchErrors } from './support';

/** As if the machine had so many cores; what is told of them is asked in workers. */
const withCores = (page: Page, cores: number) =>
  page.route(/assets\/\w+Worker-[^/]*\.js/, async (route) => {
    const response = await route.fetch();
    const body = (await response.text()).replaceAll('navigator.hardwareConcurrency', String(cores));
    await route.fulfill({ response, body });
  });

test('a finer band, levers and a comparison say the same on any number of cores', async ({
  browser,
}) => {
  const told: { band: string; gains: string; ranks: string }[] = [];
  for (const cores of [1, 4]) {
    const context = await browser.newContext({ serviceWorkers: 'block' });
    const page = await context.newPage();
    const errors = watchErrors(page);
    const helpers = new Map<string, number>();
    page.on('worker', (worker) => {
      const name = /(\w+)Helper-/.exec(worker.url())?.[1];
      if (name) helpers.set(name, (helpers.get(name) ?? 0) + 1);
    });
    await withCores(page, cores);
    await page.goto('/library');
    const library = page.getByTestId('library');
    for (const words of [/thick and quiet/, /four fans/, /one thin fan/, /Studio, 8-core/]) {
      await library.getByRole('row', { name: words }).first().getByRole('checkbox').check();
    }
    await page.keyboard.press('c');
    const figures = page.getByRole('region', { name: 'figures', exact: true });
    await expect(figures.getByRole('row').getByRole('link')).toHaveCount(4);
    const ranks = await figures.getByRole('table').first().innerText();

    await openMachine(page, 'one thin fan');
    const status = page.getByTestId('draw-status');
    await expect(status).toContainText('5–95 % of 400 draws');
    await page.keyboard.press('b');
    await expect(status).toContainText('5–95 % of 4000 draws');
    const band = await page.getByRole('list', { name: 'noise ladder' }).innerText();

    await page.getByRole('link', { name: /^Levers/ }).click();
    const give = page.getByRole('button', { name: /^cancel/ });
    await expect(give).toBeVisible();
    await expect(give).toHaveCount(0);
    const gains = await page.getByRole('table').first().innerText();
    told.push({ band, gains, ranks });
    expect(Object.fromEntries(helpers)).toEqual(cores > 1 ? { compare: 2, draw: 2, lever: 2 } : {});
    expect(errors).toEqual([]);
    await context.close();
  }
  expect(told[1]).toEqual(told[0]);
});
