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
  // what was kept is old, and the worker has no hand in what is read first, once and by nothing else of the page
  const once = '/api/settings';
  await page.addInitScript((once) => {
    // an answer that nobody reads to its end is no read one
    void fetch(once)
      .then((answer) => answer.text())
      .catch(() => undefined);
  }, once);
  await page.evaluate(async (once) => {
    for (const name of await caches.keys()) {
      if (!name.startsWith('zugluft-answers')) continue;
      await caches.delete(name);
      await (await caches.open(name)).put(once, new Response('old'));
    }
  }, once);
  const browser = await page.context().newCDPSession(page);
  const loaded = page.waitForEvent('load');
  await browser.send('Page.reload', { ignoreCache: true });
  await loaded;
  await expect(place).toContainText('Kept Apart');
  // it is taken by the worker all the same, and what it read is kept
  await expect.poll(controlled).toBe(true);
  const kept = (path: string) =>
    page.evaluate(async (path) => (await (await caches.match(path))?.text()) ?? 'nothing', path);
  await expect.poll(() => kept(once)).toContain('"rubric"');
  await expect.poll(() => kept(`/api/machines/${id}`)).toContain('Apart');
  await server.kill();
  await page.reload();
  await expect(place).toContainText('Kept Apart');
});
