import { expect, test, type Page } from '@playwright/test';
import { ownServer } from './ownServer';

const PASSPHRASE = 'quiet fans blow';
const own = ownServer(5, { ZUGLUFT_PASSPHRASE: PASSPHRASE });
test.beforeAll(async () => {
  test.setTimeout(240_000);
  await own.start();
});
test.afterAll(() => own.end());

const dialog = (page: Page) => page.getByRole('dialog', { name: 'Sign in' });
async function signIn(page: Page, name: string, passphrase = PASSPHRASE) {
  await dialog(page)
    .getByLabel(/Your name/)
    .fill(name);
  await dialog(page)
    .getByLabel(/Passphrase/)
    .fill(passphrase);
  await page.keyboard.press('Enter');
}

test('who it is is asked first; what was typed after the session was ended is kept and sent once signed in again', async ({
  page,
}) => {
  await page.goto(`${own.address}/house-rules`);
  // one types at once, and however often Escape is pressed it goes on to be asked
  await expect(dialog(page).getByLabel(/Your name/)).toBeFocused();
  for (let k = 0; k < 4; k++) await page.keyboard.press('Escape');
  await page.keyboard.press('n');
  await expect(dialog(page)).toBeVisible();
  await expect(page).toHaveURL(/house-rules$/);
  await signIn(page, 'Ada', 'loud fans blow');
  await expect(dialog(page).getByRole('alert')).toContainText('Not signed in');
  await signIn(page, 'Ada');
  await expect(dialog(page)).toHaveCount(0);
  await expect(page.getByTestId('who')).toContainText('Ada');
  await expect(page.getByTestId('sessions').getByRole('listitem')).toHaveCount(1);

  // somebody else ends it
  const other = await fetch(`${own.address}/api/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name: 'Bo', passphrase: PASSPHRASE }),
  });
  const headers = { Cookie: other.headers.get('set-cookie')!.split(';')[0]! };
  const { items } = (await (await fetch(`${own.address}/api/sessions`, { headers })).json()) as {
    items: { id: string; name: string }[];
  };
  const ada = items.find((s) => s.name === 'Ada')!;
  await fetch(`${own.address}/api/sessions/${ada.id}`, { method: 'DELETE', headers });

  await page.getByLabel(/W more/).fill('5');
  await page.keyboard.press('Tab');
  await expect(dialog(page)).toBeVisible();
  // its name is remembered
  await expect(dialog(page).getByLabel(/Your name/)).toHaveValue('Ada');
  await expect(dialog(page).getByLabel(/Passphrase/)).toBeFocused();
  await signIn(page, 'Ada');
  await expect(dialog(page)).toHaveCount(0);
  const kept = async () => {
    const answer = await fetch(`${own.address}/api/settings`, { headers });
    return ((await answer.json()) as { noticeable: { watts: number } }).noticeable.watts;
  };
  await expect.poll(kept).toBe(5);
  await page.reload();
  await expect(page.getByLabel(/W more/)).toHaveValue('5');

  // what the server does not have would go out under the next name
  const writes = (url: URL) => url.pathname.startsWith('/api/documents/');
  await page.route(writes, (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await page.getByLabel(/W more/).fill('6');
  const signOut = page.getByTestId('who').getByRole('button', { name: 'sign out' });
  await signOut.click();
  await expect(page.getByText(/^Not signed out: some of what was typed/)).toBeVisible();
  await page.unroute(writes);
  await signOut.click();
  await expect(dialog(page)).toBeVisible();
  expect(await kept()).toBe(6);
  await page.reload();
  await expect(dialog(page)).toBeVisible();
  await expect(page.getByTestId('sessions')).toHaveCount(0);
});
