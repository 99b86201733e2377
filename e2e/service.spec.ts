import { expect, test, type Page } from '@playwright/test';
import { makeMachine, watchErrors } from './support';

const kept = (page: Page) => expect(page.getByTestId('log-saving')).toHaveText('kept');
const readLog = async (page: Page, id: string) =>
  page.evaluate(
    async (id) =>
      ((await (await fetch(`/api/machines/${id}/log`)).json()) as { log: Record<string, unknown> })
        .log,
    id,
  );

test('the usual steps follow the house’s rules, and the score follows the ledger and the rubric', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await makeMachine(page, { maker: 'Oslund', model: 'Service 1', variant: 'a' });
  await page.goto('/house-rules');
  await page.getByRole('radio', { name: 'take it out' }).click();
  await expect(page.getByText('Unplug it, then take it out')).toBeVisible();
  await expect(page.getByTestId('rules-saving')).toHaveText('kept');
  // the rules may take their time: the steps wait for them
  await page.route('**/api/documents/settings/**', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.continue();
  });
  await page.goto(`/machines/${id}/open-up`);
  await page.getByRole('button', { name: 'the usual steps' }).click();
  const steps = page.getByRole('region', { name: 'steps' });
  await expect(steps.getByRole('button', { name: /Battery out/ })).toBeVisible();
  await expect(page.getByTestId('way')).toContainText('Battery out');
  await page.unroute('**/api/documents/settings/**');
  await page.goto('/house-rules');
  await page.getByRole('radio', { name: 'unplug only' }).click();
  await expect(page.getByText('Unplug it; it may stay in its place.')).toBeVisible();
  await expect(page.getByTestId('rules-saving')).toHaveText('kept');

  // a step with two ways to it: one of them is enough
  await page.goto(`/machines/${id}/open-up`);
  await page.getByLabel('next step').fill('Memory card out');
  await page.getByLabel('next step').press('Enter');
  await steps.getByRole('button', { name: /Memory card out/ }).click();
  await page.getByLabel(/or another step instead of/).selectOption({ label: '3 Battery plug out' });
  await page.getByLabel('goal or symptom').selectOption('goal:memory-storage');
  await expect(page.getByText('4 steps, 0 screws')).toBeVisible();
  await kept(page);

  await page.keyboard.press('2');
  await page.getByRole('button', { name: 'part', exact: true }).click();
  await page.getByLabel('name of part 1').fill('battery');
  await page.getByLabel('kind of battery').selectOption('battery');
  await page.getByLabel('battery replaced alone').selectOption('no');
  await page.getByRole('button', { name: 'more' }).click();
  await page.getByLabel('energy of battery').fill('999');
  await expect(page.getByText('at most 200')).toBeVisible();
  await page.getByLabel('energy of battery').fill('61,5');
  await page.getByRole('button', { name: 'bound' }).click();
  await page.getByLabel('bound 1 of battery').fill('the larger one fits');
  await page.getByLabel('evidence of bound 1').selectOption('tried');
  await page.getByRole('button', { name: 'connector' }).click();
  await page.getByLabel('what lets connector 1 go').selectOption('flip-latch');
  await page.getByLabel('step of connector 1').selectOption({ label: '3 Battery plug out' });
  await page.getByRole('button', { name: 'strip' }).click();
  await page.getByLabel('how strip 1 is now').selectOption('off');
  await expect(page.getByText(/before its purpose was known/)).toBeVisible();
  await kept(page);
  expect(await readLog(page, id)).toMatchObject({
    parts: [
      {
        name: 'battery',
        kind: 'battery',
        alone: false,
        wattHours: 61.5,
        upgrades: [{ bound: 'the larger one fits', evidence: 'tried' }],
      },
    ],
    connectors: [{ release: 'flip-latch' }],
    strips: [{ purpose: 'unknown', off: true }],
  });

  // the score is computed; what a team agreed to needs its reason
  await page.locator('body').click();
  await page.getByRole('link', { name: 'Service score' }).click();
  const score = page.getByTestId('score');
  await expect(score).not.toContainText('–');
  const before = Number.parseFloat((await score.textContent())!);
  const wear = page.getByRole('row').filter({ hasText: 'Parts that wear, replaced alone' });
  await expect(wear).toContainText('0 of 1');
  await page.getByLabel('weight of Parts that wear, replaced alone').fill('0');
  await expect(async () => {
    expect(Number.parseFloat((await score.textContent())!)).toBeGreaterThan(before);
  }).toPass();
  await page.getByRole('button', { name: 'back to the built-in rubric' }).click();
  await expect(score).toContainText(before.toFixed(1));
  await page.getByRole('button', { name: 'Record' }).click();
  await expect(page.getByText('how many points, up or down?')).toBeVisible();
  await page.getByLabel('points', { exact: true }).fill('-1');
  await page.getByRole('button', { name: 'Record' }).click();
  await expect(page.getByText('needs a reason')).toBeVisible();
  await page.getByLabel('reason').fill('hooks break when opened twice');
  await page.getByRole('button', { name: 'Record' }).click();
  await expect(score).toContainText((before - 1).toFixed(1));
  await expect(page.getByText(/Computed .*, agreed -1/)).toBeVisible();
  await kept(page);
  await page.reload();
  await expect(score).toContainText((before - 1).toFixed(1));
  expect(errors).toEqual([]);
});

test('a sibling’s log is a template: expected screws are confirmed at the bench, and the guide goes out', async ({
  page,
}) => {
  const identity = { maker: 'Oslund', model: 'Service 2' };
  const first = await makeMachine(page, { ...identity, variant: 'plain' });
  await page.evaluate(async (id) => {
    const log = {
      format: 'zugluft-openup',
      formatVersion: 1,
      layers: [{ id: 'base', name: 'base cover', widthMm: 340, depthMm: 240 }],
      groups: [{ id: 'a', letter: 'A', thread: 'M2', lengthMm: 5 }],
      screws: [10, 170, 330].map((xMm, i) => ({
        id: `s${i}`,
        layer: 'base',
        group: 'a',
        xMm,
        yMm: 10,
        out: true,
        back: 'own',
      })),
      steps: [
        {
          id: 'cover',
          name: 'Base cover off',
          act: 'cover',
          layer: 'base',
          screws: ['s0', 's1', 's2'],
          state: 'done',
          seconds: 200,
          note: 'only on that unit',
        },
        {
          id: 'bat',
          name: 'Battery plug out',
          needs: ['cover'],
          reaches: ['battery-off'],
          state: 'done',
        },
      ],
    };
    await fetch(`/api/machines/${id}/log`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json', 'If-Match': '"0"' },
      body: JSON.stringify({ log }),
    });
  }, first);
  const second = await makeMachine(page, { ...identity, variant: 'with a chamber' });
  await page.goto(`/machines/${second}/open-up`);
  await page.getByRole('button', { name: /the log of plain/ }).click();
  await expect(page.getByText(/Begun from plain/)).toBeVisible();
  await kept(page);
  await page.getByRole('link', { name: 'At the bench' }).click();
  const groups = page.getByTestId('bench-groups');
  await expect(groups).toContainText('0 of 3 out');
  await expect(page.getByTestId('bench-clock')).toContainText('expected 3:20');
  // the cautions are read once; the next step asks for none of them again
  await page.keyboard.press('Enter');
  for (const key of ['1', '1']) await page.keyboard.press(key);
  await expect(groups).toContainText('2 of 3 out');
  await page.keyboard.press('0');
  await expect(groups).toContainText('2 out, 1 missing on arrival');
  await page.keyboard.press('Backspace');
  await expect(groups).toContainText('2 of 3 out');
  await expect(page.getByRole('dialog', { name: 'bench mode' })).toContainText(
    /Undone: on arrival, screw \d+/,
  );
  await page.keyboard.press('1');
  await expect(groups).toContainText('3 out');
  // touched, a button takes no focus: Enter keeps its meaning; gone to by Tab it is the button's
  await page.getByRole('button', { name: '+ one more A' }).click();
  await expect(groups).toContainText('4 out');
  await page.getByRole('button', { name: 'undo Backspace' }).focus();
  await page.keyboard.press('Enter');
  await expect(groups).toContainText('3 out');
  await page.getByRole('dialog', { name: 'bench mode' }).focus();
  await page.keyboard.press('.');
  await expect(page.getByTestId('bench-clock')).not.toContainText('stands');
  await page.keyboard.press('.');
  await expect(page.getByTestId('bench-clock')).toContainText('stands');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('bench-step')).toHaveText('Battery plug out');
  const cautions = page.getByTestId('bench-cautions');
  await expect(cautions.getByText(/^Lithium battery/)).toHaveClass(/text-quiet/);
  // a step remembered late stands before this one
  for (const key of ['e', '0']) await page.keyboard.press(key);
  await page.getByLabel('name of the step').fill('Seal looked at');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Step 2 of 3 · done')).toBeVisible();
  await page.keyboard.press('Escape');
  const list = page.getByRole('region', { name: 'steps' }).getByRole('listitem');
  await expect(list).toHaveText([/Base cover off/, /Seal looked at/, /Battery plug out/]);

  // the next key is the desk's already, and logs nothing at the bench
  await page.keyboard.press('4');
  await expect(page).toHaveURL(/guide$/);
  const guide = page.getByTestId('guide');
  await expect(guide).toContainText('3 × A, M2 × 5 mm');
  await expect(guide).not.toContainText('only on that unit');
  await expect(guide).not.toContainText('1 × D');
  await kept(page);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save as Markdown' }).click();
  expect((await download).suggestedFilename()).toMatch(/service-2.*-all\.zip$/);
  const html = page.waitForEvent('download');
  await page.getByLabel('what the guide leads to').selectOption('battery-off');
  await page.getByRole('link', { name: 'Save as HTML' }).click();
  expect((await html).suggestedFilename()).toMatch(/battery-off\.html$/);
});

test('groups and holes at the desk: length, captive, hidden, printed numbers, a screw put back elsewhere', async ({
  page,
}) => {
  const id = await makeMachine(page, { model: 'Service 3' });
  await page.goto(`/machines/${id}/open-up`);
  await page.getByLabel('next step').fill('Base cover off');
  await page.getByLabel('next step').press('Enter');
  const map = page.getByTestId('screw-map');
  await map.focus();
  const press = async (...keys: string[]) => {
    for (const key of keys) await page.keyboard.press(key);
  };
  const right = Array.from({ length: 20 }, () => 'ArrowRight');
  await press('a', 'Enter', 'Enter', ...right, 'b', 'Enter', 'Enter');
  const hole = page.getByTestId('hole');
  await expect(hole).toContainText('B s2 taken out');
  await hole.getByLabel('hidden under').selectOption('foot');
  await hole.getByLabel('captive').check();
  await hole.getByLabel('printed number').fill('7.5');
  await expect(hole.getByText('is a whole number')).toBeVisible();
  await hole.getByLabel('printed number').fill('7');
  await page.getByLabel('length of group A').fill('8');
  await page.getByLabel('drive of group B').selectOption('star');
  await page.getByLabel('thread of group B').fill('M2');
  // one is put into the other's hole: the balance says so
  await hole.getByLabel('put back into').selectOption('s1');
  await expect(hole).toContainText('went into s1');
  await kept(page);
  expect(await readLog(page, id)).toMatchObject({
    groups: [{ lengthMm: 8 }, { thread: 'M2', drive: 'star' }],
    screws: [{}, { captive: true, hiddenUnder: 'foot', printed: 7, back: 's1' }],
  });
  await expect(page.getByTestId('balance-words')).toContainText('A: 1 on the bench');
  await expect(page.getByTestId('balance-words')).toContainText('s1 holds a screw of B');

  // the layer is told by its name and side; a longer screw beside the touchpad is warned of
  await page.getByText('base cover, seen from below').click();
  await page.getByLabel('name of this layer').fill('lower shell');
  await expect(page.getByRole('button', { name: 'lower shell' })).toBeVisible();
  await page.getByLabel('length of group B').fill('3');
  await page.getByRole('link', { name: 'Parts and connectors' }).click();
  await page.getByRole('button', { name: 'part', exact: true }).click();
  await page.getByLabel('name of part 1').fill('touchpad');
  await page.getByRole('button', { name: 'more' }).click();
  await page.getByLabel('layer of touchpad').selectOption({ label: 'lower shell' });
  for (const [label, mm] of [
    ['distance from the left', '15'],
    ['distance from the top', '15'],
    ['width', '100'],
    ['depth', '60'],
  ] as const) {
    await page.getByLabel(`${label} of touchpad`).fill(mm);
  }
  await page.getByRole('link', { name: 'Steps and screws' }).click();
  await expect(map.locator('[data-part]')).toHaveText('touchpad');
  await expect(page.getByRole('list', { name: 'warnings' })).toContainText(
    'A s1 is longer than most and near the touchpad',
  );
});
