import { expect, test, type Page } from '@playwright/test';
import { copyOfExample, newRunOfExample, putAsideOpen, watchErrors } from './support';

/** The step Runs of the demo machine with these words that has runs: other tests may have made siblings of it. */
async function openRuns(page: Page, words: string) {
  const { items } = (await (
    await page.request.get(`/api/machines?q=${encodeURIComponent(words)}`)
  ).json()) as { items: { id: string }[] };
  let found: string | null = null;
  for (const { id } of items) {
    const { total } = (await (await page.request.get(`/api/machines/${id}/runs`)).json()) as {
      total: number;
    };
    if (total > 0) found = id;
  }
  expect(found).not.toBeNull();
  await page.goto(`/machines/${found}/estimate`);
  await expect(page.getByTestId('watts-36')).toBeVisible();
  await page.keyboard.press('g');
  await expect(page).toHaveURL(/\/runs/);
  await expect(page.getByRole('button', { name: /new run/ })).toBeVisible();
}

const nav = (page: Page) => page.getByRole('navigation', { name: 'runs' });
const sustained = (page: Page) => page.getByTestId('run-sustained');

test('from planning to a calibrated estimate: foretold, two logs, what was sustained, the fit, the ladder on it', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await copyOfExample(page);
  await page.goto(`/machines/${id}/runs`);
  await expect(page.getByTestId('watts-36')).toBeVisible();
  // the plan says what would teach most; planning freezes what is foretold
  await page.keyboard.press('r');
  const plan = page.getByRole('region', { name: 'plan of runs' });
  await plan.getByRole('button', { name: 'plan both dies, full speed' }).click();
  await expect(nav(page)).toContainText('planned');
  const foretold = page.getByRole('region', { name: 'foretold' });
  await expect(foretold).toContainText(/before the run: both dies, full speed/);
  await expect(foretold).toContainText(/watts\d+ W, \d+ to \d+/);
  // the sheet
  await page.getByLabel('background').fill('19');
  await page.getByLabel('name').fill('both, 41 dB');
  await expect(nav(page)).toContainText('both, 41 dB');
  await page
    .getByLabel('logs of this run')
    .setInputFiles(['examples/load-two-fans.csv', 'examples/level-two-fans.csv']);
  await expect(sustained(page)).toHaveText(/48 W CPU 57 W GPU/);
  const says = page.getByRole('region', { name: 'what the logs say' });
  await expect(says).toContainText(/at 41\.0 ± 0\.5 dB\(A\), background 19 taken off/);
  await expect(says).toContainText('short-term limit of CPU ends');
  await expect(says.getByTestId('run-against')).toContainText(/W measured, inside its band/);
  const chart = page.getByTestId('run-chart');
  await expect(chart.locator('canvas').first()).toBeVisible();
  // the cursor tells what stands there, also after a turn of the wheel; not while it is dragged
  const cursor = page.getByTestId('run-cursor');
  await chart.hover({ position: { x: 300, y: 120 } });
  await expect(cursor).toContainText(
    /^\d+:\d\d.*CPU 4\d\.\d.* W.*GPU .* W.*CPU .* °C.*level 4\d\.\d/,
  );
  const minutes = async () => parseInt(await cursor.innerText(), 10);
  await chart.hover({ position: { x: 200, y: 120 } });
  const whole = await minutes();
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -240);
  await page.mouse.wheel(0, -240);
  await page.mouse.wheel(0, -240);
  await page.keyboard.up('Control');
  // zoomed about the hand, which stays at the same time
  await expect(page.getByText('the whole run')).toBeVisible();
  await expect.poll(minutes).toBe(whole);
  await page.mouse.down();
  await chart.hover({ position: { x: 120, y: 120 } });
  await expect(cursor).toHaveCount(0);
  await page.mouse.up();
  await chart.hover({ position: { x: 200, y: 120 } });
  // the plots moved with the hand
  await expect.poll(minutes).toBeGreaterThan(whole);
  await chart.dblclick({ position: { x: 200, y: 120 } });
  await expect.poll(minutes).toBe(whole);
  // the logs were made long before anything was foretold, and it says so
  await expect(foretold).toContainText('it counts for nothing');
  // the fit
  await page.getByLabel('name').press('Escape');
  await page.keyboard.press('c');
  const calibration = page.getByRole('region', { name: 'calibration' });
  await calibration.getByRole('button', { name: /fit to 1 run/ }).click();
  await expect(calibration.getByRole('list', { name: 'versions' })).toContainText('1 fitted', {
    timeout: 120_000,
  });
  await expect(calibration.getByRole('region', { name: 'multipliers' })).toContainText('told');
  const ladder = page.getByRole('list', { name: 'noise ladder' }).locator('[data-cap="36"]');
  const band = async () => {
    const found = /(\d+) to (\d+) W/.exec((await ladder.textContent()) ?? '');
    return found ? Number(found[2]) - Number(found[1]) : NaN;
  };
  const before = await band();
  await page.keyboard.press('w');
  await expect(page.getByTestId('stands-on')).toContainText('calibrated with 1 run, version 1');
  await expect.poll(band).toBeLessThan(0.8 * before);
  // a figure that changes takes the fit its ground
  await page.goto(`/machines/${id}/cooling`);
  await expect(page.getByTestId('stands-on')).toContainText('calibrated with 1 run');
  await page.goto(`/machines/${id}/runs`);
  await expect(sustained(page)).toHaveText(/48 W CPU/);
  await page.keyboard.press('v');
  await expect(nav(page)).toContainText('hold out');
  await putAsideOpen(page);
  expect(errors).toEqual([]);
});

test('the fan sweep out of a load goes into the record by one key, and back by undo', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await newRunOfExample(page);
  await page
    .getByLabel('logs of this run')
    .setInputFiles(['examples/load-two-fans.csv', 'examples/level-two-fans.csv']);
  await expect(sustained(page)).toHaveText(/48 W CPU 57 W GPU/);
  await page.keyboard.press('1');
  const sweep = page.getByRole('region', { name: 'fan sweep' });
  await expect(sweep.getByRole('row')).not.toHaveCount(0);
  await expect(sweep).toContainText(/41\.\d ± 0\.\d/);
  await expect(sweep).toContainText('the record holds none');
  await page.keyboard.press('2');
  await expect(sweep).toContainText(/the record holds \d+ points/);
  const kept = async () =>
    (
      (await (await page.request.get(`/api/machines/${id}`)).json()) as {
        record: { noise?: { sweep?: object[] } };
      }
    ).record.noise?.sweep?.length ?? 0;
  await expect.poll(kept).toBeGreaterThan(0);
  await page.keyboard.press('Control+z');
  await expect(sweep).toContainText('the record holds none');
  await expect.poll(kept).toBe(0);
  await putAsideOpen(page);
  expect(errors).toEqual([]);
});

test('a run begun while the list of runs is still on its way is shown', async ({ page }) => {
  const errors = watchErrors(page);
  const id = await copyOfExample(page);
  const address = new RegExp(`/api/machines/${id}/runs(\\?page=1)?$`);
  let letGo = () => {};
  const begun = new Promise<void>((done) => (letGo = done));
  let asked = 0;
  await page.route(address, async (route) => {
    if (route.request().method() === 'POST') {
      await route.continue();
      return;
    }
    asked += 1;
    if (asked > 1) return route.continue();
    // the first list is read before the run is made, and comes after it
    const before = await route.fetch();
    await begun;
    await route.fulfill({ response: before }).catch(() => {});
  });
  await page.goto(`/machines/${id}/runs`);
  await expect.poll(() => asked).toBe(1);
  const made = page.waitForResponse(
    (r) => r.request().method() === 'POST' && r.url().endsWith('/runs'),
  );
  await page.getByRole('button', { name: /new run/ }).click();
  expect((await made).status()).toBe(201);
  letGo();
  await expect(page.getByText('no log yet')).toBeVisible();
  await putAsideOpen(page);
  expect(errors).toEqual([]);
});

test('a log on its way can be given up, and leaves nothing behind', async ({ page }) => {
  const errors = watchErrors(page);
  await newRunOfExample(page);
  // a server that takes its time
  const held: (() => Promise<void>)[] = [];
  await page.route('**/logs?**', (route) => {
    held.push(() => route.abort());
  });
  await page.getByLabel('logs of this run').setInputFiles('examples/load-two-fans.csv');
  const sending = page.getByTestId('log-sending');
  await expect(sending).toContainText('load-two-fans.csv');
  await sending.getByRole('button', { name: 'cancel' }).click();
  await expect(sending).toHaveCount(0);
  await expect(page.getByText('no log yet')).toBeVisible();
  await expect(page.getByRole('alert')).toHaveCount(0);
  for (const end of held) await end().catch(() => undefined);
  await page.unroute('**/logs?**');
  await page.getByLabel('logs of this run').setInputFiles('examples/load-two-fans.csv');
  await expect(sustained(page)).toHaveText(/48 W CPU 57 W GPU/);
  await putAsideOpen(page);
  expect(errors).toEqual([]);
});

test('a log that cannot be read says where, and nothing of the run is lost', async ({ page }) => {
  const errors = watchErrors(page);
  await newRunOfExample(page);
  await page.getByLabel('firmware').fill('1.04');
  const text = 'Time [s],CPU power [W]\n0,45\n5,46\n3,47\n';
  await page
    .getByLabel('logs of this run')
    .setInputFiles({ name: 'bad.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await expect(page.getByRole('alert')).toContainText(
    'bad.csv:row 4:column 1: its time lies before the one above it',
  );
  await expect(page.getByLabel('firmware')).toHaveValue('1.04');
  await expect(page.getByText('no log yet')).toBeVisible();
  await putAsideOpen(page);
  expect(errors.filter((e) => !e.includes('422'))).toEqual([]);
});

test('what was typed into a run, taken out of it or put aside comes back; a second window and a server that is away lose nothing', async ({
  page,
  context,
}) => {
  const errors = watchErrors(page);
  const id = await copyOfExample(page);
  await page.goto(`/machines/${id}/runs`);
  await page.getByRole('button', { name: /new run/ }).click();
  const background = page.getByLabel('background');
  const saving = page.getByTestId('run-saving');
  await background.click();
  await page.keyboard.type('19,5');
  await expect(background).toBeFocused();
  await expect(saving).toContainText(/saved/);
  await page.keyboard.press('Tab');
  await expect(background).toHaveValue('19,5');

  // a second window changes another figure of the run: both stand
  const second = await context.newPage();
  await second.goto(page.url());
  await expect(second.getByLabel('background')).toHaveValue('19.5');
  await second.getByLabel('firmware').fill('1.07');
  await expect(second.getByTestId('run-saving')).toContainText(/saved/);
  await second.close();
  await page.getByLabel('name').fill('both');
  await expect(saving).toContainText(/saved/);
  await expect(page.getByLabel('firmware')).toHaveValue('1.07');

  // the server is away while somebody types
  await context.setOffline(true);
  await page.getByLabel('name').fill('both, loud');
  await expect(saving).toContainText('server away');
  await expect(page.getByLabel('name')).toHaveValue('both, loud');
  await context.setOffline(false);
  await expect(saving).toContainText(/saved/);

  // taken out, and back
  await page.getByLabel('logs of this run').setInputFiles(['examples/load-two-fans.csv']);
  await expect(sustained(page)).toBeVisible();
  await page.getByRole('button', { name: 'remove load-two-fans.csv' }).click();
  await expect(page.getByText('no log yet')).toBeVisible();
  await expect(sustained(page)).toHaveCount(0);
  await expect(page.getByTestId('run-chart')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(sustained(page)).toBeVisible();
  await background.fill('25');
  await page.keyboard.press('Control+z');
  await expect(background).toHaveValue('19.5');

  // what the load told of itself stands beside its watts in the verdict
  await page.getByLabel('program').fill('forest scene');
  await page.getByLabel('score').fill('9240x');
  await expect(page.getByText('is no number')).toBeVisible();
  await page.getByLabel('score').fill('9240');
  await page.getByLabel('frames in a second').fill('61,5');
  await expect(saving).toContainText(/saved/);
  await page
    .getByRole('navigation', { name: 'steps' })
    .getByRole('link', { name: 'Verdict' })
    .click();
  const done = page.getByRole('region', { name: 'done with the watts' });
  await expect(
    done.getByRole('row', { name: /forest scene, both, loud .* 9,240 points/ }),
  ).toBeVisible();
  await expect(done.getByRole('row', { name: /61\.5 frames\/s/ })).toBeVisible();
  // beside what other machines did under a load of that name; here none did
  await expect(done.getByRole('row', { name: /9,240 points/ })).toContainText(
    '0 machines at such watts, needs 3',
  );
  await page.goBack();

  // put aside, and back
  await page.getByRole('button', { name: 'put aside' }).click();
  await expect(page.getByText('No run yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Bring back' }).click();
  await expect(nav(page)).toContainText('both, loud');
  await putAsideOpen(page);
  expect(errors.filter((e) => !/ERR_INTERNET_DISCONNECTED|Failed to fetch|412/.test(e))).toEqual(
    [],
  );
});

test('the window moves by keys and comes back, the chart zooms, another run and the simulation lie under it', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openRuns(page, 'Studio, 8-core');
  await nav(page)
    .getByRole('button', { name: /both, full speed/ })
    .click();
  const says = page.getByRole('region', { name: 'what the logs say' });
  await expect(says).toContainText(/steady from \d+:\d\d to 25:\d\d/);
  const ends = page.getByRole('slider', { name: 'the window ends' });
  const found = Number(await ends.getAttribute('aria-valuenow'));
  await page.keyboard.press('-');
  await expect(says).toContainText('chosen');
  await page.keyboard.press('ArrowLeft');
  await expect(says).toContainText('chosen');
  await expect
    .poll(async () => Number(await ends.getAttribute('aria-valuenow')))
    .toBeLessThan(found);
  await page.getByRole('button', { name: 'back to the window that was found' }).click();
  await expect(ends).toHaveAttribute('aria-valuenow', String(found));
  await expect(says).not.toContainText('chosen');
  await page.keyboard.press('z');
  await expect(page.getByText('the whole run')).toBeVisible();
  await page.keyboard.press('z');
  await expect(page.getByText('zoom to it')).toBeVisible();
  await page.keyboard.press('x');
  await expect(page.getByText('under it: CPU alone')).toBeVisible();
  await page.keyboard.press('s');
  await expect(page.getByText('simulated: dotted')).toBeVisible();
  await expect(page.getByRole('alert')).toHaveCount(0);
  expect(errors).toEqual([]);
});

test('demo runs: one contradicts what was foretold, one never settles, one drops after six minutes', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openRuns(page, 'five-year-old');
  await expect(page.getByRole('region', { name: 'foretold' })).toContainText('outside');
  await openRuns(page, 'thick and quiet');
  await expect(page.getByTestId('run-why-not')).toContainText('Never settled');
  await openRuns(page, 'first firmware');
  await nav(page)
    .getByRole('button', { name: /firmware 1.01/ })
    .click();
  await expect(page.getByRole('region', { name: 'what the logs say' })).toContainText(
    /[56]:\d\dCPU drops later/,
  );
  expect(errors).toEqual([]);
});

test('a planned run is worked off at the bench by two keys, what is read is typed there, and all of it is kept', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await copyOfExample(page);
  const run = {
    format: 'zugluft-run',
    formatVersion: 1,
    id: crypto.randomUUID(),
    name: 'evening',
    load: { kind: 'stress', on: 'both' },
  };
  expect((await page.request.post(`/api/machines/${id}/runs`, { data: run })).status()).toBe(201);
  await page.goto(`/machines/${id}/run-sheet`);
  await page.getByRole('button', { name: 'at the bench, step by step' }).click();
  const now = page.getByTestId('check-now');
  await expect(now).toContainText('On mains');
  await expect(page.getByText(/Wait until nothing moves any more, about \d+ min/)).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(now).toContainText('Clocks');
  await page.keyboard.press('Enter');
  await expect(now).toContainText('Room');
  await page.getByLabel('room, °C').click();
  await page.keyboard.type('22,5');
  await page.getByLabel('calibrator before, dB').fill('94');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Backspace');
  await expect(now).toContainText('Clocks');
  await expect(page.getByRole('status').filter({ hasText: 'saved' }).first()).toBeVisible();
  await page.reload();
  await expect(now).toContainText('Clocks');
  await expect(page.getByLabel('room, °C')).toHaveValue('22.5');
  await expect(page.getByLabel('calibrator before, dB')).toHaveValue('94');
  await page.getByRole('button', { name: 'Sheet' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('article', { name: 'run sheet' })).toContainText('evening');
  await putAsideOpen(page);
  expect(errors).toEqual([]);
});

test('every run of the library stands against its record', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/library');
  await page.getByRole('link', { name: 'Runs', exact: true }).click();
  await expect(page.getByTestId('residual-summary')).toContainText(/\d+ of \d+ lie inside/, {
    timeout: 120_000,
  });
  // other tests may have changed the record since
  const old = page.getByRole('row', { name: /five-year-old/ }).first();
  await expect(old).toContainText(/30\.4.*[+−]\d+ % (inside|outside)/);
  await old.getByRole('link').click();
  await expect(sustained(page)).toBeVisible();
  expect(errors).toEqual([]);
});
