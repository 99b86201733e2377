export default {
  testEnvironment: 'node',
  globalSetup: '<rootDir>/scripts/jestFolders.mjs',
  globalTeardown: '<rootDir>/scripts/jestFoldersGone.mjs',
  // a slow disk may hold up a durable write for seconds
  testTimeout: 60000,
  roots: ['<rootDir>/core', '<rootDir>/server', '<rootDir>/web', '<rootDir>/cli', '<rootDir>/demo'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  testPathIgnorePatterns: ['/node_modules/', '/dist/'],
  // reference packages that come as modules only
  transformIgnorePatterns: ['/node_modules/(?!(ml-levenberg-marquardt|is-any-array)/)'],
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
