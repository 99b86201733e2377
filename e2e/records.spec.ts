import { expect, test } from '@playwright/test';
import { openMachine, openParts, saved, watchErrors } from './support';

test('a figure is read with its unit, ± and origin, and shown in the units one prefers', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openMachine(page, 'intake behind');
  await openParts(page, 'Dies');
  const width = page.getByLabel('cpu, width, mm');
  await width.fill('0.5 in ± 0.004 photo');
  await expect(page.getByText('= 12.7 mm ± 0.102, photo')).toBeVisible();
  await width.press('Escape');
  await expect(width).toHaveValue('12.7');
  await width.focus();
  await page.keyboard.press('Control+Enter');
  const details = page.getByRole('dialog', { name: 'cpu, width' });
  await expect(details.getByLabel('± of cpu, width')).toHaveValue('0.1016');
  await details.getByLabel('± of cpu, width').fill('wide');
  await expect(details.getByRole('alert')).toContainText('“wide” is no ±');
  await details.getByLabel('± of cpu, width').fill('2 %');
  await details.getByLabel('Origin').selectOption('label');
  await details.getByLabel('Note').fill('edge hidden by a frame');
  await details.getByRole('button', { name: 'Done' }).click();
  await expect(width).toHaveAttribute('title', /label, ± 0.254, edge hidden/);
  await page.getByRole('button', { name: 'units' }).click();
  await page.getByRole('radio', { name: 'in', exact: true }).check();
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByLabel('cpu, width, in')).toHaveValue('0.5');
  await page.getByLabel('cpu, width, in').fill('0.6');
  await page.keyboard.press('Escape');
  await expect(saved(page)).toContainText(/revision [2-9]/);
  await page.reload();
  await openParts(page, 'Dies');
  await expect(page.getByLabel('cpu, width, in')).toHaveValue('0.6');
  expect(errors).toEqual([]);
});

test('fins are counted from their pitch and the paste is as old as its date code', async ({
  page,
}) => {
  await openMachine(page, 'separate loops');
  await openParts(page, 'Fin stacks');
  await page.getByLabel('count from pitch').fill('0.2 in');
  await expect(page.getByText(/= \d+ fins/)).toBeVisible();
  await page.getByLabel('count from pitch').press('Enter');
  await expect(page.getByRole('button', { name: /fins: estimated, ± 1/ }).first()).toBeVisible();
  await openParts(page, 'Dies');
  const age = page.getByLabel(/age of the interface from a date code/);
  await age.fill('20-20');
  await expect(page.getByText(/a date code such as/)).toBeVisible();
  await age.fill('2023-W14');
  await age.press('Enter');
  await expect(page.getByLabel('cpu, age, years')).toHaveValue(/^[2-9]\./);
  // a datasheet's curve, row by row; Enter goes to what is still empty
  await openParts(page, 'Fans');
  const curve = page.getByRole('region', { name: /^curve of / });
  await curve.getByLabel(/new row, speed/).fill('4800');
  await page.keyboard.press('Enter');
  await page.keyboard.type('0');
  await page.keyboard.press('Enter');
  await page.keyboard.type('120');
  await page.keyboard.press('Enter');
  await expect(curve.getByLabel(/row 1, pressure, Pa/)).toHaveValue('120');
  await expect(curve.getByLabel(/new row, speed/)).toBeFocused();
  await expect(saved(page)).toContainText(/revision [2-9]/);
});

test('a state shares the cooling, a sibling variant is assumed until it is confirmed, history steps back', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openMachine(page, 'thick and quiet');
  await page.keyboard.press('i');
  await page.getByLabel('Serial number').fill('TL15-0007');
  await page.getByLabel('Received on').fill('yesterday');
  await expect(page.getByText('must be a day such as 25.11.2026')).toBeVisible();
  await page.getByLabel('Received on').fill('2026-11-20');
  await expect(page.getByTestId('unit-status')).toHaveText('');
  // another step and back: what was typed stands there, and can be typed on
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: /Outside/ }).click();
  await page.getByRole('link', { name: /Identify/ }).click();
  await expect(page.getByLabel('Serial number')).toHaveValue('TL15-0007');
  await page.getByLabel('Source').fill('bought');
  await expect(page.getByTestId('unit-status')).toHaveText('');
  await expect(page.getByText('These facts were changed')).toHaveCount(0);
  await page.getByRole('button', { name: 'rename' }).click();
  await page.getByLabel('Name of the state').fill('dusty');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await expect(page.getByRole('navigation', { name: 'place' })).toContainText('dusty');
  await page.getByRole('button', { name: 'rename' }).click();
  await page.getByLabel('Name of the state').fill('as found');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await page.getByRole('button', { name: 'add a state' }).click();
  await page.getByLabel('Name of the state').fill('cleaned');
  await page.getByRole('button', { name: 'Add state' }).click();
  await expect(page.getByRole('navigation', { name: 'place' })).toContainText('cleaned');
  const family = page.getByTestId('family');
  await expect(family).toContainText('TL15-0007');
  await page.keyboard.press('k');
  await openParts(page, 'Fans');
  const speed = page.getByLabel('fan-left, maximum, rpm');
  const before = await speed.inputValue();
  await speed.fill('3111');
  await expect(saved(page)).toContainText('revision 2');
  await page.keyboard.press('Escape');
  await page.keyboard.press('i');
  await family.getByRole('link', { name: 'as found', exact: true }).click();
  await expect(page.getByRole('navigation', { name: 'place' })).not.toContainText('cleaned');
  await expect(page.getByLabel('Serial number')).toHaveValue('TL15-0007');
  await page.keyboard.press('k');
  await openParts(page, 'Fans');
  await expect(speed).toHaveValue('3111');
  await page.keyboard.press('y');
  await page
    .getByTestId('history')
    .getByRole('button', { name: /first kept/ })
    .click();
  // whatever was written before, stepping back is one more write and no other
  const revision = async () =>
    Number((await saved(page).textContent())!.match(/revision (\d+)/)![1]);
  const seen = await revision();
  await page.getByRole('button', { name: 'Step back to revision 1' }).click();
  await expect.poll(revision).toBe(seen + 1);
  await page.keyboard.press('k');
  await openParts(page, 'Fans');
  await expect(speed).toHaveValue(before);
  await page.keyboard.press('i');
  await page.getByRole('button', { name: 'copy to a sibling variant' }).click();
  await page.getByLabel('Name of the variant').fill('6-core twin');
  await page.getByRole('button', { name: 'Add variant' }).click();
  await expect(page.getByLabel('Variant', { exact: true })).toHaveValue('6-core twin');
  // its model code was not read off it
  const confirm = page.getByRole('button', { name: 'assumed from a sibling: confirm' });
  await expect(confirm.first()).toBeVisible();
  const marks = await confirm.count();
  await page.getByLabel('Model code', { exact: true }).fill('TL15-6C');
  await expect(confirm).toHaveCount(marks - 1);
  await page.keyboard.press('Escape');
  await page.keyboard.press('k');
  await openParts(page, 'Fans');
  await expect(
    page.getByRole('button', { name: /maximum: assumed, assumed from/ }).first(),
  ).toBeVisible();
  await page.getByRole('button', { name: /Confirm \d figures that stand in/ }).click();
  await expect(page.getByRole('button', { name: /fan-left, maximum: assumed/ })).toHaveCount(0);
  await page.keyboard.press('i');
  await family.getByRole('link', { name: /compare with .*cleaned/ }).click();
  await expect(page.getByTestId('differences')).toContainText('6-core twin');
  expect(errors).toEqual([]);
});

test('files come in with a preview of what is new, changed and refused', async ({ page }) => {
  await page.goto('/library');
  await page.getByRole('button', { name: /Import, export/ }).click();
  const csv = [
    'identity.maker,identity.model,identity.variant,shell.thicknessMm',
    'Oslund,Drift 13,"6-core, thin",14.1',
    'Oslund,Drift 13,"8-core",9000',
    'Oslund,Drift 13,,wide',
  ].join('\n');
  const dialog = page.getByRole('dialog', { name: 'Import and export' });
  await dialog
    .getByLabel('file to import')
    .setInputFiles({ name: 'bench.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(page.getByTestId('import-counts')).toContainText(
    '1 new, 0 changed, 0 the same, 2 refused',
  );
  await expect(dialog).toContainText('must be at most 100 mm');
  await expect(dialog).toContainText('bench.csv, line 4');
  await dialog.getByRole('button', { name: 'Import 1' }).click();
  await expect(page.getByText('1 new, 0 changed, 2 refused')).toBeVisible();
  await page.getByRole('searchbox').fill('drift 13');
  const rows = page.getByTestId('rows').locator('tr');
  await expect(rows).toHaveCount(1);
  await rows.getByRole('checkbox').check();
  await page.getByLabel('tags, separated by commas').fill('shortlist, thin');
  await page.getByRole('button', { name: 'Put on' }).click();
  await expect(rows).toContainText('shortlist');
  await page.getByRole('searchbox').fill('');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Filter/ }).click();
  await page.getByRole('combobox', { name: 'tag' }).selectOption('thin');
  await expect(rows).toHaveCount(1);
  await expect(page).toHaveURL(/tag=thin/);
  await page.getByLabel('fans, from').fill('many');
  await expect(page.getByRole('alert')).toContainText('no number');
  await page.getByLabel('fans, from').fill('1');
  await expect(page.getByText('No machine passes these filters.')).toBeVisible();
  await page.getByRole('button', { name: 'clear filters' }).click();
  await expect.poll(() => rows.count()).toBeGreaterThan(8);
  await page.getByRole('button', { name: /Import, export/ }).click();
  await dialog.getByLabel('file to import').setInputFiles({
    name: 'picture.png',
    mimeType: 'image/png',
    buffer: Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0]),
  });
  await expect(dialog.getByRole('alert')).toContainText('neither JSON nor CSV nor a zip');
});

test('the airway map is drawn from the record, moved by keys, and marks what cannot be', async ({
  page,
}) => {
  await openMachine(page, 'Stage, vapor');
  const map = page.getByTestId('airway-map');
  await expect(map.locator('[data-part="fan-left"]')).toContainText(/L\/s/);
  const fan = map.locator('[data-part="fan-left"] circle').first();
  const x = Number(await fan.getAttribute('cx'));
  await map.locator('[data-part="fan-left"]').focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => Number(await fan.getAttribute('cx'))).toBeGreaterThan(x);
  await expect(saved(page)).toContainText('revision 2');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('tab', { name: /Fans/ })).toHaveAttribute('aria-selected', 'true');
  // dragged with the pointer
  const box = (await fan.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 60, box.y + box.height / 2 + 10, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => Number(await fan.getAttribute('cx'))).toBeLessThan(x);
  await openParts(page, 'Fin stacks');
  await page
    .getByRole('group', { name: 'fins-left, fans' })
    .getByRole('button', { name: 'fan-left' })
    .click();
  await expect(page.getByRole('list', { name: 'faults on the map' })).toContainText(
    'no fan blows through it',
  );
});
