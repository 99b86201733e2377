import { once } from 'node:events';
import { readdirSync, readFileSync, utimesSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { openDatabase } from '../database/openDatabase';
import { startProgram } from '../test-support/startProgram';
import { temporaryFolder } from '../test-support/temporaryFolder';
import { tidyBackups } from './tidyBackups';
import { backupToFile } from './writeBackup';

const send = (address: string, bytes: Uint8Array) =>
  fetch(`${address}/api/backup/restore`, {
    method: 'POST',
    body: bytes as BodyInit,
    headers: { 'Content-Type': 'application/octet-stream' },
  });

test('a running server gives a backup away, takes it back, and goes on with what was in it', async () => {
  const folder = temporaryFolder();
  const { child, address } = await startProgram(folder);
  const add = async (model: string) => {
    const record = { format: 'zugluft-record', formatVersion: 1, identity: { model } };
    const answer = await fetch(`${address}/api/machines`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ record }),
    });
    expect(answer.status).toBe(201);
  };
  const listed = async () => {
    const answer = await fetch(`${address}/api/machines`);
    const { items } = (await answer.json()) as { items: { model: string }[] };
    return items.map((m) => m.model);
  };
  await add('before');
  const backup = new Uint8Array(await (await fetch(`${address}/api/backup/now.tar`)).arrayBuffer());
  await add('after');
  expect((await listed()).sort()).toEqual(['after', 'before']);

  const spoiled = backup.slice();
  spoiled[2000]! ^= 1;
  const refused = await send(address, spoiled);
  expect([refused.status, (await refused.json()).detail]).toEqual([
    422,
    expect.stringMatching(/damaged/),
  ]);
  expect((await listed()).sort()).toEqual(['after', 'before']);

  // readers that ask all the while are answered before or after, or told to wait
  let going = true;
  const asked = (async () => {
    const seen = new Set<number>();
    while (going) seen.add((await fetch(`${address}/api/machines`)).status);
    return seen;
  })();
  const restored = await send(address, backup);
  expect(restored.status).toBe(200);
  expect(await restored.json()).toMatchObject({ machines: 1, files: 0, missing: [] });
  going = false;
  for (const status of await asked) expect([200, 503]).toContain(status);
  expect(await listed()).toEqual(['before']);
  // it can be written to, and nothing is left of the way there
  await add('later');
  expect((await listed()).sort()).toEqual(['before', 'later']);
  expect(readdirSync(folder).filter((n) => n.startsWith('.') || /restoring/.test(n))).toEqual([]);
  const aside = readdirSync(folder).find((n) => n.startsWith('before-restore-'))!;
  expect(readdirSync(join(folder, aside))).toContain('zugluft.sqlite');
  const ended = once(child, 'exit');
  child.kill('SIGTERM');
  expect(await ended).toEqual([0, null]);
});

test('a backup whose library cannot be opened is put away again, and what was there goes on', async () => {
  // sound by every check, but a change that it has yet to go through finds no table
  const old = temporaryFolder();
  const db = await openDatabase(old, '0014-editions');
  await db.sequelize.query('DROP TABLE attachments');
  await db.close();
  const file = join(old, 'old.tar');
  await backupToFile(old, file, false);

  const folder = temporaryFolder();
  const { child, address } = await startProgram(folder);
  const made = await fetch(`${address}/api/machines`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ record: { format: 'zugluft-record', formatVersion: 1 } }),
  });
  expect(made.status).toBe(201);
  const answer = await send(address, readFileSync(file));
  expect([answer.status, (await answer.json()).detail]).toEqual([
    422,
    expect.stringMatching(/cannot be opened.*put back/),
  ]);
  const list = await (await fetch(`${address}/api/machines`)).json();
  expect((list as { total: number }).total).toBe(1);
  const ended = once(child, 'exit');
  child.kill('SIGTERM');
  expect(await ended).toEqual([0, null]);
});

test('a start tidies what backups left that were cut off, and nothing that a command may be writing', async () => {
  const folder = temporaryFolder();
  const long = new Date(Date.now() - 2 * 86_400_000);
  for (const name of ['.uploaded-a', '.backing-up-old', '.backing-up-new', 'mine']) {
    writeFileSync(join(folder, name), 'x');
  }
  utimesSync(join(folder, '.backing-up-old'), long, long);
  await tidyBackups(folder);
  expect(readdirSync(folder).sort()).toEqual(['.backing-up-new', 'mine']);
});
