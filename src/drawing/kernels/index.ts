// What the WASM module exports.
export { allocate, release, copyBytes, fillBytes } from './memory';
export { mixRow, coverPlane } from './rows';
export { drawUpright } from './resample';
export { drawTurned } from './turned';
export { planesFromRgba, planesFromTransparentRgba, padPlane, rgbaFromPlanes } from './colour';
