import { open, rm, stat, statfs } from 'node:fs/promises';
import path from 'node:path';

/** Enough for a long evening of edits. */
const RESERVE_BYTES = 24 * 1024 * 1024;
/** With less room than this beside it there is nothing to reserve. */
const LEAST_FREE_BYTES = 4 * RESERVE_BYTES;

const place = (folder: string) => path.join(folder, 'reserve');

/** Keeps some room on the disk, so that edits can be saved when everything else has filled it. */
export async function keepReserve(folder: string): Promise<void> {
  const there = await stat(place(folder)).then(
    ({ size }) => size,
    () => 0,
  );
  const { bavail, bsize } = await statfs(folder);
  if (there >= RESERVE_BYTES || bavail * bsize < LEAST_FREE_BYTES) return;
  const file = await open(place(folder), 'w');
  try {
    // Written, not only sized: a hole takes no room.
    const piece = Buffer.alloc(1024 * 1024, 0x2e);
    for (let written = 0; written < RESERVE_BYTES; written += piece.length) await file.write(piece);
  } finally {
    await file.close();
  }
}

/** @returns whether there was any */
export async function releaseReserve(folder: string): Promise<boolean> {
  const there = await stat(place(folder)).then(
    () => true,
    () => false,
  );
  if (there) await rm(place(folder), { force: true });
  return there;
}
