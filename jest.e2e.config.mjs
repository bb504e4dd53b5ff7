import unit from './jest.config.mjs';

export default {
  ...unit,
  testMatch: ['<rootDir>/e2e/**/*.test.ts'],
  testTimeout: 240_000,
  globalSetup: '<rootDir>/e2e/seed-once.mjs',
  globalTeardown: '<rootDir>/e2e/unseed.mjs',
};
