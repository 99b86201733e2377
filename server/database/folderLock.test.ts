import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { join } from 'node:path';
import { startProgram } from '../test-support/startProgram';
import { temporaryFolder } from '../test-support/temporaryFolder';
import { lockFolder } from './folderLock';

const ROOT = join(__dirname, '../..');

/** What a second program says of a folder, and how it ends. */
async function startSecond(folder: string): Promise<{ said: string; code: number }> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
    cwd: ROOT,
    env: { ...process.env, ZUGLUFT_DATA: folder, ZUGLUFT_PORT: '0' },
  });
  let said = '';
  child.stderr.on('data', (part) => (said += String(part)));
  const [code] = (await once(child, 'exit')) as [number];
  return { said, code };
}

test('a folder is held by one alone, and free again once it is let go', async () => {
  const folder = temporaryFolder();
  const lock = await lockFolder(folder);
  await lock.tell('http://127.0.0.1:4180');
  await expect(lockFolder(folder)).rejects.toThrow(
    new RegExp(`process ${process.pid}, at http://127.0.0.1:4180`),
  );
  await lock.release();
  await (await lockFolder(folder)).release();
});

test('a second start says who works there and touches nothing; after a kill the folder is free at once', async () => {
  const folder = temporaryFolder();
  const first = await startProgram(folder);
  // an import that is under way
  mkdirSync(join(folder, 'incoming'), { recursive: true });
  writeFileSync(join(folder, 'incoming', 'half'), 'half');
  const before = readdirSync(folder).sort();
  const { said, code } = await startSecond(folder);
  expect(code).toBe(1);
  expect(said).toContain(`process ${first.child.pid}, at ${first.address}`);
  expect(said).not.toMatch(/\n\s+at /);
  expect(existsSync(join(folder, 'incoming', 'half'))).toBe(true);
  expect(readdirSync(folder).sort()).toEqual(before);
  const gone = once(first.child, 'exit');
  first.child.kill('SIGKILL');
  await gone;
  const again = await startProgram(folder);
  const ended = once(again.child, 'exit');
  again.child.kill('SIGTERM');
  expect(await ended).toEqual([0, null]);
  // let go: nothing says that somebody still works there
  expect(existsSync(join(folder, 'running.json'))).toBe(false);
});

test('told to stop, it ends what is under way before it goes', async () => {
  const folder = temporaryFolder();
  const { child, address } = await startProgram(folder);
  const text = JSON.stringify({ record: { format: 'zugluft-record', formatVersion: 1 } });
  const sending = request(`${address}/api/machines`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', 'Content-Length': text.length },
  });
  const answered = once(sending, 'response');
  sending.write(text.slice(0, 20));
  // it has begun to read the request once it answers another one
  expect((await fetch(`${address}/api/health`)).status).toBe(200);
  const ended = once(child, 'exit');
  child.kill('SIGTERM');
  // no new one is taken
  const refused = async (): Promise<void> => {
    for (;;) {
      try {
        await fetch(`${address}/api/health`, { headers: { Connection: 'close' } });
        await new Promise((resolve) => setTimeout(resolve, 10));
      } catch {
        return;
      }
    }
  };
  await refused();
  sending.end(text.slice(20));
  const [answer] = await answered;
  expect(answer.statusCode).toBe(201);
  expect(await ended).toEqual([0, null]);
});
