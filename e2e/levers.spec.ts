import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { openCase } from '../core/case/openCase';
import { simulatedLogs } from '../core/instruments/simulatedLogs';
import { parseRecord } from '../core/record/parseRecord';
import type { CaseRecord } from '../core/record/recordSchema';
import { putAsideOpen, saved, watchErrors } from './support';

const LINT = 0.88;

function exampleWith(lintShare: number): CaseRecord {
  const record = parseRecord(
    JSON.parse(readFileSync('examples/two-fan-shared-pipes.json', 'utf8')),
  ).record!;
  for (const s of record.finStacks!) s.lintShare = lintShare;
  return record;
}

/** A dusty machine with the log of an opening that reaches its fans. */
async function dustyMachine(page: Page): Promise<string> {
  const record = exampleWith(LINT);
  record.identity = { ...record.identity, variant: `Dusty ${Date.now()}` };
  const made = await page.request.post('/api/machines', { data: { record } });
  expect(made.status()).toBe(201);
  const { id } = (await made.json()) as { id: string };
  const step = (name: string, about: object) => ({ id: name, name, seconds: 240, ...about });
  const log = {
    format: 'zugluft-openup',
    formatVersion: 1,
    screws: ['s1', 's2', 's3'].map((s) => ({ id: s, layer: 'cover', group: 'A', xMm: 1, yMm: 1 })),
    steps: [
      step('cover', { screws: ['s1', 's2'] }),
      step('card', { needs: ['cover'], reaches: ['memory-storage'] }),
      step('fans', { needs: ['cover'], screws: ['s3'], reaches: ['clean-fans'] }),
    ],
  };
  const kept = await page.request.put(`/api/documents/log/${id}`, {
    headers: { 'If-Match': '"0"' },
    data: { value: log },
  });
  expect(kept.status(), await kept.text()).toBe(200);
  return id;
}

/** A run of this machine whose log a simulated logger wrote. */
async function runOf(page: Page, machine: string, record: CaseRecord, seed: number, name: string) {
  const run = {
    format: 'zugluft-run',
    formatVersion: 1,
    id: crypto.randomUUID(),
    name,
    load: { kind: 'stress', on: 'both' },
    room: { temperatureC: 23 },
    use: 'leave-out',
  };
  const made = await page.request.post(`/api/machines/${machine}/runs`, { data: run });
  expect(made.status(), await made.text()).toBe(201);
  const { id } = (await made.json()) as { id: string };
  const { load } = simulatedLogs(openCase({ record }), {
    seed,
    cpuLoadW: 20,
    gpuLoadW: 30,
    loadS: 1500,
  });
  await page.goto(`/machines/${machine}/runs?run=${id}`);
  await page.getByLabel('logs of this run').setInputFiles({
    name: `${name}.csv`,
    mimeType: 'text/csv',
    buffer: Buffer.from(load),
  });
  await expect(page.getByTestId('run-sustained')).toContainText('20 W CPU 30 W GPU');
}

const row = (page: Page, id: string) => page.locator(`[data-lever="${id}"]`);

test('a dusty machine: the lever with the greatest gain per minute becomes a plan, its checklist is worked by two keys, the runs tell whether the promise was kept', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await dustyMachine(page);
  await page.goto(`/machines/${id}/estimate`);
  await expect(page.getByTestId('watts-36')).toBeVisible();
  await page.keyboard.press('9');
  const table = page.locator('[data-levers]');
  await expect(table).toBeVisible();
  // all are computed to the end
  await expect(page.getByText(/^\d+ of \d+/)).toHaveCount(0);
  await expect(row(page, 'clean').getByRole('img')).toBeVisible();
  await expect(row(page, 'clean')).toContainText('2 steps, 3 screws');
  await expect(row(page, 'clean')).toContainText('16');
  // by watts per minute what is opened by nothing comes first; by watts alone cleaning does
  await page.keyboard.press('r');
  await expect(page.getByLabel('ranked by')).toHaveValue('gain');
  await expect(table.locator('tr[data-lever]').first()).toHaveAttribute('data-lever', 'clean');
  const watts = Number((await row(page, 'clean').locator('td').nth(3).textContent())!.slice(1));
  expect(watts).toBeGreaterThan(3);
  // a louder cap is another answer
  const at36 = await row(page, 'clean').locator('td').nth(3).textContent();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('main').getByLabel('cap', { exact: true })).toHaveValue('40');
  await page.keyboard.press('ArrowDown');
  await expect(row(page, 'clean').locator('td').nth(3)).toHaveText(at36!);

  // into the list by keys: the first is chosen, its details are opened
  await page.keyboard.press('a');
  await expect(page.getByRole('checkbox', { name: 'Clean fins, fans and mesh' })).toBeFocused();
  await page.keyboard.press('Space');
  await expect(page.getByRole('checkbox', { name: 'Clean fins, fans and mesh' })).toBeChecked();
  await page.keyboard.press('Enter');
  await expect(table).toContainText('hold the fan blades');
  await page.keyboard.press('Enter');
  await expect(table).not.toContainText('hold the fan blades');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  const chosen = page.getByTestId('chosen-gain');
  await expect(chosen).toContainText('The 2 chosen, computed together');
  await expect(chosen).toContainText('their sum would be');
  await page.keyboard.press('Space');
  await expect(chosen).toContainText('The one chosen');
  // it lies over the ladder and the envelope
  await page.keyboard.press('ArrowUp');
  const rung = page.getByRole('list', { name: 'noise ladder' }).locator('[data-cap="36"]');
  await expect(rung.getByTestId('rung-over')).toContainText('W: Clean fins, fans and mesh');
  await row(page, 'raise-rear').hover();
  await expect(rung.getByTestId('rung-over')).toContainText('W: Raise the rear edge');
  await page.getByRole('heading', { name: 'Upkeep' }).hover();
  await expect(page.getByTestId('before-after')).toContainText('today');
  await expect(page.getByTestId('quietest')).toContainText('with the chosen');

  // reloaded the chosen are still chosen
  await page.reload();
  await expect(page.getByRole('checkbox', { name: 'Clean fins, fans and mesh' })).toBeChecked();
  await expect(page.getByRole('button', { name: /Make it a plan/ })).toBeEnabled();
  // what changes the same figures takes its place, and back
  await page.getByRole('checkbox', { name: 'Liquid metal' }).check();
  await page.getByRole('checkbox', { name: 'Renew with premium paste' }).check();
  await expect(page.getByRole('checkbox', { name: 'Liquid metal' })).not.toBeChecked();
  await page.getByRole('checkbox', { name: 'Renew with premium paste' }).uncheck();
  await expect(chosen).toContainText('The one chosen');
  await expect(page.getByRole('button', { name: /Make it a plan/ })).toBeEnabled();
  // from a checkbox too
  await page.keyboard.press('n');
  const now = page.getByTestId('plan-now');
  await expect(now).toHaveText(/^Make the run before/);
  await expect(page.getByTestId('promised')).toContainText('Promised at 36 dB(A)');
  await page.keyboard.press('Enter');
  await expect(now).toHaveText('Let the heat sink cool after the load');
  await page.keyboard.press('Enter');
  await expect(now).toHaveText('cover (2 screws)');
  await page.keyboard.press('Backspace');
  await expect(now).toHaveText('Let the heat sink cool after the load');
  const words = [
    'cover (2 screws)',
    'fans (1 screw)',
    'Clean fins, fans and mesh',
    /^Back together/,
  ];
  for (const next of words) {
    await page.keyboard.press('Enter');
    await expect(now).toHaveText(next);
  }
  // what was done is kept
  await expect(page.getByRole('region', { name: 'plan' })).toContainText(/saved/);
  await page.reload();
  await expect(now).toHaveText(/^Back together/);
  await page.keyboard.press('Enter');
  await expect(now).toHaveText(/^Make the run after/);

  const plan = page.url();
  await runOf(page, id, exampleWith(LINT), 4, 'before');
  await runOf(page, id, exampleWith(0), 5, 'after');
  await page.goto(plan);
  const came = page.getByRole('region', { name: 'what came of it' });
  await came.getByLabel('run before').selectOption({ label: '1 before' });
  await came.getByLabel('run after').selectOption({ label: '2 after' });
  const kept = page.getByTestId('promise-kept');
  await expect(kept).toContainText('cooler by');
  await expect(kept).toContainText('The promise was kept');
  // with the hours of use both runs tell how fast dust gathers, and the library learns from it
  const hours = came.getByLabel('hours of use since its fins were last clean');
  await hours.pressSequentially('soon');
  await expect(came).toContainText('hours above 0, up to 100000');
  await hours.fill('');
  await hours.pressSequentially('3500 h');
  await hours.blur();
  await expect(hours).toHaveValue('3500');
  await expect(saved(page)).toHaveCount(1);
  await page.goto('/learned');
  const dust = page.getByRole('region', { name: 'dust and ageing' });
  const told = dust.getByRole('row', { name: /Dusty/ });
  await expect(told).toContainText('3500 h');
  await expect(told).toContainText(/lint in 1000 h: [\d.]+\s%, [\d.]+ to [\d.]+\s%/);
  await page.goto(plan);
  await expect(hours).toHaveValue('3500');
  // the other way round nothing was gained
  await came.getByLabel('run before').selectOption({ label: '2 after' });
  await expect(page.getByText('Before and after have to be two runs.')).toBeVisible();
  await came.getByLabel('run after').selectOption({ label: '1 before' });
  await expect(kept).toContainText('hotter by');
  await expect(kept).toContainText('That is not what was promised');

  // into the record, where the lint is gone
  await page.getByRole('button', { name: 'Take the changes into the record' }).click();
  await expect(page.getByText(/Taken into the record/)).toBeVisible();
  await expect(saved(page)).toHaveCount(1);
  await expect
    .poll(async () => {
      const now = (await (await page.request.get(`/api/machines/${id}`)).json()) as {
        record: CaseRecord;
      };
      return now.record.finStacks!.map((s) => s.lintShare);
    })
    .toEqual([0, 0]);
  // removed, and brought back by undo
  await page.getByRole('button', { name: 'Remove this plan' }).click();
  await expect(page.getByRole('button', { name: /^plan/ })).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /^plan/ })).toHaveCount(1);
  await putAsideOpen(page);
  expect(errors).toEqual([]);
});

test('turned round, settings for a workload, nonsense at every field', async ({ page }) => {
  const errors = watchErrors(page);
  const id = await dustyMachine(page);
  await page.goto(`/machines/${id}/levers`);
  const settings = page.getByRole('region', { name: 'limits to set' });
  await expect(settings.getByRole('rowheader')).toHaveText(['quiet', 'balanced', 'full']);
  await settings.getByLabel('CPU to GPU as').pressSequentially('1 : x');
  await expect(settings).toContainText('two figures above 0');
  await expect(settings.getByRole('rowheader')).toHaveCount(3);
  await settings.getByLabel('CPU to GPU as').fill('');
  await settings.getByLabel('what the workload wants').selectOption('least');
  await settings.getByLabel('at least so many CPU watts').fill('20');
  await expect
    .poll(async () =>
      Number(await settings.getByRole('row').nth(2).getByRole('cell').first().textContent()),
    )
    .toBeGreaterThan(10);

  const round = page.getByRole('region', { name: 'turned round' });
  await round.getByLabel('CPU watts needed').fill('15');
  await round.getByLabel('GPU watts needed').fill('20');
  await expect(page.getByTestId('quietest')).toContainText(/need \d+ dB\(A\).* today/);
  await round.getByLabel('GPU watts needed').fill('many');
  await expect(round).toContainText('watts from 0 to 2000');
  await round.getByLabel('GPU watts needed').fill('20');
  await round.getByRole('button', { name: /the smallest fans/ }).click();
  await expect(page.getByTestId('design-fans')).toContainText(/55|58/);
  await expect(page.getByTestId('design-machine')).toContainText(/would do|none that/);

  const keep = page.getByRole('region', { name: 'upkeep' });
  await expect(keep.getByTestId('pays-dust')).toContainText('pays now');
  await keep.getByLabel('hours of use in a year').fill('often');
  await expect(keep).toContainText('hours from 1 to 8760');
  await keep.getByLabel('hours of use in a year').fill('3000');
  await expect(keep.getByTestId('pays-paste')).toContainText(/pays (now|in about)|does not pay/);

  // all of this is computed in the page, so that it needs no network
  await page.context().setOffline(true);
  await page.getByRole('checkbox', { name: /cooler/ }).click();
  await expect(settings).toContainText('With the chosen levers');
  await expect(page.getByTestId('quietest')).toContainText(/today, .*dB\(A\).* with the chosen/);
  await page.getByRole('checkbox', { name: /cooler/ }).click();
  await page.context().setOffline(false);

  // what is noticed is the laboratory's own
  await page.getByRole('link', { name: /noticeable from/ }).click();
  const watts = page.getByLabel('noticed from, W more');
  await expect(watts).toBeEnabled();
  await watts.fill('lots');
  await expect(page.getByText('needs a number')).toBeVisible();
  await watts.fill('4.5');
  await watts.press('Enter');
  await page.goto(`/machines/${id}/levers`);
  await expect(page.getByRole('link', { name: /noticeable from 4.5 W/ })).toBeVisible();
  await page.goto('/house-rules');
  await expect(watts).toHaveValue('4.5');
  await watts.fill('3');
  await watts.press('Enter');
  await expect(page.getByTestId('rules-saving')).toHaveText('kept');
  await page.goto(`/machines/${id}/levers`);
  await putAsideOpen(page);
  // without a network the browser itself says so of what is asked of the server
  expect(errors.filter((e) => !e.includes('ERR_INTERNET_DISCONNECTED'))).toEqual([]);
});
