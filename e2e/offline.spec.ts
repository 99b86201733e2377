import { expect, test } from '@playwright/test';
import { ownServer } from './ownServer';
import { makeMachine } from './support';

const server = ownServer(2);
test.use({ baseURL: server.address, serviceWorkers: 'allow' });
test.beforeAll(server.start);
test.afterAll(server.end);

test('what a page read past the worker, as after a reload that asks for everything anew, is there while the server is away', async ({
  page,
}) => {
  const id = await makeMachine(page, { maker: 'Kept', model: 'Apart' });
  await page.evaluate(() => navigator.serviceWorker.ready);
  const controlled = () => page.evaluate(() => navigator.serviceWorker.controller !== null);
  await expect.poll(controlled).toBe(true);
  const place = page.getByRole('navigation', { name: 'place' });
  await page.goto(`/machines/${id}/identify`);
  await expect(place).toContainText('Kept Apart');
  // nothing was kept yet, and the worker has no hand in what is read now
  await page.evaluate(async () => {
    for (const name of await caches.keys()) {
      if (name.startsWith('zugluft-answers')) await caches.delete(name);
    }
  });
  const browser = await page.context().newCDPSession(page);
  const loaded = page.waitForEvent('load');
  await browser.send('Page.reload', { ignoreCache: true });
  await loaded;
  await expect(place).toContainText('Kept Apart');
  // it is taken by the worker all the same, and what it read is kept
  await expect.poll(controlled).toBe(true);
  await expect
    .poll(() =>
      page.evaluate(async (id) => {
        const kept = await caches.match(`/api/machines/${id}`);
        return kept !== undefined;
      }, id),
    )
    .toBe(true);
  await server.kill();
  await page.reload();
  await expect(place).toContainText('Kept Apart');
});
