import { randomUUID } from 'node:crypto';
import { open, readdir, rename, rm } from 'node:fs/promises';
import path from 'node:path';

/** Endings of files that are being written. */
export const PART = '.part';

/**
 * A file appears under its name only when it is whole.
 *
 * @param make writes it to the path it is given
 * @param lasts it stays there when the power goes; what is made again by itself need not
 */
export async function whole(file: string, make: (part: string) => Promise<unknown>, lasts = true): Promise<void> {
  const part = `${file}.${randomUUID()}${PART}`;
  try {
    await make(part);
    if (lasts) await renameSafely(part, file);
    else await rename(part, file);
  } catch (error) {
    await rm(part, { force: true });
    throw error;
  }
}

/** Gives a file its name once its content is on the disk, and sees to it that the name is as well. */
export async function renameSafely(from: string, to: string): Promise<void> {
  await synced(from);
  await rename(from, to);
  await synced(path.dirname(to));
}

async function synced(place: string): Promise<void> {
  const handle = await open(place, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}

/** Removes what was being written when an earlier server ended, in a folder and those in it. */
export async function clearParts(folder: string): Promise<void> {
  const inside = await readdir(folder, { withFileTypes: true }).catch(() => []);
  for (const entry of inside) {
    const place = path.join(folder, entry.name);
    if (entry.isDirectory()) await clearParts(place);
    else if (entry.name.endsWith(PART)) await rm(place, { force: true });
  }
}
