import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import { figureValue, type Figure as RecordFigure } from '@zugluft/core/record/figure';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { DEMO_MACHINES } from '../demo/machines';
import { topView } from '../demo/topView';
import { copyOfExample, putAsideOpen, watchErrors, watts } from './support';

/** Pixels of a millimetre in the drawn photo. */
const K = 16;
const FINS = 40;
const PITCH_MM = 0.9;
/** Upper left corners of what is drawn, mm. */
const MODULE = [10, 80] as const;
const FAN = [60, 40, 29] as const;
const STACK = [95, 12] as const;
const PIPE = [98, 60, 10.9, 55] as const;

/** A memory module, an impeller of 58 mm, 40 fins at 0.9 mm, a pipe 10.9 mm wide, seen straight from above. */
function drawn(): Promise<Buffer> {
  const rect = (x: number, y: number, w: number, h: number, fill: string) =>
    `<rect x="${x}" y="${y}" width="${w}" height="${h}" fill="${fill}"/>`;
  const fins = Array.from({ length: FINS }, (_, i) =>
    rect(STACK[0] + i * PITCH_MM, STACK[1], 0.35, 14, '#e0b890'),
  ).join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${160 * K}" height="${120 * K}" viewBox="0 0 160 120">
    ${rect(0, 0, 160, 120, '#2a3530')}${rect(STACK[0] - 2, STACK[1], FINS * PITCH_MM + 3, 14, '#30241c')}${fins}
    ${rect(MODULE[0], MODULE[1], 67.6, 30, '#3f9a63')}
    <circle cx="${FAN[0]}" cy="${FAN[1]}" r="${FAN[2]}" fill="#d8dcda"/>
    ${rect(PIPE[0], PIPE[1], PIPE[3], PIPE[2], '#c98555')}</svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 92 }).toBuffer();
}

async function measurePage(
  page: Page,
  given?: { machine: string; photo: Buffer },
): Promise<{ machine: string; photo: string }> {
  const machine = given?.machine ?? (await copyOfExample(page));
  const buffer = given?.photo ?? (await drawn());
  await page.goto(`/machines/${machine}/photos`);
  await page
    .getByLabel('choose photos or papers')
    .setInputFiles([{ name: 'top.jpg', mimeType: 'image/jpeg', buffer }]);
  await page.getByRole('link', { name: 'measure in top.jpg' }).click();
  await expect(page.getByTestId('photo-pane')).toBeVisible();
  return { machine, photo: page.url().split('/').pop()! };
}

/** Sets a point by the keyboard alone, at a place in mm of what is drawn. */
const point = (page: Page, xMm: number, yMm: number) => pixel(page, xMm * K, yMm * K);

/** The same at a pixel. */
async function pixel(page: Page, x: number, y: number): Promise<void> {
  await page.keyboard.press('g');
  await expect(page.getByLabel('place of the photo, across and down')).toBeFocused();
  await page.keyboard.type(`${x.toFixed(1)} ${y.toFixed(1)}`);
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('photo-pane')).toBeFocused();
  await page.keyboard.press('Enter');
}

const reads = (page: Page, mark: string) => page.locator(`[data-mark="${mark}"] [data-reads]`);
const recordOf = async (page: Page, id: string) =>
  ((await (await page.request.get(`/api/machines/${id}`)).json()) as { record: never }).record as {
    fans: { impellerDiameterMm: Figure }[];
    finStacks: { finCount: Figure }[];
    heatPipes: { flattenedWidthMm: Figure }[];
  };
type Figure = { value: number; plusMinus: number; origin: string; photo: string; mark: string };

test('a fan, fins and a pipe are measured by keys, taken into the record, and renewed when the reference changes', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const { machine, photo } = await measurePage(page);
  const pane = page.getByTestId('photo-pane');
  await pane.focus();
  await page.keyboard.press('r');
  await expect(page.getByTestId('ask')).toContainText('0 of 4');
  const [x, y] = MODULE;
  await point(page, x, y);
  await point(page, x + 67.6, y);
  await point(page, x + 67.6, y + 30);
  await point(page, x, y + 30);
  await expect(page.getByTestId('scale')).toContainText('0.0625');

  await page.keyboard.press('c');
  for (const turn of [0.2, 1.8, 3.1, 4.9]) {
    await point(page, FAN[0] + FAN[2] * Math.cos(turn), FAN[1] + FAN[2] * Math.sin(turn));
  }
  await page.keyboard.press('d');
  await expect(reads(page, 'circle-1')).toHaveText(/^5[78]\.\d+ ± 0\.\d+ mm$/);

  await page.keyboard.press('f');
  await point(page, STACK[0] - 1.5, STACK[1] + 7);
  await point(page, STACK[0] + FINS * PITCH_MM + 0.7, STACK[1] + 7);
  await expect(reads(page, 'fins-1')).toHaveText(/^40/);
  await expect(
    page.getByRole('img', { name: 'light along the line, 40 fins ticked' }),
  ).toBeVisible();

  // rough clicks a third of a millimetre off: the edges are found
  await page.keyboard.press('w');
  await point(page, PIPE[0] + 20, PIPE[1] - 0.3);
  await point(page, PIPE[0] + 20, PIPE[1] + PIPE[2] + 0.3);
  await expect(reads(page, 'width-1')).toHaveText(/^10\.(8|9)\d* ± 0\.\d+ mm$/);

  // each is of a figure: by key into the choice
  for (const [mark, figure] of [
    ['width-1', 'heatPipes.pipe.flattenedWidthMm'],
    ['fins-1', 'finStacks.fins-left.finCount'],
    ['circle-1', 'fans.fan-left.impellerDiameterMm'],
  ] as const) {
    await page.getByRole('button', { name: mark, exact: true }).click();
    await pane.focus();
    await page.keyboard.press('b');
    await expect(page.getByLabel(`figure of ${mark}`)).toBeFocused();
    await page.getByLabel(`figure of ${mark}`).selectOption(figure);
  }
  const into = page.getByRole('region', { name: 'into the record' });
  await expect(into.locator('[data-renewal]').first()).toBeVisible();
  const rows = await into.locator('[data-renewal]').count();
  expect(rows).toBeGreaterThanOrEqual(3);
  await pane.focus();
  await page.keyboard.press('t');
  // what is known better stays as it is until it is taken by itself
  const better = into.locator('[data-renewal="finStacks.fins-left.finThicknessMm"]');
  await expect(into.locator('[data-renewal]')).toHaveCount(1);
  await expect(better).toContainText('known better already');
  await expect
    .poll(async () => (await recordOf(page, machine)).fans[0]!.impellerDiameterMm)
    .toMatchObject({ origin: 'photo', photo, mark: 'circle-1' });
  const record = await recordOf(page, machine);
  const fan = record.fans[0]!.impellerDiameterMm;
  expect(Math.abs(fan.value - 58)).toBeLessThan(3 * fan.plusMinus);
  expect(record.finStacks[0]!.finCount.value).toBe(FINS);
  const pipe = record.heatPipes[0]!.flattenedWidthMm;
  expect(Math.abs(pipe.value - PIPE[2])).toBeLessThan(3 * pipe.plusMinus + 0.02);

  // nonsense is answered beside the field, and changes nothing
  const width = page.getByLabel('reference 1, width');
  await width.fill('wide');
  await expect(page.getByText('“wide” is no number')).toBeVisible();
  await width.fill('0');
  await expect(page.getByText('must be at least 0.1')).toBeVisible();
  await expect(into.locator('[data-renewal]')).toHaveCount(1);
  // a module of the other length: what it would change is shown first
  await width.fill('69.6');
  await expect(page.getByText(/these corners do not fit 69\.6 × 30 mm/)).toBeVisible();
  await page.getByLabel('reference 1, height').first().fill('30.89');
  await expect(into.locator('[data-renewal="fans.fan-left.impellerDiameterMm"]')).toContainText(
    '59.',
  );
  expect((await recordOf(page, machine)).fans[0]!.impellerDiameterMm.value).toBe(fan.value);
  await pane.focus();
  await page.keyboard.press('t');
  await expect
    .poll(async () => (await recordOf(page, machine)).fans[0]!.impellerDiameterMm.value / fan.value)
    .toBeCloseTo(69.6 / 67.6, 2);

  // years later: the photo still has its marks
  await page.reload();
  await expect(page.getByTestId('marks').getByRole('listitem')).toHaveCount(3);
  await expect(into.locator('[data-renewal]')).toHaveCount(1);
  await expect(better).toContainText('known better already');
  expect(errors).toEqual([]);
  await putAsideOpen(page);
});

test('the hand: points are taken back, moved by pixels, snapped to edges, dragged, undone', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await measurePage(page);
  const pane = page.getByTestId('photo-pane');
  await pane.focus();
  // a known length of 40 mm on the pipe
  await page.getByLabel('thing of known size').selectOption('known-length');
  await pane.focus();
  await page.keyboard.press('r');
  await point(page, PIPE[0], PIPE[1] + 5);
  await page.keyboard.press('Backspace');
  await expect(page.getByTestId('ask')).toContainText('0 of 2');
  await point(page, PIPE[0], PIPE[1] + 5);
  await point(page, PIPE[0] + 40, PIPE[1] + 5);
  await page.getByLabel('reference 1, length').fill('40');
  await expect(page.getByTestId('scale')).toContainText('0.06250');

  const cursor = () => pane.getAttribute('data-cursor');
  await pane.focus();
  await page.keyboard.press('Escape');
  await page.keyboard.press('g');
  await page.keyboard.type('99999 1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('outside the picture of 2560 × 1920 px');
  await page.getByLabel('place of the photo, across and down').fill('1000 500');
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Control+ArrowLeft');
  expect(await cursor()).toBe('901.00 510.00');

  // a length along the module, its first end snapped to its edge
  await page.keyboard.press('l');
  await page.keyboard.press('g');
  await page.keyboard.type(`${MODULE[0] * K + 5} ${(MODULE[1] + 15) * K}`);
  await page.keyboard.press('Enter');
  await page.keyboard.press('s');
  await expect
    .poll(async () => Math.abs(Number((await cursor())!.split(' ')[0]) - MODULE[0] * K))
    .toBeLessThan(0.6);
  await page.keyboard.press('Enter');
  await point(page, MODULE[0] + 67.6, MODULE[1] + 15);
  await expect(reads(page, 'length-1')).toHaveText(/^67\.\d+ ± 0\.\d+ mm$/);

  // its second end, dragged to the middle
  const box = (await pane.boundingBox())!;
  const zoom = Math.min(box.width / 2560, box.height / 1920);
  const screen = (xMm: number, yMm: number) =>
    [
      box.x + box.width / 2 + (xMm * K - 1280) * zoom,
      box.y + box.height / 2 + (yMm * K - 960) * zoom,
    ] as const;
  await page.keyboard.press('0');
  await page.mouse.move(...screen(MODULE[0] + 67.6, MODULE[1] + 15));
  await page.mouse.down();
  await page.mouse.move(...screen(MODULE[0] + 50, MODULE[1] + 15));
  await page.mouse.move(...screen(MODULE[0] + 33.8, MODULE[1] + 15));
  await page.mouse.up();
  await expect(reads(page, 'length-1')).toHaveText(/^3[34]\.\d+ ±/);
  await pane.focus();
  await page.keyboard.press('Control+z');
  await expect(reads(page, 'length-1')).toHaveText(/^67\.\d+ ±/);
  // taken up by keys, a point moved ten pixels; taken off and brought back
  await page.keyboard.press(']');
  await page.keyboard.press(']');
  await page.keyboard.press('.');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(reads(page, 'length-1')).toHaveText(/^6[67]\.\d+ ±/);
  await page.keyboard.press('Delete');
  await expect(page.getByTestId('marks')).toHaveCount(0);
  // the button of the page's head takes back the same
  await page.getByRole('button', { name: 'undo', exact: true }).click();
  await expect(reads(page, 'length-1')).toHaveText(/mm$/);

  // an edge that is straight tells how the lens bends: here it does not
  await page.getByLabel('thing of known size').selectOption('straight-edge');
  await pane.focus();
  await page.keyboard.press('r');
  for (const x of [0, 34, 67.6]) await point(page, MODULE[0] + x, MODULE[1] + 30);
  await page.keyboard.press('d');
  await expect(page.getByTestId('lens')).toContainText(/lens k1 -?0\.0\d+ ± 0\.\d+/);
  // what a grid told of it is typed, bounded, and goes by undo
  await page.getByLabel('thing of known size').selectOption('known-lens');
  await pane.focus();
  await page.keyboard.press('r');
  const k1 = page.getByLabel('reference 3, k1');
  await k1.fill('-0.3');
  await expect(page.getByText('must be at least -0.25')).toBeVisible();
  await k1.fill('-0.2');
  await page.getByLabel('reference 3, ± of k1').fill('0.001');
  await expect(page.getByText(/reference 3 does not agree with the straight edges/)).toBeVisible();
  await k1.fill('0');
  await expect(page.getByText(/does not agree/)).toHaveCount(0);
  await expect(page.getByTestId('lens')).toContainText(/k1 -?0\.00\d+ ± 0\.00/);
  // it is nowhere in the picture, and the keys pass over it
  await pane.focus();
  await page.keyboard.press('.');
  await page.keyboard.press('ArrowRight');
  await page.getByRole('button', { name: 'remove reference 3' }).click();
  await expect(page.getByTestId('lens')).toContainText(/lens k1 -?0\.0\d+/);
  expect(errors).toEqual([]);
  await putAsideOpen(page);
});

/** What of a record no photo from above shows, and what somebody therefore has with a calliper; the rest is blank. */
function unmeasured(record: CaseRecord): CaseRecord {
  const without = <T extends object>(part: T, keys: readonly string[]): T =>
    Object.fromEntries(Object.entries(part).filter(([k]) => !keys.includes(k))) as T;
  return {
    ...record,
    fans: record.fans?.map((f) => without(f, ['impellerDiameterMm'])),
    plates: record.plates?.map((p) => without(p, ['widthMm', 'lengthMm'])),
    finStacks: record.finStacks?.map((s) =>
      without(s, ['widthMm', 'depthMm', 'finCount', 'finThicknessMm']),
    ),
    heatPipes: record.heatPipes?.map((p) => without(p, ['lengthMm', 'flattenedWidthMm', 'bends'])),
  };
}

test('the cooling of a two-fan machine is recorded from one photo by keys, and holds the watts of what was drawn', async ({
  page,
}) => {
  const demo = DEMO_MACHINES.find((m) => m.identity?.variant?.includes('Studio, 8-core'))!;
  const { bytes, marks, record } = await topView(demo);
  const make = async (r: CaseRecord, model: string) => {
    const made = await page.request.post('/api/machines', {
      data: { record: { ...r, identity: { maker: 'Drawn', model } } },
    });
    expect(made.status()).toBe(201);
    return ((await made.json()) as { id: string }).id;
  };
  await page.goto(`/machines/${await make(record, 'as drawn')}/estimate`);
  await expect(page.getByTestId('watts-36')).toBeVisible();
  const truth = await watts(page, '36');
  await putAsideOpen(page);

  const machine = await make(unmeasured(record), 'from its photo');
  await measurePage(page, { machine, photo: bytes });
  const pane = page.getByTestId('photo-pane');
  await pane.focus();
  await page.keyboard.press('r');
  const [module] = marks.references;
  for (const [x, y] of module!.item.kind === 'rectangle' ? module!.item.corners : []) {
    await pixel(page, x, y);
  }
  const KEYS = { circle: 'c', fins: 'f', area: 'a', path: 'p', strip: 'w' } as Record<
    string,
    string
  >;
  let count = 0;
  for (const { mark, figure } of marks.marks) {
    await pane.focus();
    await page.keyboard.press(KEYS[mark.kind]!);
    for (const [x, y] of mark.points) await pixel(page, x, y);
    if (!['fins', 'strip'].includes(mark.kind)) await page.keyboard.press('d');
    const row = page.getByTestId('marks').getByRole('listitem').nth(count++);
    await expect(row.locator('[data-reads]')).toContainText(/\d/);
    await page.keyboard.press('b');
    await row.getByRole('combobox').selectOption(figure);
  }
  const into = page.getByRole('region', { name: 'into the record' });
  await expect(into.locator('[data-renewal]')).toHaveCount(18);
  await pane.focus();
  await page.keyboard.press('t');
  await expect(into).toContainText('Nothing differs');
  // each within its ±, widths besides within what the drawing itself is softened by
  const answer = await page.request.get(`/api/machines/${machine}`);
  await expect
    .poll(async () => (await recordOf(page, machine)).fans[0]!.impellerDiameterMm)
    .toMatchObject({ origin: 'photo' });
  expect(answer.ok()).toBe(true);
  const now = (await recordOf(page, machine)) as unknown as CaseRecord;
  for (const [list, field] of [
    ['fans', 'impellerDiameterMm'],
    ['finStacks', 'widthMm'],
    ['finStacks', 'depthMm'],
    ['finStacks', 'finCount'],
    ['plates', 'widthMm'],
    ['plates', 'lengthMm'],
    ['heatPipes', 'lengthMm'],
    ['heatPipes', 'flattenedWidthMm'],
  ] as const) {
    (record[list] as object[]).forEach((part, i) => {
      const of = (p: object) => (p as Record<string, RecordFigure>)[field];
      const measured = of((now[list] as object[])[i]!) as Figure;
      const off = Math.abs(measured.value - figureValue(of(part))!);
      expect([list, i, field, off < 3 * measured.plusMinus + 0.06]).toEqual([list, i, field, true]);
    });
  }
  await page.keyboard.press('Escape');
  const measuring = page.url();
  await page.goto(`/machines/${machine}/estimate`);
  await expect.poll(() => watts(page, '36')).toBeGreaterThan(0.97 * truth);
  expect(await watts(page, '36')).toBeLessThan(1.03 * truth);

  // what the pipe passes by its course, taken, and back by undo
  const along = async () =>
    ((await recordOf(page, machine)) as unknown as CaseRecord).heatPipes![0]!.along!;
  const before = await along();
  await page.goto(measuring);
  const passes = page.locator(`[data-passes="${record.heatPipes![0]!.id}"]`);
  await expect(passes).toContainText(
    new RegExp(before.map((a) => `${a.part} \\d+–\\d+`).join(', ')),
  );
  await passes.getByRole('button').click();
  await expect(passes).toHaveCount(0);
  await expect
    .poll(async () => (await along()).map((a) => a.part))
    .toEqual(before.map((a) => a.part));
  await expect
    .poll(async () => (await along())[1])
    .toMatchObject({ fromMm: { origin: 'photo' }, toMm: { origin: 'photo' } });
  await page.keyboard.press('Control+z');
  await expect(passes).toHaveCount(1);
  await expect.poll(along).toEqual(before);
  await putAsideOpen(page);
});

test('fans, fins and pipes are found when asked for, offered one by one, and none is entered unseen', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await measurePage(page);
  await page.getByTestId('photo-pane').focus();
  const offer = page.getByTestId('proposals');
  await expect(offer).toContainText('once something of known size is marked');
  await page.keyboard.press('r');
  const [x, y] = MODULE;
  await point(page, x, y);
  await point(page, x + 67.6, y);
  await point(page, x + 67.6, y + 30);
  await point(page, x, y + 30);
  await expect(page.getByTestId('scale')).toBeVisible();
  await page.keyboard.press('q');
  await expect(offer).toContainText(/found: circle 5[78]\.\d+ ± 0\.\d+ mm, 3 more/);
  await expect(page.getByTestId('marks')).toHaveCount(0);
  await page.keyboard.press('y');
  await expect(reads(page, 'circle-1')).toHaveText(/^5[78]\./);
  await expect(offer).toContainText('found: fins 40 fins');
  await page.keyboard.press('u');
  await expect(offer).toContainText(/found: path 5[45]\.\d+ ± 0\.\d+ mm, 1 more/);
  await page.keyboard.press('y');
  await expect(reads(page, 'path-1')).toHaveText(/^5[45]\./);
  await expect(offer).toContainText(/found: width 10\.[89]\d* ± 0\.\d+ mm/);
  await page.keyboard.press('y');
  await expect(reads(page, 'width-1')).toHaveText(/^10\.[89]/);
  await expect(offer).toContainText('nothing more is found for sure');
  await expect(page.getByTestId('marks').getByRole('listitem')).toHaveCount(3);
  // what was left is found again, what was taken is not
  await page.keyboard.press('q');
  await expect(offer).toContainText(/found: fins 40 fins(?!,)/);
  await page.keyboard.press('y');
  await expect(reads(page, 'fins-1')).toHaveText(/^40/);
  // looking is stopped by the key that began it
  await page.route(/proposals\?of=pipes/, () => undefined);
  await page.keyboard.press('q');
  await expect(offer).toContainText('looking for pipes, 3 of 3');
  await page.keyboard.press('q');
  await expect(offer.getByRole('button', { name: /Look for fans/ })).toBeVisible();
  await expect(offer).not.toContainText('nothing more');
  expect(errors).toEqual([]);
  await putAsideOpen(page);
});
