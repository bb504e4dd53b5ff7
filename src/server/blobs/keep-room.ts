import { readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { PART } from './whole';

const USUAL_MOST_BYTES = 20e9;
/** What was used lately may be in use still: a film is made of files that were fetched when it began. */
const LATELY_MS = 6 * 3600 * 1000;

/** How much of what lies elsewhere is kept here as well (`TANAGER_CACHE_MB`). */
export function mostCachedBytes(): number {
  const said = Number(process.env.TANAGER_CACHE_MB);
  return process.env.TANAGER_CACHE_MB && Number.isFinite(said) && said >= 0 ? said * 1e6 : USUAL_MOST_BYTES;
}

/** Removes copies that were used longest ago until no more is there than may be. Only for folders whose files all lie elsewhere too. @returns bytes that went */
export async function keepRoom(folder: string, mostBytes: number, now: () => number = Date.now): Promise<number> {
  const files: { readonly file: string; readonly bytes: number; readonly usedAt: number }[] = [];
  const look = async (place: string): Promise<void> => {
    for (const entry of await readdir(place, { withFileTypes: true }).catch(() => [])) {
      const file = path.join(place, entry.name);
      if (entry.isDirectory()) await look(file);
      else if (!entry.name.endsWith(PART)) {
        const found = await stat(file).catch(() => null);
        if (found) files.push({ file, bytes: found.size, usedAt: Math.max(found.atimeMs, found.mtimeMs) });
      }
    }
  };
  await look(folder);
  let left = files.reduce((sum, { bytes }) => sum + bytes, 0);
  const before = left;
  for (const { file, bytes, usedAt } of files.toSorted((a, b) => a.usedAt - b.usedAt)) {
    if (left <= mostBytes || now() - usedAt < LATELY_MS) break;
    await rm(file, { force: true });
    left -= bytes;
  }
  return before - left;
}
