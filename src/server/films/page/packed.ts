import { open } from 'node:fs/promises';
import { createInterface } from 'node:readline';
import { createReadStream } from 'node:fs';
import { once } from 'node:events';

/** Something a page is drawn from. */
export interface PackedItem {
  /** `picture ID`, `clip ID FRAME`, or `font NAME`, whose bytes are not packed. */
  readonly name: string;
  readonly mime: string;
  /** Of pictures; the wider of two is the better one. */
  readonly widthPx: number;
  readonly byteCount: number;
}

/** An item, and where it lies in a pack. */
export interface PlacedItem extends PackedItem {
  readonly file: string;
  readonly at: number;
}

/** A pack: a line of JSON that lists the items, then their bytes one after the other. Read by ourselves only. */
export async function writePack(
  file: string,
  items: readonly { readonly item: PackedItem; readonly bytes: Uint8Array }[],
): Promise<void> {
  const handle = await open(file, 'w');
  try {
    await handle.writeFile(`${JSON.stringify(items.map(({ item }) => item))}\n`);
    for (const { bytes } of items) await handle.writeFile(bytes);
  } finally {
    await handle.close();
  }
}

export async function readPack(file: string): Promise<PlacedItem[]> {
  const stream = createReadStream(file, 'utf8');
  const lines = createInterface({ input: stream });
  const [line] = (await once(lines, 'line')) as [string];
  lines.close();
  stream.destroy();
  let at = Buffer.byteLength(line) + 1;
  // Written by ourselves.
  return (JSON.parse(line) as PackedItem[]).map((item) => {
    const placed = { ...item, file, at };
    at += item.byteCount;
    return placed;
  });
}

export async function bytesOfItem({ file, at, byteCount }: PlacedItem): Promise<Buffer> {
  const handle = await open(file);
  try {
    const bytes = Buffer.alloc(byteCount);
    await handle.read(bytes, 0, byteCount, at);
    return bytes;
  } finally {
    await handle.close();
  }
}
