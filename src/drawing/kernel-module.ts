/** The drawing kernels (AssemblyScript, WASM SIMD). Pointers are byte offsets in `memory`; see `kernels/` for what each does. */
export interface Kernels {
  readonly memory: WebAssembly.Memory;
  allocate(byteCount: number): number;
  release(pointer: number): void;
  copyBytes(to: number, from: number, byteCount: number): void;
  fillBytes(to: number, value: number, byteCount: number): void;
  mixRow(to: number, a: number, b: number, count: number, share: number): void;
  coverPlane(
    to: number,
    toStride: number,
    picture: number,
    alpha: number,
    pictureStride: number,
    widthPx: number,
    heightPx: number,
    opacity: number,
  ): void;
  drawUpright(
    source: number,
    alpha: number,
    stride: number,
    sourceWidth: number,
    sourceHeight: number,
    target: number,
    targetStride: number,
    targetWidth: number,
    targetHeight: number,
    startX: number,
    stepX: number,
    startY: number,
    stepY: number,
    left: number,
    right: number,
    top: number,
    bottom: number,
    opacity: number,
  ): void;
  whitePlane(): number;
  quadOrder(): number;
  drawQuad(): void;
  fillPlane(to: number, stride: number, widthPx: number, heightPx: number, value: number): void;
  scalePlane(to: number, toStride: number, mask: number, maskStride: number, widthPx: number, heightPx: number): void;
  invertPlane(plane: number, stride: number, widthPx: number, heightPx: number): void;
  weakenPlane(to: number, stride: number, widthPx: number, heightPx: number, share: number): void;
  brightnessOf(
    luma: number,
    alpha: number,
    stride: number,
    to: number,
    toStride: number,
    widthPx: number,
    heightPx: number,
  ): void;
  halvePlane(from: number, stride: number, to: number, toStride: number, widthPx: number, heightPx: number): void;
  tintPlane(
    to: number,
    toStride: number,
    value: number,
    alpha: number,
    alphaStride: number,
    widthPx: number,
    heightPx: number,
  ): void;
  blendPlanes(
    y: number,
    u: number,
    v: number,
    yStride: number,
    cStride: number,
    targetAlpha: number,
    targetHalfAlpha: number,
    celY: number,
    celU: number,
    celV: number,
    celAlpha: number,
    celHalfAlpha: number,
    left: number,
    top: number,
    right: number,
    bottom: number,
    opacity: number,
    mode: number,
  ): void;
  blurPlane(
    from: number,
    fromStride: number,
    to: number,
    toStride: number,
    widthPx: number,
    heightPx: number,
    sigma: number,
    scratch: number,
  ): void;
  blurScratchBytes(widthPx: number, heightPx: number): number;
  mosaicPlane(
    from: number,
    to: number,
    stride: number,
    widthPx: number,
    heightPx: number,
    blockW: number,
    blockH: number,
  ): void;
  mixByMap(
    to: number,
    a: number,
    b: number,
    stride: number,
    map: number,
    mapStride: number,
    widthPx: number,
    heightPx: number,
    moment: number,
    border: number,
  ): void;
  lightPlanes(
    y: number,
    u: number,
    v: number,
    yStride: number,
    cStride: number,
    toY: number,
    toU: number,
    toV: number,
    toYStride: number,
    toCStride: number,
    widthPx: number,
    heightPx: number,
    tables: number,
  ): void;
  turnPagePlane(
    a: number,
    b: number,
    to: number,
    stride: number,
    widthPx: number,
    heightPx: number,
    dirX: number,
    dirY: number,
    fold: number,
    radius: number,
    floor: number,
    paper: number,
  ): void;
  planesFromRgba(
    rgba: number,
    widthPx: number,
    heightPx: number,
    y: number,
    yStride: number,
    u: number,
    v: number,
    cStride: number,
  ): void;
  planesFromTransparentRgba(
    rgba: number,
    widthPx: number,
    heightPx: number,
    y: number,
    alpha: number,
    yStride: number,
    u: number,
    v: number,
    halfAlpha: number,
    cStride: number,
  ): void;
  padPlane(
    plane: number,
    stride: number,
    widthPx: number,
    heightPx: number,
    left: number,
    right: number,
    rows: number,
  ): void;
  rgbaFromPlanes(
    y: number,
    yStride: number,
    u: number,
    v: number,
    cStride: number,
    rgba: number,
    widthPx: number,
    heightPx: number,
  ): void;
}

/** Full opacity as the kernels take it. */
export const FULL_OPACITY = 32767;

/** Opacity 0…1 in the kernels' Q15. */
export function q15(share: number): number {
  return Math.round(Math.min(1, Math.max(0, share)) * FULL_OPACITY);
}

/** @param wasm the bytes of `kernels.wasm` */
export async function loadKernels(wasm: BufferSource): Promise<Kernels> {
  const { instance } = await WebAssembly.instantiate(wasm, {
    env: {
      abort: (_message: number, _file: number, line: number, column: number) => {
        throw new Error(`a drawing kernel stopped at ${line}:${column}`);
      },
    },
  });
  return instance.exports as unknown as Kernels;
}

/** The kernels' memory as bytes. Taken anew at each use: growing the memory detaches older views. */
export function bytesOf(kernels: Kernels): Uint8Array {
  return new Uint8Array(kernels.memory.buffer);
}
