/** A worker asks the page for a part. */
export interface PartAsked {
  readonly id: number;
  readonly name: string;
}

export type PartGiven =
  | { readonly id: number; readonly missing: true }
  | { readonly id: number; readonly mime: string; readonly bytes: Uint8Array<ArrayBuffer>; readonly note: string };

/** The first thing a worker says: where it is told its parts. */
export interface PartsPort {
  readonly partsPort: MessagePort;
}

export const isPartsPort = (data: unknown): data is PartsPort =>
  typeof data === 'object' && data !== null && 'partsPort' in data;
