/** Reads numbers of an image's structures: the highest byte first, as DVD-Video has them. */
export interface Bytes {
  readonly length: number;
  u8(at: number): number;
  u16(at: number): number;
  u32(at: number): number;
  text(at: number, length: number): string;
  from(at: number, length?: number): Bytes;
  readonly raw: Uint8Array;
}

/** The image breaks a rule of the format, or ends too soon. */
export class DiscUnreadableError extends Error {
  override readonly name = 'DiscUnreadableError';
}

export function bytesOf(raw: Uint8Array): Bytes {
  const view = new DataView(raw.buffer, raw.byteOffset, raw.byteLength);
  const within = <Value>(at: number, size: number, read: () => Value): Value => {
    if (at < 0 || at + size > raw.length)
      throw new DiscUnreadableError(`byte ${at} of a structure of ${raw.length} bytes was asked for`);
    return read();
  };
  return {
    raw,
    length: raw.length,
    u8: (at) => within(at, 1, () => view.getUint8(at)),
    u16: (at) => within(at, 2, () => view.getUint16(at)),
    u32: (at) => within(at, 4, () => view.getUint32(at)),
    text: (at, length) => within(at, length, () => String.fromCharCode(...raw.subarray(at, at + length))),
    from: (at, length) =>
      within(at, length ?? 0, () => bytesOf(raw.subarray(at, length === undefined ? raw.length : at + length))),
  };
}
