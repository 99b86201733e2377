import { defineConfig } from '@playwright/test';
import { existsSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CHROMIUM } from './chromium';

// a port of this run's own: a server that an ended run left behind must not answer for it; below those that the system hands out
// for connections, which may be taken at any time
const port = Number((process.env['ZUGLUFT_E2E_PORT'] ??= String(20_000 + (process.pid % 10_000))));
const folder = existsSync('/dev/shm') ? '/dev/shm' : tmpdir();
// the config is read by every worker; only the first makes the data folder
const data = (process.env['ZUGLUFT_E2E_DATA'] ??= mkdtempSync(join(folder, 'zugluft-e2e-')));

/** Drives the real interface, served with a fresh demo library, in Debian's Chromium. */
export default defineConfig({
  testDir: '.',
  outputDir: join(data, 'results'),
  workers: 1,
  // on a machine whose processor is somebody else’s for half the time everything takes several times as long
  timeout: 600_000,
  expect: { timeout: 90_000 },
  retries: 0,
  reporter: 'list',
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    // requests that a service worker makes pass by the tests' own answers; the one test of it allows it
    serviceWorkers: 'block',
    // what cannot be done is said long before the test's own time is over
    actionTimeout: 120_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
  },
  webServer: {
    command: 'node --import tsx demo/main.ts',
    cwd: join(import.meta.dirname ?? __dirname, '..'),
    url: `http://127.0.0.1:${port}/api/health`,
    env: { ZUGLUFT_DATA: data, ZUGLUFT_PORT: String(port) },
    timeout: 600_000,
  },
});
