import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';

/**
 * A server of a test's own, over an empty library: it may be killed, so that it is no other test's.
 *
 * @param number of its own for each file, so that two never share a port
 * @param more of the environment
 */
export function ownServer(number: number, more: Record<string, string> = {}) {
  const port = 31_000 + 1000 * number + (process.pid % 1000);
  const address = `http://127.0.0.1:${port}`;
  const data = mkdtempSync(join(tmpdir(), 'zugluft-own-'));
  let server: ChildProcess | null = null;

  const kill = async (): Promise<void> => {
    const dying = server;
    if (!dying) return;
    server = null;
    const gone = new Promise((resolve) => dying.once('exit', resolve));
    dying.kill('SIGKILL');
    await gone;
  };
  return {
    address,
    data,
    async start(): Promise<void> {
      server = spawn('node', ['--import', 'tsx', 'server/main.ts'], {
        cwd: join(import.meta.dirname ?? __dirname, '..'),
        env: { ...process.env, ...more, ZUGLUFT_DATA: data, ZUGLUFT_PORT: String(port) },
        stdio: 'ignore',
      });
      await expect(async () => {
        expect((await fetch(`${address}/api/health`)).ok).toBe(true);
      }).toPass({ timeout: 180_000 });
    },
    /** As a power cut would: nothing is written any more. */
    kill,
    async end(): Promise<void> {
      await kill();
      rmSync(data, { recursive: true, force: true });
    },
  };
}
