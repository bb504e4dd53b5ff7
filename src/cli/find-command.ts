import { readFile, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { filesBelow } from '../server/assets/folder-intake';
import { hashOfFile } from '../server/blobs/content-hash';
import { whole } from '../server/blobs/whole';
import { isHash } from '../server/schema/hash';
import { parsedArgs } from './parsed-args';
import { readShow } from './show-file';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

/** What the command ends with when files are still missing. */
const SOME_MISSING = 3;

interface Lost {
  /** What the show calls it: its hash, or as whoever wrote the show liked. */
  readonly key: string;
  readonly file: string;
}

/** Files of a saved show that were moved, found again in a folder: by what is in them where the show knows that, else by their names. The show is written with where they are now. */
export async function findCommand(args: readonly string[], { folder, out, tell }: Surroundings): Promise<number> {
  const { values, positionals } = parsedArgs(args, { json: { type: 'boolean' } });
  const [given, where, ...more] = positionals;
  if (given === undefined || where === undefined || more.length > 0)
    throw new UsageError('find takes one saved show and one folder to look in.');
  const from = path.resolve(folder, given);
  const place = path.resolve(folder, where);
  // It is a show, whatever is missing of it.
  await readShow(from, 'keep');
  if (!(await stat(place).catch(() => null))?.isDirectory()) throw new Error(`${place}: there is no such folder.`);
  const document = JSON.parse(await readFile(from, 'utf8')) as { files: Record<string, string> };
  const lost = await lostOf(document.files, path.dirname(from));
  const found = await foundIn(place, lost);
  if (found.size > 0) {
    const files = Object.fromEntries(
      Object.entries(document.files).map(([key, file]) => {
        const now = found.get(key);
        return [key, now === undefined ? file : path.relative(path.dirname(from), now).split(path.sep).join('/')];
      }),
    );
    await whole(from, (part) => writeFile(part, `${JSON.stringify({ ...document, files }, null, 2)}\n`));
  }
  const missing = lost.filter(({ key }) => !found.has(key)).map(({ file }) => file);
  for (const { key, file } of lost) tell(`${file}: ${found.get(key) ?? 'not found'}\n`);
  if (lost.length === 0) tell('Everything is where the show says.\n');
  if (values.json) out(`${JSON.stringify({ found: found.size, missing })}\n`);
  return missing.length > 0 ? SOME_MISSING : 0;
}

async function lostOf(files: Readonly<Record<string, string>>, folder: string): Promise<Lost[]> {
  const lost: Lost[] = [];
  for (const [key, file] of Object.entries(files))
    if (!(await stat(path.resolve(folder, file)).catch(() => null))?.isFile()) lost.push({ key, file });
  return lost;
}

const nameOf = (file: string) => path.basename(file).normalize('NFC').toLowerCase();

/** One walk for all. Files of the right name are looked at first; what is known by its content is compared by it. */
async function foundIn(place: string, lost: readonly Lost[]): Promise<Map<string, string>> {
  const found = new Map<string, string>();
  const names = new Set(lost.map(({ file }) => nameOf(file)));
  const there = await filesBelow(place);
  const likely = there.filter((file) => names.has(nameOf(file)));
  for (const { key, file } of lost)
    if (!isHash(key)) {
      const alike = likely.filter((one) => nameOf(one) === nameOf(file));
      // Two of one name: nobody knows which it was.
      if (alike.length === 1) found.set(key, alike[0]!);
    }
  const byContent = new Set(lost.filter(({ key }) => isHash(key)).map(({ key }) => key));
  for (const file of [...likely, ...there.filter((one) => !names.has(nameOf(one)))]) {
    if (byContent.size === 0) break;
    const hash = await hashOfFile(file).catch(() => null);
    if (hash !== null && byContent.delete(hash)) found.set(hash, file);
  }
  return found;
}
