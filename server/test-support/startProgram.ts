import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';

const ROOT = join(__dirname, '../..');
const started: ChildProcess[] = [];
// one that a failed test left running would keep the tests from ending
afterAll(() => {
  for (const child of started) child.kill('SIGKILL');
});

/** The program itself in a process of its own, on any free port. */
export async function startProgram(
  folder: string,
): Promise<{ child: ChildProcess; address: string }> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
    cwd: ROOT,
    env: { ...process.env, ZUGLUFT_DATA: folder, ZUGLUFT_PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  started.push(child);
  let said = '';
  for await (const part of child.stdout!) {
    said += String(part);
    const address = /http:\/\/\S+/.exec(said)?.[0];
    if (address) return { child, address };
  }
  throw new Error(`it did not start: ${said}`);
}
