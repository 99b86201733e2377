import { expect, test } from '@playwright/test';
import { makeMachine, watchErrors } from './support';

test('an opening is logged by keys, goes on while the server is away, and one missing screw is named', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await makeMachine(page, { model: 'Opened' });
  await page.goto(`/machines/${id}/identify`);
  await expect(page.getByRole('heading', { name: 'Unit on the bench' })).toBeVisible();
  await page.keyboard.press('l');
  const next = page.getByLabel('next step');
  for (const name of ['Base cover', 'Battery off', 'Fan plugs', 'Blow out the fins']) {
    await next.fill(name);
    await next.press('Enter');
  }
  const main = page.getByRole('main');
  await expect(main.getByRole('button', { name: /Blow out the fins/ })).toBeVisible();
  await main.getByRole('button', { name: /Blow out the fins/ }).click();
  // its name says what it reaches
  await expect(
    main.getByRole('button', { name: 'clean the fans', exact: true, pressed: true }),
  ).toBeVisible();
  await main
    .getByRole('button', { name: /Base cover/ })
    .first()
    .click();

  // four screws in two groups, by the keypad alone; one was missing before
  const map = page.getByTestId('screw-map');
  await map.focus();
  const press = async (...keys: string[]) => {
    for (const key of keys) await page.keyboard.press(key);
  };
  await press('a', 'Enter', ...Array.from({ length: 20 }, () => 'ArrowRight'), 'Enter');
  await press('b', ...Array.from({ length: 20 }, () => 'ArrowDown'), 'Enter');
  await press(...Array.from({ length: 20 }, () => 'ArrowLeft'), '0');
  const balance = page.getByTestId('balance');
  await expect(balance.getByRole('row')).toHaveCount(3);
  await expect(page.getByTestId('way').getByRole('listitem')).toHaveCount(4);
  await expect(page.getByText('4 steps, 4 screws')).toBeVisible();
  await expect(page.getByTestId('log-saving')).toHaveText('kept');

  // the server goes; what is typed is kept here, through a reload too
  await page.route(/documents\/log\//, (route) => route.abort('connectionrefused'));
  await press(...Array.from({ length: 20 }, () => 'ArrowUp'), 'Enter');
  await press(...Array.from({ length: 20 }, () => 'ArrowRight'), 'Enter');
  await press(...Array.from({ length: 20 }, () => 'ArrowDown'), 'Enter');
  await expect(page.getByTestId('log-saving')).toContainText('server away');
  await page.reload();
  await expect(page.getByTestId('balance-words')).toContainText('A: 2 on the bench');
  await page.unroute(/documents\/log\//);
  await expect(page.getByTestId('log-saving')).toHaveText('kept');
  await page.reload();
  await expect(page.getByTestId('balance-words')).toContainText('B: 1 on the bench');

  // back: two of three, and the third is named, apart from the one that was missing before
  await page.keyboard.press('v');
  await expect(page.getByTestId('way-back').getByRole('listitem').first()).toContainText(
    'Fan plugs',
  );
  await expect(page.getByTestId('way-back')).toContainText('crosswise, two rounds');
  await map.focus();
  await press('Enter', ...Array.from({ length: 20 }, () => 'ArrowRight'), 'Enter');
  await expect(page.getByTestId('balance-words')).toHaveText('B: 1 on the bench; B: open s3');
  await press('Control+z');
  await expect(page.getByTestId('balance-words')).toContainText('A: 1 on the bench');
  await press('Control+Shift+z', ...Array.from({ length: 20 }, () => 'ArrowDown'), 'Enter');
  await expect(page.getByTestId('balance-words')).toHaveText('Every hole is as it was found.');
  expect(errors.filter((e) => !/ERR_CONNECTION_REFUSED/.test(e))).toEqual([]);
});
