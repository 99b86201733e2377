import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { build, defineConfig, type Plugin } from 'vite';

/** The worker that keeps the program for when the server is away: one file of its own, under a name that stays. */
const offlineWorker = (): Plugin => ({
  name: 'offline-worker',
  apply: 'build',
  async closeBundle() {
    await build({
      configFile: false,
      root: import.meta.dirname,
      publicDir: false,
      logLevel: 'warn',
      build: {
        outDir: 'dist',
        emptyOutDir: false,
        lib: {
          entry: 'offline/serviceWorker.ts',
          formats: ['iife'],
          name: 'offline',
          fileName: () => 'offline.js',
        },
      },
    });
  },
});

export default defineConfig({
  plugins: [react(), tailwindcss(), offlineWorker()],
  worker: { format: 'es' },
  build: { outDir: 'dist', emptyOutDir: true, chunkSizeWarningLimit: 700 },
  server: { host: '127.0.0.1', port: 5180, proxy: { '/api': 'http://127.0.0.1:4180' } },
});
