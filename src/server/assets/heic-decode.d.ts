declare module 'heic-decode' {
  /** Straight RGBA, turned as the file says. */
  export default function decode(options: {
    buffer: Uint8Array;
  }): Promise<{ width: number; height: number; data: Uint8ClampedArray }>;
}
