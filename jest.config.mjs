const transform = {
  '^.+\\.tsx?$': [
    '<rootDir>/scripts/jest-transform.mjs',
    {
      jsc: {
        parser: { syntax: 'typescript', tsx: true },
        target: 'es2023',
        transform: { react: { runtime: 'automatic' } },
      },
      module: { type: 'es6' },
    },
  ],
};

export default {
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform,
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  testMatch: ['<rootDir>/src/**/*.test.ts'],
  modulePathIgnorePatterns: ['<rootDir>/.next/', '<rootDir>/dist/', '<rootDir>/data/'],
  maxWorkers: 2,
  setupFilesAfterEnv: ['<rootDir>/scripts/jest-bytes.mjs'],
  globalSetup: '<rootDir>/scripts/jest-once.mjs',
  globalTeardown: '<rootDir>/scripts/jest-over.mjs',
  testTimeout: 240_000,
};
