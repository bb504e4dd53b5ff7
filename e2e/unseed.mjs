// After the last driven test.
export { unseed as default } from './seed-once.mjs';
