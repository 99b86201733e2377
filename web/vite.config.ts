import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { build, defineConfig, type Plugin } from 'vite';
import type { BuiltFile } from './shell/offline/kept';

const OUT = 'dist';
const WORKER = 'offline.js';

/** Every file of the build with what tells one version of it from another. */
function builtFiles(folder: string): BuiltFile[] {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((f) => f.isFile() && f.name !== WORKER && !f.name.endsWith('.map'))
    .map((f) => join(f.parentPath, f.name))
    .sort()
    .map((path) => {
      const url = `/${relative(folder, path).split(sep).join('/')}`;
      const hash = createHash('sha256').update(readFileSync(path)).digest('hex').slice(0, 16);
      // names under assets carry a hash already
      return { url, revision: url.startsWith('/assets/') ? null : hash };
    });
}

/** The worker that keeps the program for when the server is away: one file of its own, under a name that stays. */
const offlineWorker = (): Plugin => ({
  name: 'offline-worker',
  apply: 'build',
  async closeBundle() {
    const root = import.meta.dirname;
    await build({
      configFile: false,
      root,
      publicDir: false,
      logLevel: 'warn',
      define: {
        __BUILT_FILES__: JSON.stringify(builtFiles(join(root, OUT))),
        'process.env.NODE_ENV': '"production"',
      },
      build: {
        outDir: OUT,
        emptyOutDir: false,
        lib: {
          entry: 'shell/offline/serviceWorker.ts',
          formats: ['iife'],
          name: 'offline',
          fileName: () => WORKER,
        },
      },
    });
  },
});

export default defineConfig({
  plugins: [react(), tailwindcss(), offlineWorker()],
  worker: { format: 'es' },
  build: { outDir: OUT, emptyOutDir: true, chunkSizeWarningLimit: 700 },
  server: { host: '127.0.0.1', port: 5180, proxy: { '/api': 'http://127.0.0.1:4180' } },
});
