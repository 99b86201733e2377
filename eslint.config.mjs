import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';
import { layersRule } from './scripts/layersRule.mjs';

const NODE_MODULES = [
  'fs',
  'fs/promises',
  'path',
  'os',
  'http',
  'https',
  'http2',
  'net',
  'tls',
  'dns',
  'dgram',
  'child_process',
  'worker_threads',
  'cluster',
  'crypto',
  'process',
  'timers',
  'perf_hooks',
  'stream',
  'zlib',
  'url',
  'util',
  'v8',
  'vm',
];

/** What a part of the repository may not use; the picture is in ARCHITECTURE.md. */
const forbid = (files, patterns, message) => ({
  files,
  rules: {
    'no-restricted-imports': ['error', { patterns: [{ group: patterns, message }] }],
  },
});

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', 'coverage/**', 'demo-data/**', 'data/**'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
    },
  },
  // a promise that nobody waits for hides its failure
  {
    files: ['**/*.{ts,tsx}'],
    languageOptions: {
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': 'error',
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
    },
  },
  // the core computes: no interface, file system, network or clock
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts', 'core/test-support/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: NODE_MODULES.map((name) => ({
            name,
            message: 'The core has no file, network or clock access.',
          })),
          patterns: [
            { group: ['node:*'], message: 'The core has no file, network or clock access.' },
            {
              group: [
                '@zugluft/server*',
                '@zugluft/web*',
                '@zugluft/cli*',
                '@zugluft/demo*',
                '**/server/**',
                '**/web/**',
                '**/cli/**',
                '**/demo/**',
              ],
              message: 'The core uses nothing of the other parts.',
            },
            {
              group: ['react*', 'express', 'sequelize', 'echarts*'],
              message: 'The core has no interface and no storage.',
            },
          ],
        },
      ],
      'no-restricted-globals': [
        'error',
        ...[
          'window',
          'document',
          'navigator',
          'localStorage',
          'fetch',
          'XMLHttpRequest',
          'WebSocket',
          'process',
          'performance',
          'setTimeout',
          'setInterval',
          'setImmediate',
          'requestAnimationFrame',
          'require',
          'Buffer',
          'console',
        ].map((name) => ({
          name,
          message: 'The core has no interface, file, network or clock access.',
        })),
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: "MemberExpression[object.name='Date'][property.name='now']",
          message: 'The core has no clock.',
        },
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'The core has no clock.',
        },
        {
          selector: "MemberExpression[object.name='Math'][property.name='random']",
          message: 'The core is deterministic.',
        },
        { selector: 'ImportExpression', message: 'The core loads nothing at run time.' },
      ],
    },
  },
  {
    ...forbid(
      ['web/**/*.{ts,tsx}'],
      ['@zugluft/server*', '@zugluft/cli*', '**/server/**', 'node:*'],
      'The web part uses core only.',
    ),
    // runs in Node, at build time
    ignores: ['web/vite.config.ts'],
  },
  {
    files: ['web/**/*.{ts,tsx}', 'core/**/*.ts'],
    ignores: ['web/vite.config.ts', '**/*.test.{ts,tsx}', 'core/test-support/**'],
    plugins: { house: { rules: { layers: layersRule } } },
    rules: { 'house/layers': 'error' },
  },
  forbid(
    ['server/**/*.ts'],
    ['@zugluft/web*', '@zugluft/cli*', '**/web/**'],
    'The server uses core only.',
  ),
  {
    ...forbid(
      ['cli/**/*.ts'],
      ['@zugluft/web*', '@zugluft/server*', '**/web/**', '**/server/**'],
      'The command uses core only.',
    ),
    // what keeps a data folder whole works on it as the server does
    ignores: ['cli/{backup,restore,check,passphrase,upkeep}*.ts'],
  },
  {
    files: ['scripts/**/*.mjs', 'bench/**', 'soak/**', '*.mjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
      },
    },
    rules: { 'no-console': 'off' },
  },
);
