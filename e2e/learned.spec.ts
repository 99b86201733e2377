import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { ownServer } from './ownServer';
import { watchErrors } from './support';

// a server of its own: the laboratory's defaults hold for every machine of a library
const server = ownServer(3);
test.use({ baseURL: server.address });
test.beforeAll(server.start);
test.afterAll(server.end);

const band = { p05: 17, p50: 20, p95: 23 };
const LEARNED = {
  madeAt: '2026-11-29T02:00:00.000Z',
  machines: Array.from({ length: 5 }, (_, i) => ({
    id: `m${i}`,
    name: `Velmara Quill ${i + 10}`,
    kind: 'heat pipes, one fan',
    cap: 38,
    measuredW: i === 4 ? 24 : 20.5,
    before: { p05: 18, p50: 22, p95: 27 },
    after: band,
  })),
  lacking: [],
  factors: [
    {
      key: 'finStacks.uaFactor',
      machines: 5,
      mean: -1,
      meanDeviation: 0.3,
      between: 0.3,
      deviation: 0.42,
      offered: { value: 0.6, low: 0.55, high: 0.66 },
    },
  ],
  before: { inside: 5, halfBand: 0.2, offShare: 0.1 },
  after: { inside: 4, halfBand: 0.15, offShare: 0.04 },
  kinds: [
    {
      kind: 'heat pipes, one fan',
      machines: 5,
      runs: 7,
      biasShare: -0.08,
      biasDeviation: 0.02,
      spreadShare: 0.04,
      inside: 6,
    },
  ],
};

const lint = 'upkeep.lintPerThousandHours';
const WEAR = {
  renewals: [
    {
      machineId: 'm3',
      machine: 'Velmara Quill 3',
      planId: 'p',
      plan: 'Clean fins, fans and mesh',
      hoursSince: 3500,
      rates: [{ key: lint, p05: 0.025, p50: 0.05, p95: 0.09 }],
      why: null,
    },
    {
      machineId: 'm4',
      machine: 'Velmara Quill 4',
      planId: 'p',
      plan: 'Clean fins, fans and mesh',
      hoursSince: null,
      rates: [],
      why: 'hours of use since the fins were last clean are not known',
    },
  ],
  rates: [
    {
      key: lint,
      machines: 2,
      mean: -0.9,
      meanDeviation: 0.4,
      between: 0.4,
      deviation: 0.57,
      offered: { value: 0.06, low: 0.03, high: 0.11 },
    },
  ],
};

test('a library without runs teaches nothing and says what it takes; what was learned is taken over by one click, and back', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/runs');
  await page.getByRole('link', { name: /teach/ }).click();
  await expect(page.getByText('It takes at least 5 machines')).toBeVisible();
  await page.getByRole('button', { name: 'Learn from all machines with runs' }).click();
  await expect(page.getByRole('alert')).toContainText('at least 5 machines with runs in use');

  const dust = page.getByRole('region', { name: 'dust and ageing' });
  await expect(dust).toContainText('No renewal has a run before and one after yet');

  // what five fitted machines teach is the server's own test; here is what is done with it
  await page.route('**/api/learned/wear', (r) => r.fulfill({ json: WEAR }));
  await page.route('**/api/learned', (r) => r.fulfill({ json: { learned: LEARNED } }));
  await page.reload();
  const told = page.getByRole('region', { name: 'foretold from the others' });
  await expect(told.getByRole('row', { name: /typically off/ })).toContainText(/10 %.*4 %/);
  await expect(page.getByRole('region', { name: 'machines that taught' })).toContainText(
    /Quill 14.*17 to 23 W, outside/,
  );
  const offered = page.getByRole('region', { name: 'offered defaults' });
  await expect(offered.getByRole('row', { name: /uneven flow/ })).toContainText('0.55 to 0.66');
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  await page.setViewportSize({ width: 390, height: 800 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.setViewportSize({ width: 1280, height: 800 });
  const kept = async (key = 'finStacks.uaFactor') => {
    const { value } = (await (
      await page.request.get('/api/documents/defaults/laboratory')
    ).json()) as { value: Record<string, object> };
    return value[key] ?? null;
  };
  await offered.getByRole('button', { name: 'Take over 1 default' }).click();
  await expect(offered.getByRole('button', { name: 'Taken over' })).toBeDisabled();
  await expect.poll(kept).toMatchObject({ value: 0.6, low: 0.55, high: 0.66, learned: true });
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(offered.getByRole('button', { name: 'Take over 1 default' })).toBeEnabled();
  await expect.poll(kept).toBeNull();
  await expect(dust.getByRole('row', { name: /Quill 3/ })).toContainText(
    '5\u00a0%, 2.5 to 9\u00a0%',
  );
  await expect(dust.getByRole('row', { name: /Quill 4/ })).toContainText('are not known');
  await dust.getByRole('button', { name: 'Take over 1 rate' }).click();
  await expect(dust.getByRole('button', { name: 'Taken over' })).toBeDisabled();
  const rate = () => kept('upkeep.lintPerThousandHours');
  await expect.poll(rate).toMatchObject({ value: 0.06, learned: true, from: 'renewals' });
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect.poll(rate).toBeNull();
  // the refusal alone
  expect(errors.filter((e) => !e.includes('422'))).toEqual([]);
});
