import { appendFileSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { ownServer } from './ownServer';

const server = ownServer(1);
test.use({ baseURL: server.address });
test.beforeAll(server.start);
test.afterAll(server.end);

test('a log that a logger writes into the inbox grows live, through a killed server, and is taken as it is', async ({
  page,
}) => {
  const record = JSON.parse(readFileSync('examples/two-fan-shared-pipes.json', 'utf8')) as object;
  const made = await page.request.post('/api/machines', { data: { record } });
  const { id } = (await made.json()) as { id: string };
  const lines = readFileSync('examples/load-two-fans.csv', 'utf8').split('\n');
  const folder = join(server.data, 'inbox');
  mkdirSync(folder, { recursive: true });
  const log = join(folder, 'logger.csv');
  // half a line: the logger is at it
  writeFileSync(log, `${lines.slice(0, 401).join('\n')}\n${lines[401]!.slice(0, 9)}`);

  await page.goto(`/machines/${id}/runs`);
  await page.getByRole('button', { name: /new run/ }).click();
  await expect(page.getByText('no log yet')).toBeVisible();
  await page.keyboard.press('j');
  const inbox = page.getByRole('region', { name: 'inbox' });
  await inbox.getByRole('button', { name: 'follow: logger.csv' }).click();
  await expect(inbox).toContainText('followed while it grows');
  await expect(page.getByTestId('run-chart').locator('canvas').first()).toBeVisible();
  const last = page.getByRole('slider', { name: 'the window ends' });
  const shown = async () => {
    const answer = await page.request.get(`/api/machines/${id}/runs`).catch(() => null);
    const run = answer?.ok()
      ? ((await answer.json()) as { items: { id: string }[] }).items[0]
      : null;
    const series = run
      ? await page.request.get(`/api/machines/${id}/runs/${run.id}/series`).catch(() => null)
      : null;
    return series?.ok() ? ((await series.json()) as { lastS: number }).lastS : 0;
  };
  expect(await shown()).toBeLessThan(420);

  // the power goes while the logger writes on
  await server.kill();
  appendFileSync(log, `${lines[401]!.slice(9)}\n${lines.slice(402, 1202).join('\n')}\n`);
  await expect(page.getByText(/inbox cannot be read at the moment/)).toBeVisible();
  await server.start();
  await expect(inbox).toContainText('followed while it grows');
  await expect.poll(shown).toBeGreaterThan(1100);
  await expect(last).toBeVisible();

  // the rest of it, and taken
  appendFileSync(log, lines.slice(1202).join('\n'));
  await expect.poll(shown).toBeGreaterThan(1500);
  await inbox.getByRole('button', { name: 'take it as it is: logger.csv' }).click();
  await expect(inbox).toContainText('taken');
  await expect(page.getByTestId('run-sustained')).toHaveText(/48 W CPU 57 W GPU/);
  await page.reload();
  await expect(page.getByTestId('run-sustained')).toHaveText(/48 W CPU 57 W GPU/);
  // what the logger wrote lies there as it was
  expect(readFileSync(log, 'utf8')).toBe(lines.join('\n'));
});
