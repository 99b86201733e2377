import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { watchErrors } from './support';

test('chosen in the library, ranked with bands, sorted by any figure, at any cap, saved', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/library');
  const library = page.getByTestId('library');
  await expect(library.getByRole('row', { name: /thick and quiet/ })).toContainText(/\d W/);
  for (const words of [/thick and quiet/, /four fans/, /one thin fan/]) {
    await library.getByRole('row', { name: words }).getByRole('checkbox').check();
  }
  await page.keyboard.press('c');
  await expect(page).toHaveURL(/\/compare\/.+\/.+\/.+/);
  const figures = page.getByRole('region', { name: 'figures', exact: true });
  const names = figures.getByRole('row').getByRole('link');
  await expect(names).toHaveText([/Oslund Drift 17/, /Tarnwick Ledger 15/, /Velmara Quill 14/]);
  const really = figures.getByRole('region', { name: 'really better' });
  await expect(really.getByRole('listitem')).toHaveCount(2);
  await expect(really).toContainText(/Tarnwick Ledger 15.* sustains more than Velmara Quill 14.*%/);

  // by another figure, both ways
  const head = figures.getByRole('columnheader', { name: /fin area/ });
  await head.getByRole('button').click();
  await expect(head).toHaveAttribute('aria-sort', 'descending');
  await head.getByRole('button').click();
  await expect(names).toHaveText([/Velmara Quill 14/, /Tarnwick Ledger 15/, /Oslund Drift 17/]);
  await expect(page).toHaveURL(/sort=finAreaCm2/);
  // by the laboratory’s rubric, from what the opening logged
  const score = figures.getByRole('columnheader', { name: 'service score, of 10' });
  await score.getByRole('button').click();
  await expect(score).toHaveAttribute('aria-sort', 'descending');
  const scores = async () => {
    const column = await score.evaluate((th) => (th as HTMLTableCellElement).cellIndex);
    const rows = figures.getByRole('row').filter({ has: page.getByRole('link') });
    const cells = await rows.evaluateAll(
      (all, n) => all.map((r) => r.children[n]!.textContent),
      column,
    );
    return cells.map((x) => (x === '–' ? -1 : Number(x)));
  };
  await expect.poll(async () => Math.max(...(await scores()))).toBeGreaterThan(0);
  expect(await scores()).toEqual((await scores()).toSorted((a, b) => b - a));
  await head.getByRole('button').click();
  await head.getByRole('button').click();
  // a column that is left out
  await figures.getByText('Columns').click();
  await figures.getByRole('checkbox', { name: 'W for a kg' }).uncheck();
  await expect(figures.getByRole('columnheader', { name: /W for a kg/ })).toHaveCount(0);

  // the cap stands in the address, so that the view can be come back to
  const watts = figures
    .getByRole('row', { name: /four fans/ })
    .getByRole('cell')
    .nth(1);
  const quiet = Number.parseInt((await watts.textContent())!);
  await figures.getByLabel('compared at').selectOption('45');
  await expect(page).toHaveURL(/at=45/);
  await expect(figures.getByRole('heading', { name: 'Ranked, at 45 dB(A)' })).toBeVisible();
  await expect
    .poll(async () => Number.parseInt((await watts.textContent())!))
    .toBeGreaterThan(quiet);
  await page.reload();
  await expect(figures.getByRole('heading', { name: 'Ranked, at 45 dB(A)' })).toBeVisible();
  await expect(names).toHaveText([/Velmara Quill 14/, /Tarnwick Ledger 15/, /Oslund Drift 17/]);

  // drawn over the level, and any figure over any other, which the address keeps too
  await expect(
    figures.getByRole('img', { name: /^watts over the level, 3 machines/ }),
  ).toBeVisible();
  // envelopes over each other: those that are chosen, here and after a reload
  const over = figures.getByRole('region', { name: 'envelopes over each other' });
  const outlines = (words: RegExp) => over.getByRole('img', { name: words });
  await expect(
    outlines(
      /CPU watts, 3 of 3 machines; .*Oslund Drift 17[^;]*: up to \d+ W CPU or \d+ W GPU; .*Velmara Quill 14[^;]*: up to \d+ W CPU$/,
    ),
  ).toBeVisible();
  await over.getByText('3 of 3 machines').click();
  await over.getByRole('checkbox', { name: /one thin fan/ }).uncheck();
  await expect(
    outlines(/CPU watts, 2 of 2 machines(?=.*Oslund)(?=.*Tarnwick)(?!.*Velmara)/),
  ).toBeVisible();
  await page.reload();
  await expect(outlines(/CPU watts, 2 of 2 machines/)).toBeVisible();
  const pairs = figures.getByRole('region', { name: 'one figure over another' });
  await expect(
    pairs.getByRole('img', { name: 'watts at 45 dB(A) over fin area, cm², 3 machines' }),
  ).toBeVisible();
  await pairs.getByLabel('figure along').selectOption('thickness, mm');
  await expect(pairs.getByRole('img', { name: /over thickness, mm, 3 machines/ })).toBeVisible();
  await pairs.getByLabel('figure up').selectOption('W for a kg');
  await expect(page).toHaveURL(/at=45&over=[^&]+&x=thicknessMm&y=wattsPerKg/);
  await page.reload();
  await expect(
    pairs.getByRole('img', { name: 'W for a kg over thickness, mm, 3 machines' }),
  ).toBeVisible();
  await expect(figures.getByRole('heading', { name: 'Ranked, at 45 dB(A)' })).toBeVisible();

  // how quietly some watts are had
  const wanted = figures.getByLabel('watts wanted');
  await wanted.pressSequentially('8x');
  await expect(figures.getByRole('alert')).toContainText('needs watts above 0');
  await wanted.press('Backspace');
  await wanted.pressSequentially('0');
  await expect(figures.getByRole('alert')).toHaveCount(0);
  const quiet80 = figures.getByRole('columnheader', { name: 'dB(A) for 80 W' });
  await quiet80.getByRole('button').click();
  await expect(quiet80).toHaveAttribute('aria-sort', 'ascending');
  await expect(figures.getByRole('row', { name: /one thin fan/ })).toContainText('–');
  await expect(figures.getByRole('row', { name: /four fans/ })).toContainText('≤ 28');
  await expect(names.last()).toHaveText(/Velmara Quill 14/);

  const download = page.waitForEvent('download');
  await figures.getByRole('button', { name: 'Save as JSON' }).click();
  const saved = JSON.parse(readFileSync(await (await download).path(), 'utf8')) as {
    format: string;
    machines: unknown[];
    better: unknown[];
  };
  expect(saved).toMatchObject({ format: 'zugluft-comparison', formatVersion: 1 });
  expect(saved.machines).toHaveLength(3);
  // three pairs at five caps
  expect(saved.better).toHaveLength(15);

  // the ranking as a picture for an article
  const file = async (button: string) => {
    const picture = page.waitForEvent('download');
    await figures.getByRole('button', { name: button }).click();
    return readFileSync(await (await picture).path());
  };
  const svg = String(await file('Card, SVG'));
  expect(svg).toMatch(/^<svg[^>]* width="1200" height="675"/);
  for (const words of [
    'at 45 dB(A)',
    'Tarnwick Ledger 15',
    'Velmara Quill 14',
    'Hanken Grotesk',
    '400 draws each',
  ])
    expect(svg).toContain(words);
  expect(svg.replace('xmlns="http://www.w3.org/2000/svg"', '')).not.toMatch(/https?:/);
  await figures.getByLabel('size of the card').selectOption('800x450');
  const png = await file('Card, PNG');
  expect(png.subarray(1, 4).toString()).toBe('PNG');
  expect([png.readUInt32BE(16), png.readUInt32BE(20)]).toEqual([800, 450]);
  expect(errors).toEqual([]);
});

test('with six machines and fewer every field stands side by side too, with more the ranking alone', async ({
  page,
}) => {
  const ids = await page.goto('/library').then(() =>
    page.evaluate(async () => {
      const answer = await fetch('/api/machines?pageSize=20&sort=maker');
      return ((await answer.json()) as { items: { id: string }[] }).items.map((m) => m.id);
    }),
  );
  await page.goto(`/compare/${ids.slice(0, 7).join('/')}`);
  const figures = page.getByRole('region', { name: 'figures', exact: true });
  await expect(figures.getByRole('row').getByRole('link')).toHaveCount(7);
  await expect(page.getByTestId('differences')).toHaveCount(0);
  // four lines at most, and another once one of them is left out
  const over = figures.getByRole('region', { name: 'envelopes over each other' });
  await expect(over.getByRole('img', { name: /4 of 4 machines/ })).toBeVisible();
  await over.getByText('4 of 7 machines').click();
  const free = over.getByRole('checkbox', { checked: false });
  await expect(free).toHaveCount(3);
  await expect(free.first()).toBeDisabled();
  await over.getByRole('checkbox', { checked: true }).first().uncheck();
  await expect(free).toHaveCount(4);
  await free.last().check();
  await expect(over.getByRole('img', { name: /4 of 4 machines/ })).toBeVisible();
  await page.goto(`/compare/${ids.slice(0, 2).join('/')}`);
  await expect(page.getByTestId('differences')).toBeVisible();
  await page.goto(`/compare/${ids[0]}`);
  await expect(page.getByText('Choose two machines or more')).toBeVisible();
});

test('who has never seen it finds the quietest machine for 80 W and its reason in five clicks, and compares it in two more', async ({
  page,
}) => {
  let clicks = 0;
  await page.exposeFunction('counted', () => void clicks++);
  await page.addInitScript(() => {
    const told = () => (window as unknown as { counted: () => void }).counted();
    addEventListener('pointerdown', told, true);
  });
  await page.goto('/');
  await page.getByLabel('watts wanted').click();
  await page.keyboard.type('80 w');
  await page.keyboard.press('Enter');
  const library = page.getByTestId('library');
  await expect(page).toHaveURL(/\/library\?needW=80&sort=quietFor80W/);
  const row = library
    .getByTestId('rows')
    .getByRole('row')
    .filter({ hasText: /≤ 28 dB\(A\)/ });
  await row.first().getByRole('link').first().click();
  await page
    .getByRole('navigation', { name: 'steps' })
    .getByRole('link', { name: 'Verdict' })
    .click();
  await expect(page.getByTestId('headline')).toContainText(/held back by/);
  await expect.poll(() => clicks).toBeLessThanOrEqual(5);
  await page.getByRole('region', { name: 'peers' }).getByRole('link').first().click();
  await expect(page.getByRole('region', { name: 'really better' })).toBeVisible();
  await expect.poll(() => clicks).toBeLessThanOrEqual(7);
});
