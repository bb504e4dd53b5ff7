/** A 2D canvas for outlines, filled and read once per look. Differs between browser and server only in where it comes from. */
export interface Drawing2d {
  open(widthPx: number, heightPx: number): Canvas2d;
  path(svg: string): Path2D;
}

export interface Canvas2d {
  readonly context: OffscreenCanvasRenderingContext2D;
  readonly image: CanvasImageSource;
  /** Straight alpha, four bytes a pixel. */
  pixels(): Uint8ClampedArray;
}
