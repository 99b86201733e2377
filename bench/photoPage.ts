import { chromium } from '@playwright/test';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { openDatabase } from '@zugluft/server/database/openDatabase';
import sharp from 'sharp';
import { fill, start, type LoadRow } from './library';
import { longestTask, watchTasks } from './longestTask';

const WIDTH = 8900;
const HEIGHT = 6700;
const STEPS = 12;

/** A picture of 60 megapixels in which something is everywhere. */
function photo(): Promise<Buffer> {
  const values = Buffer.alloc(WIDTH * HEIGHT * 3);
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const at = 3 * (y * WIDTH + x);
      values[at] = (x * 3 + (y >> 3)) & 0xff;
      values[at + 1] = ((x >> 4) * 11 + (y >> 4) * 7) & 0xff;
      values[at + 2] = (x ^ y) & 0xff;
    }
  }
  return sharp(values, { raw: { width: WIDTH, height: HEIGHT, channels: 3 } })
    .jpeg({ quality: 80 })
    .toBuffer();
}

/**
 * A photo of 60 megapixels on the page in Chromium: the longest task while it is zoomed and moved.
 *
 * @param record of the machine
 */
export async function benchPhotoPage(record: CaseRecord): Promise<LoadRow[]> {
  const folder = mkdtempSync(join(tmpdir(), 'zugluft-photo-'));
  const db = await openDatabase(folder);
  const [id] = await fill(db, record, 1);
  await db.close();
  const { child, port } = await start(folder);
  const at = `http://127.0.0.1:${port}`;
  const sent = await fetch(`${at}/api/machines/${id}/attachments?name=large.jpg`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: new Uint8Array(await photo()),
  });
  if (!sent.ok) throw new Error(`the photo was not taken: ${await sent.text()}`);
  const { id: photoId } = (await sent.json()) as { id: string };
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--headless', '--no-sandbox', '--disable-gpu', '--no-first-run'],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript('globalThis.__name = (f) => f');
  await page.goto(`${at}/machines/${id}/photos/${photoId}`);
  const pane = page.getByTestId('photo-pane');
  await pane.locator('img').first().waitFor({ timeout: 180_000 });
  await page.getByText('of 400 draws').waitFor({ timeout: 180_000 });
  await page.waitForTimeout(3000);
  await watchTasks(page);
  const box = (await pane.boundingBox())!;
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  await page.mouse.move(middle.x, middle.y);
  for (let k = 0; k < STEPS; k++) {
    await page.mouse.wheel(0, k < 8 ? -240 : 120);
    await page.waitForTimeout(150);
  }
  await page.mouse.down();
  for (let k = 0; k < STEPS; k++) {
    await page.mouse.move(middle.x - 18 * k, middle.y - 9 * k);
    await page.waitForTimeout(40);
  }
  await page.mouse.up();
  // the pieces at full size come after
  await page.waitForTimeout(4000);
  const longest = await longestTask(page);
  await browser.close();
  child.kill('SIGTERM');
  await once(child, 'exit');
  rmSync(folder, { recursive: true, force: true });
  return [
    {
      name: 'page, a photo of 60 megapixels: longest task while it is zoomed and moved',
      ms: longest,
      bound: 50,
    },
  ];
}
