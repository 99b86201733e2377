import { chromium } from '@playwright/test';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { openDatabase } from '@zugluft/server/database/openDatabase';
import { fill, start, type LoadRow } from './library';
import { longestTask, watchTasks } from './longestTask';
import { writeMillion } from './logs';

const STEPS = 12;

/**
 * The chart of a run of a million rows in Chromium: the longest task while it is zoomed and moved along.
 *
 * @param record of the machine
 */
export async function benchChart(record: CaseRecord): Promise<LoadRow[]> {
  const folder = mkdtempSync(join(tmpdir(), 'zugluft-chart-'));
  const db = await openDatabase(folder);
  await fill(db, record, 1);
  await db.close();
  const file = join(folder, 'million.csv');
  await writeMillion(file);
  const { child, port } = await start(folder);
  const at = `http://127.0.0.1:${port}`;
  const json = async (url: string, init?: RequestInit) =>
    (await fetch(`${at}${url}`, init)).json() as Promise<Record<string, never>>;
  const post = { method: 'POST', headers: { 'Content-Type': 'application/json' } };
  const { items } = (await json('/api/machines?page=1')) as unknown as { items: { id: string }[] };
  const { id } = items[0]!;
  const run = { format: 'zugluft-run', formatVersion: 1, id: crypto.randomUUID() };
  await json(`/api/machines/${id}/runs`, { ...post, body: JSON.stringify(run) });
  const log = (await json(`/api/machines/${id}/runs/${run.id}/logs?file=million.csv`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: readFileSync(file),
  })) as unknown as { sha256: string; rows: number };
  if (log.rows !== 1_000_000) throw new Error(`the log holds ${log.rows} rows`);
  const value = {
    ...run,
    logs: [{ id: 'log-1', file: 'million.csv', kind: 'csv', sha256: log.sha256 }],
  };
  await json(`/api/documents/run/${run.id}`, {
    ...post,
    method: 'PUT',
    headers: { ...post.headers, 'If-Match': '"1"' },
    body: JSON.stringify({ value }),
  });
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--headless', '--no-sandbox', '--disable-gpu', '--no-first-run'],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript('globalThis.__name = (f) => f');
  await page.goto(`${at}/machines/${id}/runs`);
  const chart = page.getByTestId('run-chart');
  await chart.locator('canvas').first().waitFor({ timeout: 180_000 });
  await page.getByTestId('run-sustained').waitFor({ timeout: 180_000 });
  // the estimate beside it draws its bands first
  await page.getByText('of 400 draws').waitFor({ timeout: 180_000 });
  await page.waitForTimeout(3000);
  await watchTasks(page);
  const box = (await chart.boundingBox())!;
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 3 };
  await page.mouse.move(middle.x, middle.y);
  await page.keyboard.down('Control');
  for (let k = 0; k < STEPS; k++) {
    await page.mouse.wheel(0, k < STEPS / 2 ? -240 : 120);
    await page.waitForTimeout(150);
  }
  await page.keyboard.up('Control');
  await page.mouse.down();
  for (let k = 0; k < STEPS; k++) {
    await page.mouse.move(middle.x - 12 * k, middle.y);
    await page.waitForTimeout(40);
  }
  await page.mouse.up();
  await page.waitForTimeout(2000);
  const longest = await longestTask(page);
  await browser.close();
  child.kill('SIGTERM');
  await once(child, 'exit');
  rmSync(folder, { recursive: true, force: true });
  return [
    {
      name: 'page, a run of a million rows: longest task while its chart is zoomed and moved',
      ms: longest,
      bound: 50,
    },
  ];
}
