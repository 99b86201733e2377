import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { copyOf, makeMachine, putAsideOpen, watchErrors } from './support';

const headline = (page: Page) => page.getByTestId('headline');

test('from the key to the files: a verdict at each cap, its peers, and the report in every form', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await copyOf(page, 'thick and quiet', { maker: 'Judged', model: 'Ledger 15' });
  await page.goto(`/machines/${id}/estimate`);
  await expect(page.getByTestId('watts-36')).toBeVisible();
  await page.locator('body').press('0');
  await expect(page).toHaveURL(/\/verdict$/);
  await expect(headline(page)).toContainText(
    /^Holds .*\d+ W at 36 dB\(A\), \d+ to \d+: held back by/,
  );
  const reader = page.getByRole('table');
  await expect(reader.getByRole('rowheader', { name: 'Long renders on both dies' })).toBeVisible();
  await expect(reader).toContainText(/is (likely )?(held|short)/);
  await page.getByText('Cautions that belong to this advice').click();

  // its own figure among its peers, each of which leads to a comparison
  const peers = page.getByRole('region', { name: 'peers' });
  await expect(peers.locator('strong')).toContainText('Judged Ledger 15');
  const other = peers.getByRole('link').first();
  const name = (await other.textContent())!;
  await other.click();
  await expect(page).toHaveURL(/\/compare\//);
  await expect(page.locator('main')).toContainText(name.split(' ').slice(0, 3).join(' '));
  await page.goBack();

  // another cap
  const louder = page.getByLabel('judged at');
  await louder.selectOption('40');
  await expect(headline(page)).toContainText('at 40 dB(A)');

  // what readers get is what stands here
  const watts = /(\d+) W/.exec((await headline(page).textContent())!)![1]!;
  const publish = page.getByRole('region', { name: 'publish' });
  const saved = async (link: string) => {
    const download = page.waitForEvent('download');
    await publish.getByRole('link', { name: link }).click();
    return readFileSync(await (await download).path());
  };
  const csv = (await saved('Figures, CSV')).toString();
  const row = csv.split('\r\n').find((l) => l.startsWith('sustained,40,'))!;
  expect(Math.round(Number(row.split(',')[4]))).toBe(Number(watts));
  expect((await saved('PDF, Letter')).subarray(0, 5).toString()).toBe('%PDF-');
  await publish.getByLabel('units').selectOption('imperial');
  const opened = page.waitForEvent('popup');
  await publish.getByRole('link', { name: 'Page' }).click();
  const report = await opened;
  await expect(report.getByRole('heading', { level: 1 })).toContainText('Judged Ledger 15');
  await expect(report.locator('svg').first()).toBeVisible();
  await expect(report.locator('body')).toContainText('°F');
  await report.close();
  await putAsideOpen(page);
  expect(errors).toEqual([]);
});

test('words of one’s own stand in the report; an edition stays as it was, and the next one says what is new', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await copyOf(page, 'one thin fan', { maker: 'Published', model: 'Quill 14' });
  await page.goto(`/machines/${id}/verdict`);
  await expect(headline(page)).toContainText('Holds');
  const words = page.getByRole('region', { name: 'own words' });
  const lead = words.getByLabel('To begin with');
  await lead.pressSequentially('Quiet *for its size*. <b>x</b>');
  const editions = page.getByRole('region', { name: 'editions' });
  await expect(editions).toContainText('None yet.');
  // a double click asks for one edition
  let asked = 0;
  page.on('request', (r) => {
    if (r.method() === 'POST' && r.url().endsWith('/editions')) asked++;
  });
  await editions.getByRole('button', { name: 'Publish edition 1' }).dblclick();
  const row = (number: number) =>
    editions.getByRole('listitem').filter({ hasText: `Edition ${number}` });
  await expect(row(1)).toContainText('record revision 1');
  expect(asked).toBe(1);
  const opened = page.waitForEvent('popup');
  await row(1).getByRole('link', { name: 'Page' }).click();
  const first = await opened;
  await expect(first.locator('em')).toHaveText('for its size');
  await expect(first.locator('body')).toContainText('<b>x</b>');
  await expect(first.locator('body')).toContainText('Edition 1, ');

  // nothing new, none made
  await editions.getByRole('button', { name: 'Publish edition 2' }).click();
  await expect(editions.getByRole('alert')).toContainText('nothing has changed since edition 1');

  // written on, and kept through a reload
  await words.getByLabel('In short').pressSequentially('Take it.');
  await editions.getByRole('button', { name: 'Publish edition 2' }).click();
  await expect(row(2)).toBeVisible();
  await row(2).getByRole('button', { name: 'What is new' }).click();
  const news = editions.getByRole('region', { name: 'new in edition 2' });
  await expect(news.getByRole('rowheader')).toHaveText(['words, in short']);
  await page.reload();
  await expect(words.getByLabel('In short')).toHaveValue('Take it.');
  await expect(row(1)).toBeVisible();
  await first.reload();
  await expect(first.locator('body')).not.toContainText('Take it.');
  await first.close();

  // what was written is what is undone
  await lead.focus();
  await page.keyboard.press('End');
  // at once: on a slow machine keys one by one come too far apart to be one change
  await page.keyboard.insertText(' More.');
  await expect(lead).toHaveValue(/More\.$/);
  await page.locator('body').press('Control+z');
  await expect(lead).toHaveValue('Quiet *for its size*. <b>x</b>');
  await putAsideOpen(page);
  // the browser tells of the one that was refused
  expect(errors.filter((e) => !e.includes('409'))).toEqual([]);
});

test('the house’s watts for each part stand beside the other opinions, and are edited', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await copyOf(page, 'one thin fan', { maker: 'Counted', model: 'Quill 14' });
  await page.goto('/house-rules');
  const perFan = page.getByLabel('points, W a fan');
  await expect(perFan).toHaveValue('15');
  for (const [nonsense, words] of [
    ['many', 'needs a number'],
    ['-1', 'at least 0 W'],
    ['1e9', 'at most 1000 W'],
  ] as const) {
    await perFan.fill(nonsense);
    await expect(page.getByRole('alert')).toContainText(words);
  }
  await perFan.fill('400');
  await perFan.press('Enter');
  await expect(page.getByTestId('rules-saving')).toHaveText('kept');
  await page.goto(`/machines/${id}/verdict`);
  const row = page
    .getByRole('region', { name: 'opinions' })
    .getByRole('listitem')
    .filter({ hasText: 'this house’s watts for each fan, pipe and fin' });
  // a fan, a pipe and 86 cm²
  await expect(row).toContainText('414');
  await page.goto('/house-rules');
  await perFan.fill('15');
  await perFan.press('Enter');
  await expect(page.getByTestId('rules-saving')).toHaveText('kept');
  await page.goto(`/machines/${id}/verdict`);
  await expect(row).toContainText('29');
  await putAsideOpen(page);
  expect(errors).toEqual([]);
});

test('where the house asks, a guess comes before the answer; it stands among the opinions, and each person’s record is kept', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await copyOf(page, 'one thin fan', { maker: 'Guessed', model: 'Quill 14' });
  const other = await copyOf(page, 'one thin fan', { maker: 'Unguessed', model: 'Quill 14' });
  await page.goto('/house-rules');
  const asked = page.getByLabel('asked before the answer of a machine is uncovered');
  await asked.check();
  await expect(page.getByTestId('rules-saving')).toHaveText('kept');
  await page.goto(`/machines/${id}/verdict`);
  const form = page.getByRole('form', { name: 'guess' });
  await expect(form).toContainText('How many watts does it hold at 36 dB(A)');
  await expect(page.getByText('It shows once the answer is uncovered.')).toBeVisible();
  await expect(page.getByTestId('watts-36')).toHaveCount(0);
  await expect(headline(page)).toHaveCount(0);
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  // nonsense is told at its field, and nothing is uncovered
  const watts = form.getByLabel('your guess, watts');
  await watts.fill('plenty');
  await watts.press('Enter');
  await expect(form.getByRole('alert')).toContainText('the guess needs watts above 0');
  await expect(form.getByRole('alert')).toContainText('the name is missing: say who guesses');
  await watts.fill('20');
  await form.getByLabel('who guesses').fill('Mara');
  await form.getByRole('button', { name: 'Uncover', exact: true }).click();
  await expect(headline(page)).toContainText('Holds');
  await expect(page.getByTestId('watts-36')).toBeVisible();
  const felt = page
    .getByRole('region', { name: 'opinions' })
    .getByRole('listitem')
    .filter({ hasText: 'felt' });
  await expect(felt).toContainText(/20.*Mara, \d{4}-\d\d-\d\d, \d+ % below the median/);
  // it is not asked again, and the next machine may be uncovered without
  await page.reload();
  await expect(page.getByTestId('watts-36')).toBeVisible();
  await page.goto(`/machines/${other}/estimate`);
  await expect(form.getByLabel('who guesses')).toHaveValue('Mara');
  await form.getByRole('button', { name: 'uncover without a guess' }).click();
  await expect(page.getByTestId('watts-36')).toBeVisible();
  await page.reload();
  await expect(page.getByTestId('watts-36')).toBeVisible();
  await putAsideOpen(page);

  await page.goto('/house-rules');
  const hits = page.getByRole('table', { name: 'how well each guesses' });
  await expect(hits.getByRole('row', { name: /^Mara/ })).toContainText('1 of 1');
  // on a phone too
  await page.setViewportSize({ width: 390, height: 800 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.setViewportSize({ width: 1280, height: 800 });
  await asked.uncheck();
  await expect(page.getByTestId('rules-saving')).toHaveText('kept');
  await page.goto(`/machines/${id}/verdict`);
  await putAsideOpen(page);
  expect(errors).toEqual([]);
});

test('a machine without a record has no verdict yet, and is told the way to one', async ({
  page,
}) => {
  const id = await makeMachine(page, { maker: 'Velmara', model: 'Nothing yet' });
  await page.goto(`/machines/${id}/verdict`);
  const verdict = page.getByRole('region', { name: 'verdict' });
  await expect(verdict).toContainText('No verdict yet');
  await verdict.getByRole('link', { name: 'Count what there is' }).click();
  await expect(page).toHaveURL(/\/count$/);
});

test('it can be given up and taken up again; what is missing for readers is named', async ({
  page,
}) => {
  const id = await copyOf(page, 'thick and quiet', { maker: 'Given up', model: 'Ledger 15' });
  await page.goto(`/machines/${id}/verdict`);
  const verdict = page.getByRole('region', { name: 'verdict' });
  await verdict.getByRole('button', { name: 'cancel' }).click();
  await expect(headline(page)).toHaveCount(0);
  await verdict.getByRole('button', { name: 'compute it' }).click();
  await expect(headline(page)).toContainText('Holds');
  await expect(verdict.getByRole('heading', { name: 'Before you publish' })).toBeVisible();
  await putAsideOpen(page);
});
