import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import { ownServer } from './ownServer';
import { keptByBrowser, makeMachine, watchErrors } from './support';

const server = ownServer(0);
test.use({ baseURL: server.address, serviceWorkers: 'allow' });

const photo = () =>
  sharp({ create: { width: 40, height: 30, channels: 3, background: '#fff' } })
    .png()
    .toBuffer();

test.beforeAll(server.start);
test.afterAll(server.end);

const press = async (page: Page, ...keys: string[]) => {
  for (const key of keys) await page.keyboard.press(key);
};
const times = (n: number, key: string) => Array.from({ length: n }, () => key);
const stepName = (page: Page) => page.getByTestId('bench-step');

/** Reads the cautions if there are new ones, and ends the step. */
async function endStep(page: Page): Promise<void> {
  if (await page.getByText('Enter: read and understood').isVisible()) await press(page, 'Enter');
  await expect(page.getByText('Enter: read and understood')).toHaveCount(0);
  await press(page, 'Enter');
}

test('a machine is opened by keypad alone through a killed server, and one screw short is named on the way back', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await makeMachine(page, { model: 'Opened' });
  await page.goto(`/machines/${id}/open-up`);
  await expect(page.getByRole('link', { name: 'At the bench' })).toBeVisible();
  await press(page, 'f');
  const kept = page.getByRole('dialog', { name: 'bench mode' }).getByTestId('log-saving');
  await expect(page.getByText('What comes next?')).toBeVisible();

  // 1: four A at the corners, the last of which was missing, and three B along the front
  await press(page, '1');
  await expect(stepName(page)).toHaveText('Base cover off');
  await press(page, ...times(30, 'ArrowLeft'), ...times(20, 'ArrowUp'), '1');
  await press(page, ...times(60, 'ArrowRight'), '1', ...times(40, 'ArrowDown'), '+');
  await press(page, ...times(60, 'ArrowLeft'), '0');
  for (let k = 0; k < 3; k++) await press(page, ...times(15, 'ArrowRight'), '2');
  await expect(page.getByTestId('bench-groups')).toContainText('3 out, 1 missing on arrival');
  await endStep(page);
  // 2 to 4: five connectors, each by its own move
  // what was done has left the head of the list: the next one is the first again
  await press(page, '1');
  await expect(stepName(page)).toHaveText('Battery plug out');
  await press(page, '*', '1');
  await endStep(page);
  await press(page, '1', '*', '3', '*', '3');
  await endStep(page);
  await press(page, '1', '*', '4');
  await expect(page.getByTestId('bench-logged')).toContainText('flip the latch first');
  await expect(kept).toHaveText('kept');

  // the server is killed; the opening goes on, and through a reload too
  await keptByBrowser(page, id);
  await server.kill();
  await press(page, '*', '5');
  await endStep(page);
  // two of a group at once, counted
  await press(page, '1', '4', 'c', '1');
  await expect(kept).toContainText('server away');
  // a photo waits too, and is not lost with the page
  await page
    .getByLabel('photos of this step')
    .setInputFiles({ name: 'card.png', mimeType: 'image/png', buffer: await photo() });
  await expect(page.getByTestId('bench-logged')).toContainText('1 photo');
  await page.reload();
  await expect(stepName(page)).toHaveText('Memory, storage or wireless card out');
  await expect(page.getByTestId('bench-groups')).toContainText('2 out, 2 not on the map');
  // after the reload the last one can still be taken back, and it is said which
  await press(page, 'Backspace');
  await expect(page.getByText(/^Undone: /).first()).toBeVisible();
  await expect(page.getByTestId('bench-groups')).toContainText('1 out, 1 not on the map');
  await press(page, '4');
  await expect(page.getByTestId('bench-groups')).toContainText('2 out, 2 not on the map');
  await endStep(page);
  await press(page, '1');
  for (let k = 0; k < 3; k++) await press(page, ...times(6, 'ArrowRight'), '3');
  await endStep(page);
  await press(page, '1');
  await endStep(page);

  // it comes back: all that was logged meanwhile is sent
  await server.start();
  await press(page, '1', '/', '3');
  await page.getByLabel('note on the step').fill('old paste was dry');
  await press(page, 'Enter', '/', '4');
  await endStep(page);
  await press(page, '1');
  await endStep(page);
  await expect(page.getByText('What comes next?')).toBeVisible();
  await press(page, 'Escape');
  await expect(kept).toHaveText('kept');
  await expect(async () => {
    const list = await (await fetch(`${server.address}/api/machines/${id}/attachments`)).json();
    expect(list).toMatchObject({
      total: 1,
      items: [{ name: 'card.png', path: 'log.steps.step5' }],
    });
  }).toPass();
  const { log } = (await (await fetch(`${server.address}/api/machines/${id}/log`)).json()) as {
    log: {
      screws: { id: string; group: string; out: boolean; onArrival: string }[];
      groups: { letter: string }[];
      connectors: { release: string; off: boolean }[];
      steps: { state: string; seconds?: number; note?: string; stamps: unknown[] }[];
    };
  };
  expect(log.screws).toHaveLength(12);
  expect(log.screws.filter((s) => s.out)).toHaveLength(11);
  expect(log.screws.filter((s) => s.onArrival === 'missing')).toHaveLength(1);
  expect(log.groups.map((g) => g.letter).sort()).toEqual(['A', 'B', 'C', 'D']);
  expect(log.connectors.map((c) => c.release)).toEqual([
    'slide-out',
    'by-its-ears',
    'by-its-ears',
    'flip-latch',
    'press-on',
  ]);
  expect(log.steps.map((s) => s.state)).toEqual(times(9, 'done'));
  expect(log.steps.every((s) => s.seconds !== undefined)).toBe(true);
  expect(log.steps[7]).toMatchObject({ note: 'old paste was dry' });
  expect(log.steps[7]!.stamps).toHaveLength(1);

  // back: cleaning and pasting have no way back; of three C at the heat sink two are put in
  await press(page, 'v');
  await expect(stepName(page)).toHaveText('Layer on');
  await press(page, 'Enter');
  await expect(stepName(page)).toHaveText('Heat sink set down');
  await press(page, '3', '+', 'Enter');
  await expect(page.getByTestId('bench-open')).toContainText(/Still open: C s\d+/);
  // of another group, and one too many: said, and nothing goes astray
  await press(page, 'Enter', '1');
  await expect(page.getByText(/No A goes in here. 2 D still wait here/)).toBeVisible();
  await press(page, '4', '4', '4');
  await expect(page.getByText(/One D too many: all 2 of this step are back/)).toBeVisible();
  await press(page, 'Enter');
  await expect(stepName(page)).toHaveText('Display cable and antenna leads on');
  await press(page, '*', 'Enter');
  // one lead was forgotten: it is named before one goes on
  await expect(page.getByTestId('bench-open')).toContainText('connector 5');
  await press(page, '*', 'Enter', '*', '*', 'Enter', '*', 'Enter');
  await expect(stepName(page)).toHaveText('Base cover on');
  await expect(page.getByText(/Tighten crosswise/)).toBeVisible();
  await press(page, '1', '+', '+', '2', '+', '+', 'Enter');
  await expect(stepName(page)).toContainText('first time');
  await press(page, 'Enter', 'Enter', 'Enter');
  const end = page.getByTestId('bench-end');
  const short = log.screws.filter((s) => s.group === log.screws.find((x) => x.id === 's12')!.group);
  const words = end.getByTestId('balance-words');
  await expect(words).toContainText(/^C: 1 on the bench; C: open s\d+$/);
  expect(short.map((s) => s.id)).toContain((await words.textContent())!.split('open ')[1]);
  // apart from the one that was missing when it arrived
  await expect(end.getByRole('row').filter({ hasText: /^A/ })).toContainText('1');
  await expect(kept).toHaveText('kept');
  expect(
    errors.filter((e) => !/ERR_CONNECTION_REFUSED|ERR_FAILED|Failed to fetch/.test(e)),
  ).toEqual([]);
});
