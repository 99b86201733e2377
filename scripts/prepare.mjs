// What a fresh machine needs before anything runs: packages, and for the browser the built interface.
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync, mkdirSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

export const root = fileURLToPath(new URL('..', import.meta.url));

export function run(command, args, options = {}) {
  const { status, signal } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  return status ?? (signal ? 130 : 1);
}

/** Runs a TypeScript module of the repository in this process. */
export async function runHere(file) {
  process.chdir(root);
  const { register } = await import('tsx/esm/api');
  register();
  await import(pathToFileURL(join(root, file)).href);
}

function must(command, args, options) {
  const status = run(command, args, options);
  if (status !== 0) {
    console.error(`${command} ${args.join(' ')} failed`);
    process.exit(status);
  }
}

/** Installs packages where they are missing or the lock file has changed since. */
export function installPackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const stamp = join(root, 'node_modules/.zugluft-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  console.log(
    'Installing packages. The database driver is compiled on the way, which takes about two minutes.',
  );
  must('npm', ['ci']);
  writeFileSync(stamp, lock);
}

function newest(folder) {
  let latest = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (entry.name === 'node_modules' || entry.name === 'dist') continue;
    const path = join(folder, entry.name);
    latest = Math.max(latest, entry.isDirectory() ? newest(path) : statSync(path).mtimeMs);
  }
  return latest;
}

/** Builds the interface where it is missing or older than its sources. */
export function buildWeb() {
  const built = join(root, 'web/dist/index.html');
  const sources = Math.max(newest(join(root, 'web')), newest(join(root, 'core')));
  if (existsSync(built) && statSync(built).mtimeMs > sources) return;
  console.log('Building the interface.');
  mkdirSync(join(root, 'web/dist'), { recursive: true });
  must('npx', ['--no-install', 'vite', 'build', '--logLevel', 'warn'], { cwd: join(root, 'web') });
}
