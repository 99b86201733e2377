import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { exchangeAt } from '../test-support/exchange';
import { testServer } from '../test-support/testServer';

jest.setTimeout(300_000);
const here = testServer();
const there = testServer();
const out = exchangeAt(here.call);
const into = exchangeAt(there.call);

const words = (id: string, seen: number, lead: string) =>
  here
    .call()
    .put(`/api/documents/article/${id}`)
    .set('If-Match', `"${seen}"`)
    .send({ value: { format: 'zugluft-article', formatVersion: 1, lead } })
    .expect(200);

/** A library whose only machine has two editions, as a zip. */
async function published() {
  const { id } = await here.create();
  await here.settled();
  const url = `/api/machines/${id}/editions`;
  await words(id, 0, 'Quiet.');
  const first = (await here.call().post(url).send({ cap: 36 }).expect(201)).body;
  await words(id, 1, 'Quiet, but warm.');
  await here.call().post(url).send({ cap: 36 }).expect(201);
  return { id, url, first, zip: await out.download('/api/exchange/library.zip') };
}

/** The same zip with some of its files otherwise. */
const otherwise = (zip: Buffer, change: (files: Record<string, Uint8Array>) => void) => {
  const files = unzipSync(zip);
  change(files);
  return zipSync(files);
};
const named = (files: Record<string, Uint8Array>, part: string) =>
  Object.keys(files).find((name) => name.startsWith('editions/') && name.endsWith(part))!;

test('editions travel with their library byte for byte, are marked there, and come once', async () => {
  const { url, first, zip } = await published();
  expect((await into.send(zip).expect(200)).body.items[0]).toMatchObject({ editions: 2 });
  const [item] = (await into.send(zip, '&apply=1').expect(200)).body.items;
  expect(item).toMatchObject({ action: 'new', editions: 2, reasons: [] });

  const list = (await there.call().get(url).expect(200)).body;
  expect(list.items.map((e: { number: number }) => e.number)).toEqual([2, 1]);
  const [own] = (await here.call().get(url)).body.items.slice(-1);
  expect(own.imported).toBe(false);
  expect(list.items[1]).toEqual({ ...own, imported: true });
  const second = (await there.call().get(`${url}/2`).expect(200)).body;
  expect(second.changes.words).toEqual(['To begin with']);
  const bytes = await out.download(`${url}/1/edition.zip`);
  expect((await into.download(`${url}/1/edition.zip`)).equals(bytes)).toBe(true);

  // nothing in such a page runs or loads anything
  const html = first.files[0].name as string;
  const page = await there
    .call()
    .get(`${url}/1/files/${encodeURIComponent(html)}`)
    .expect(200);
  expect(page.headers['content-security-policy']).toMatch(/^default-src 'none'/);
  expect(page.text).toContain('Edition 1, ');

  const [again] = (await into.send(zip).expect(200)).body.items;
  expect(again).toMatchObject({ action: 'same', editions: 0 });
  const [twice] = (await into.send(zip, '&apply=1').expect(200)).body.items;
  expect(twice).toMatchObject({ action: 'same', editions: 0, reasons: [] });
  expect((await there.call().get(url)).body.total).toBe(2);
});

test('an edition that is none, is another one or comes without those before it is named, and the machine is taken', async () => {
  const { id, url, zip } = await published();
  const reasonOf = async (change: (files: Record<string, Uint8Array>) => void) => {
    const answer = await into.send(otherwise(zip, change), '&apply=1').expect(200);
    const [item] = answer.body.items;
    expect(item.machineId).toBe(id);
    return item.reasons.map((r: { path: string; message: string }) => r.message).join(' | ');
  };
  const edition = (files: Record<string, Uint8Array>) =>
    (files[named(files, '001.zip')] = zipSync({ 'run.exe': strToU8('no') }));
  expect(await reasonOf(edition)).toBe('run.exe is no file of an edition | edition 1 is not here');
  expect(
    await reasonOf(
      (files) => (files[named(files, '001.zip')] = zipSync({ '../a.html': strToU8('') })),
    ),
  ).toContain('../a.html is no file of an edition');
  expect(await reasonOf((files) => (files[named(files, '001.zip')] = strToU8('PK no')))).toContain(
    'its files cannot be unpacked',
  );
  const much = Object.fromEntries(Array.from({ length: 70 }, (_, i) => [`a${i}.md`, strToU8('x')]));
  expect(await reasonOf((files) => (files[named(files, '001.zip')] = zipSync(much)))).toContain(
    'it holds too much',
  );
  const large = zipSync({ 'a.md': new Uint8Array(61 * 1024 * 1024) });
  expect(await reasonOf((files) => (files[named(files, '001.zip')] = large))).toContain(
    'it holds too much',
  );
  const said = (change: (source: Record<string, unknown>) => void) =>
    reasonOf((files) => {
      const name = named(files, '001.json');
      const source = JSON.parse(Buffer.from(files[name]!).toString()) as Record<string, unknown>;
      change(source);
      files[name] = strToU8(JSON.stringify(source));
    });
  expect(await said((s) => (s['headline'] = 7))).toContain('headline: ');
  expect(await said((s) => (s['record'] = { format: 'other' }))).toContain('record.');
  expect(await said((s) => (s['units'] = 'cubits'))).toContain('units: ');
  expect((await there.call().get(url)).body.total).toBe(0);

  // now as it is; then another one under the number of the first
  expect(await reasonOf(() => undefined)).toBe('');
  const kept = () => readdirSync(join(there.db().folder, 'files'), { recursive: true }).length;
  const before = kept();
  expect(
    await reasonOf((files) => (files[named(files, '001.zip')] = zipSync({ 'a.md': strToU8('x') }))),
  ).toBe('edition 1 is here already');
  // nothing of one that is refused is left behind
  expect(kept()).toBe(before);
  expect((await there.call().get(url)).body.total).toBe(2);
});

test('an edition whose files are gone is named in the list, and the others go out', async () => {
  const { url } = await published();
  const { db } = here.library();
  await db.sequelize.query("UPDATE editions SET sha256 = 'gone' WHERE number = 1");
  const files = unzipSync(await out.download('/api/exchange/library.zip'));
  const [machine] = JSON.parse(Buffer.from(files['manifest.json']!).toString()).machines;
  expect(machine.missingEditions).toEqual([{ number: 1, why: 'its files are not here' }]);
  expect(machine.editions).toHaveLength(1);
  expect(url).toContain(machine.id);
});
