import unit from './jest.config.mjs';

export default { ...unit, testMatch: ['<rootDir>/e2e/**/*.test.ts'], testTimeout: 240_000 };
