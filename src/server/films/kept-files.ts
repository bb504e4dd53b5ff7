import { copyFile, link, mkdir, readdir, rm, stat, statfs, utimes } from 'node:fs/promises';
import path from 'node:path';
import { renameSafely } from '../blobs/whole';

/** Segments and mixes of films, by a key made from all they depend on: what is equal is made once. */
export interface KeptFiles {
  /** Takes a finished file in. It is moved. */
  put(name: string, file: string): Promise<void>;
  /** Gives a kept file another name as well, so that it stays there whatever is pruned; it then counts as just used. @returns false when it is not kept */
  lend(name: string, file: string): Promise<boolean>;
  /** Removes what was used longest ago, until no more is kept than may be, and what nothing has used for weeks. */
  prune(): Promise<void>;
  /** Removes everything: what was made is made anew when it is wanted again. */
  clear(): Promise<void>;
}

const USUAL_MOST_BYTES = 8e9;
const MOST_OF_DISK = 0.25;
const LEFT_MS = 24 * 3600 * 1000;
export const LONGEST_UNUSED_MS = 30 * 24 * 3600 * 1000;

/** @param mostBytes how much is kept (`TANAGER_KEPT_MB`) */
export function createKeptFiles(folder: string, mostBytes = mostKeptBytes(), now: () => number = Date.now): KeptFiles {
  const fileOf = (name: string) => {
    if (!/^[0-9a-f]{32,64}\.[a-z0-9]+$/.test(name))
      throw new RangeError(`a kept file's name must be a hash with an ending, got ${JSON.stringify(name)}`);
    return path.join(folder, name);
  };
  return {
    async put(name, file) {
      await mkdir(folder, { recursive: true });
      await renameSafely(file, fileOf(name));
    },
    async lend(name, file) {
      const at = new Date(now());
      try {
        await utimes(fileOf(name), at, at);
        await alsoNamed(fileOf(name), file);
        return true;
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code === 'ENOENT') return false;
        throw error;
      }
    },
    clear: () => rm(folder, { recursive: true, force: true }),
    async prune() {
      const names = await readdir(folder).catch(() => []);
      const files: { readonly file: string; readonly bytes: number; readonly usedAt: number }[] = [];
      for (const name of names) {
        const file = path.join(folder, name);
        const found = await stat(file).catch(() => null);
        // Where a worker was drawing that is gone.
        if (found?.isDirectory() && now() - found.mtimeMs > LEFT_MS) await rm(file, { recursive: true, force: true });
        if (found?.isFile()) files.push({ file, bytes: found.size, usedAt: found.mtimeMs });
      }
      files.sort((one, other) => other.usedAt - one.usedAt);
      // Never more than a share of what the disk has left for everything.
      const all = files.reduce((sum, entry) => sum + entry.bytes, 0);
      const { bavail, bsize } = files.length > 0 ? await statfs(folder) : { bavail: 0, bsize: 0 };
      const allowed = Math.min(mostBytes, (bavail * bsize + all) * MOST_OF_DISK);
      let bytes = 0;
      for (const entry of files) {
        bytes += entry.bytes;
        if (bytes > allowed || now() - entry.usedAt > LONGEST_UNUSED_MS) await rm(entry.file, { force: true });
      }
    },
  };
}

/** What file systems say that know no second names, or no more of them. */
const NO_SECOND_NAMES: ReadonlySet<string> = new Set(['EXDEV', 'EPERM', 'ENOTSUP', 'EOPNOTSUPP', 'EMLINK', 'ENOSYS']);

/** Gives a file another name as well; where the file system knows no second names it is copied. */
export async function alsoNamed(file: string, other: string): Promise<void> {
  await rm(other, { force: true });
  await link(file, other).catch((error: NodeJS.ErrnoException) => {
    if (!NO_SECOND_NAMES.has(error.code ?? '')) throw error;
    return copyFile(file, other);
  });
}

function mostKeptBytes(): number {
  const said = Number(process.env.TANAGER_KEPT_MB);
  return process.env.TANAGER_KEPT_MB && Number.isFinite(said) && said >= 0 ? said * 1e6 : USUAL_MOST_BYTES;
}
