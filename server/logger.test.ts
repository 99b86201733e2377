import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { startServer } from './start';
import { LOG_FOLDER, toldError } from './logger';
import { temporaryFolder } from './test-support/temporaryFolder';

const linesIn = (folder: string): Record<string, unknown>[] =>
  readdirSync(join(folder, LOG_FOLDER))
    .flatMap((name) => readFileSync(join(folder, LOG_FOLDER, name), 'utf8').split('\n'))
    .filter(Boolean)
    .map((line) => JSON.parse(line) as Record<string, unknown>);

test('each request is a line with its method, path, status and time, and nothing of what it was about', async () => {
  const folder = temporaryFolder();
  const running = await startServer({ dataFolder: folder, webFolder: null, port: 0 });
  const at = running.address;
  const record = { format: 'zugluft-record', formatVersion: 1, identity: { model: 'SECRET-1' } };
  const json = { 'Content-Type': 'application/json' };
  const made = await fetch(`${at}/api/machines`, {
    method: 'POST',
    headers: json,
    body: JSON.stringify({ record }),
  });
  await fetch(`${at}/api/machines?q=SECRET-2`);
  await fetch(`${at}/api/session`, {
    method: 'POST',
    headers: json,
    body: JSON.stringify({ name: 'a', passphrase: 'SECRET-3' }),
  });
  await fetch(`${at}/api/not/there?SECRET-4`);
  await running.stop();
  const lines = linesIn(folder);
  expect(lines.map((l) => [l['method'], l['path'], l['status']])).toEqual([
    ['POST', '/api/machines', 201],
    ['GET', '/api/machines', 200],
    ['POST', '/api/session', 200],
    ['GET', '/api/not/there', 404],
  ]);
  expect(lines[0]!['id']).toBe(made.headers.get('x-request-id'));
  for (const l of lines) expect(l['ms']).toBeGreaterThanOrEqual(0);
  expect(JSON.stringify(lines)).not.toContain('SECRET');
});

test('of an error its words are told, and no statement or value', () => {
  const error = Object.assign(new Error('constraint failed'), {
    sql: 'INSERT SECRET',
    parameters: ['SECRET'],
    original: new Error('SECRET'),
    code: 'SQLITE_CONSTRAINT',
  });
  expect(JSON.stringify(toldError(error))).not.toContain('SECRET');
  expect(toldError(error)).toMatchObject({
    message: 'constraint failed',
    code: 'SQLITE_CONSTRAINT',
  });
  expect(toldError('SECRET')).toEqual({ message: expect.not.stringContaining('SECRET') });
});
