import { unzipSync } from 'fflate';
import { asBytes } from '../test-support/asBytes';
import { testServer } from '../test-support/testServer';

jest.setTimeout(300_000);
const { call, create, record, settled } = testServer();

const site = (query = '') => call().get(`/api/site.zip${query}`).buffer(true).parse(asBytes);

test('a library is a folder of pages whose every link leads somewhere within it', async () => {
  const named = (model: string) => ({
    ...record(),
    identity: { ...record().identity, maker: '<b>=1+1', model },
  });
  await create(named('One'));
  await create(named('One'));
  const aside = await create(named('Aside'));
  await call().post(`/api/machines/${aside.id}/put-aside`).set('If-Match', '"1"').expect(200);
  const { format, formatVersion, identity } = record();
  await create({ format, formatVersion, identity });
  await settled();
  const { body } = await site('?cap=36').expect(200).expect('Content-Type', /zip/);
  const files = unzipSync(new Uint8Array(body as Buffer));
  const names = Object.keys(files);
  const textOf = (name: string) => Buffer.from(files[name]!).toString('utf8');
  expect(names.filter((n) => n.endsWith('/report.json'))).toHaveLength(2);
  expect(names.some((n) => n.includes('aside'))).toBe(false);
  const pages = names.filter((n) => n.endsWith('.html'));
  expect(pages).toHaveLength(4);
  for (const page of pages) {
    const html = textOf(page);
    expect(html).not.toContain('<script');
    // within the words for those who cannot see a drawing it is only text
    expect(html.replace(/"[^"]*"/g, '""')).not.toContain('<b>');
    const folder = page.includes('/') ? page.slice(0, page.lastIndexOf('/') + 1) : '';
    for (const [, href] of html.matchAll(/ href="([^"#]+)"/g)) {
      expect([page, href, names.includes(folder + decodeURI(href!))]).toEqual([page, href, true]);
    }
    // what is read comes from nowhere else
    expect(html).not.toMatch(/(?:src|href)="(?:https?:)?\/\//);
  }
  const data = JSON.parse(textOf('data/machines.json')) as { machines: { at: object[] }[] };
  expect(data.machines).toHaveLength(2);
  expect(data.machines[0]!.at.length).toBeGreaterThan(4);
  const report = names.find((n) => n.endsWith('/report.json'))!;
  expect(JSON.parse(textOf(report))).toMatchObject({ format: 'zugluft-report' });
});

test('an empty library, and what cannot be asked, is told', async () => {
  const { body } = await call().get('/api/site.zip').expect(409);
  expect(body.detail).toContain('no machine of the library has watts yet');
  for (const wrong of ['cap=loud', 'cap=500', 'units=cubits', 'as=pdf']) {
    await call().get(`/api/site.zip?${wrong}`).expect(400);
  }
});
