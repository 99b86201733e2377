// npm test: everything that guards main, ending in one line `N passed, N failed` over all of it.
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { spawn } from 'node:child_process';
import { buildWeb, installPackages, root, run } from './prepare.mjs';

const CHROMIUM = '/usr/bin/chromium';
/** Interface tests go in so many parts, as many at once as there is room for: some tests take as long as ten others. */
const SHARDS = 4;
const AT_ONCE = 2;
let passed = 0;
let failed = 0;
const results = mkdtempSync(join(tmpdir(), 'zugluft-test-'));

function step(name, command, args) {
  console.log(`\n== ${name}`);
  const ok = run(command, args) === 0;
  if (ok) passed++;
  else failed++;
  return ok;
}

/** Counts a runner's single tests from the JSON it left; a runner that left none has failed. */
function counted(name, file, status, read) {
  if (!existsSync(file)) {
    console.log(`${name} left no result`);
    failed++;
    return;
  }
  const counts = read(JSON.parse(readFileSync(file, 'utf8')));
  passed += counts.passed;
  failed += counts.failed;
  // a suite that could not even start counts too
  if (status !== 0 && counts.failed === 0) failed++;
}

/** Whether one of Debian's packages is there, by a file of it; as root it is installed where it is not. */
function debianThere(name, file, forWhat) {
  if (existsSync(file)) return true;
  if (process.getuid?.() !== 0) {
    console.error(`${forWhat} need Debian's ${name}: as root, apt-get install ${name}`);
    return false;
  }
  console.log(`Installing Debian's ${name}: ${forWhat} need it.`);
  const quietly = { stdio: ['ignore', 'ignore', 'inherit'] };
  run('apt-get', ['update', '-qq'], quietly);
  return run('apt-get', ['install', '-y', '-qq', name], quietly) === 0;
}

/** A share of the interface tests, each with a server and data of its own: they wait more than they reckon, so that two go on beside each other. */
function interfaceTests(shard) {
  const file = join(results, `e2e-${shard}.json`);
  const args = ['--no-install', 'playwright', 'test', '-c', 'e2e/playwright.config.ts'];
  const child = spawn('npx', [...args, `--shard=${shard}/${SHARDS}`, '--reporter=list,json'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: file },
  });
  return new Promise((resolve) => {
    child.on('error', () => resolve({ file, status: 1 }));
    child.on('exit', (status) => resolve({ file, status: status ?? 1 }));
  });
}

installPackages();
step('types', 'npx', ['--no-install', 'tsc', '-p', 'tsconfig.json']);
step('lint', 'npx', ['--no-install', 'eslint', '.', '--max-warnings', '0']);
step('format', 'npx', ['--no-install', 'prettier', '--check', '--log-level', 'warn', '.']);

console.log('\n== unit tests');
// tests of PDF fail without it, and say so
debianThere('poppler-utils', '/usr/bin/pdftoppm', 'tests of PDF pages');
const unit = join(results, 'unit.json');
const unitStatus = run('npx', [
  '--no-install',
  'jest',
  '--json',
  `--outputFile=${unit}`,
  '--silent',
  // what a test that failed left running must not hold up all else
  '--forceExit',
]);
counted('the unit tests', unit, unitStatus, (r) => ({
  passed: r.numPassedTests,
  failed: r.numFailedTests,
}));

console.log('\n== interface tests');
buildWeb();
if (debianThere('chromium', CHROMIUM, 'the interface tests')) {
  const waiting = Array.from({ length: SHARDS }, (_, i) => i + 1);
  const ended = [];
  const runner = async () => {
    for (let shard = waiting.shift(); shard; shard = waiting.shift()) {
      ended.push(await interfaceTests(shard));
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, runner));
  ended.forEach(({ file, status }) =>
    counted('the interface tests', file, status, (r) => ({
      passed: r.stats.expected,
      failed: r.stats.unexpected + r.stats.flaky,
    })),
  );
} else failed++;

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
