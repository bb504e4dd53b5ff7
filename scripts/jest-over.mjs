// After the last test.
export { over as default } from './jest-once.mjs';
