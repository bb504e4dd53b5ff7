// What the WASM module exports.
export { allocate, release, copyBytes, fillBytes } from './memory';
export { mixRow, coverPlane } from './rows';
export { drawUpright, whitePlane } from './resample';
export { drawQuad, quadOrder } from './quad';
export { fillPlane, scalePlane, invertPlane, weakenPlane, brightnessOf, halvePlane, tintPlane } from './cel';
export { blendPlanes } from './blend';
export { blurPlane, blurScratchBytes, mosaicPlane } from './blur';
export { mixByMap } from './wipe';
export { lightPlanes } from './light';
export { turnPagePlane } from './page';
export { planesFromRgba, planesFromTransparentRgba, padPlane, rgbaFromPlanes } from './colour';
