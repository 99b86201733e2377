export default {
  testEnvironment: 'node',
  globalSetup: '<rootDir>/scripts/jestFolders.mjs',
  globalTeardown: '<rootDir>/scripts/jestFoldersGone.mjs',
  // one core fewer, as it would be by default, leaves half of a small machine idle
  maxWorkers: '100%',
  // a slow disk may hold up a durable write for seconds
  testTimeout: 240000,
  roots: [
    '<rootDir>/core',
    '<rootDir>/server',
    '<rootDir>/web',
    '<rootDir>/cli',
    '<rootDir>/publish',
    '<rootDir>/demo',
    '<rootDir>/proof',
    '<rootDir>/soak',
  ],
  // looked up in the sandbox each time these are many times slower than outside it; nothing replaces them
  sandboxInjectedGlobals: [
    'Math',
    'Number',
    'Array',
    'Object',
    'Float64Array',
    'Int32Array',
    'Uint8Array',
  ],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  testPathIgnorePatterns: ['/node_modules/', '/dist/'],
  // packages that come as modules only
  transformIgnorePatterns: [
    '/node_modules/(?!(ml-levenberg-marquardt|is-any-array|(mdast|hast|unist|xast)-util-.*|micromark.*|vfile.*|@ungap/structured-clone|ccount|character-entities.*|comma-separated-tokens|decode-named-character-reference|devlop|html-void-elements|longest-streak|xastscript|@rgrove.parse-xml|markdown-table|property-information|space-separated-tokens|stringify-entities|trim-lines|zwitch)/)',
  ],
  transform: {
    '^.+\\.(tsx?|js)$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'commonjs' },
      },
    ],
  },
};
