import { createHash } from 'node:crypto';
import { readFile, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { AssetFacts } from '../core/show/asset-facts';
import { raiseShow } from '../core/show/format/raise';
import { assetId, type AssetId } from '../core/show/ids';
import { assetIdsOfSound } from '../core/show/placed-sound';
import type { Show } from '../core/show/show';
import { hashOfFile } from '../server/blobs/content-hash';
import { whole } from '../server/blobs/whole';
import { factsOf } from './kept-facts';
import { isHash } from '../server/schema/hash';
import { parseShowFile, type ShowFile } from '../server/schema/show-schema';

/** A show document larger than this is refused unread; ten thousand slides take about 8 MB. */
const LARGEST_SHOW_BYTES = 64 * 1024 * 1024;

/**
 * A saved show, in today’s format.
 *
 * @param missing what files that are not there do: refuse the show, or stay in it to be told of
 * @throws an Error with a sentence for the person
 */
export async function readShow(file: string, missing: 'refuse' | 'keep' = 'refuse'): Promise<ShowFile> {
  const { size } = await stat(file).catch(() => {
    throw new Error(`${file}: there is no such file.`);
  });
  if (size > LARGEST_SHOW_BYTES)
    throw new Error(`${file} is larger than a show can be (${Math.round(size / 1048576)} MB).`);
  let document: unknown;
  try {
    document = JSON.parse(await readFile(file, 'utf8'));
  } catch (cause) {
    throw new Error(`${file} is not JSON: ${(cause as Error).message}`, { cause });
  }
  const parsed = parseShowFile(raiseShow(await withHashes(document, path.dirname(file), missing)));
  if (!parsed.ok) throw new Error(`${file} is not a show: ${parsed.problem}`);
  return parsed.value;
}

/** A show written by hand names its files as it likes; inside, they go by their content. Anything that is not such a document is handed on as it is. */
async function withHashes(document: unknown, folder: string, missing: 'refuse' | 'keep'): Promise<unknown> {
  const files = (document as { files?: unknown } | null)?.files;
  if (typeof files !== 'object' || files === null) return document;
  const hashes = new Map<string, string>();
  for (const [name, file] of Object.entries(files)) {
    if (isHash(name) || typeof file !== 'string') continue;
    hashes.set(
      name,
      await hashOfFile(path.resolve(folder, file)).catch(() => {
        if (missing === 'keep') return createHash('sha256').update(`missing ${name}`).digest('hex');
        throw new Error(`${file}: there is no such file; the show calls it “${name}”.`);
      }),
    );
  }
  if (hashes.size === 0) return document;
  const renamed = JSON.parse(JSON.stringify(document), function (this: { how?: unknown }, key, value: unknown) {
    // What a voice was cleaned from is a file too.
    const names = key === 'assetId' || (key === 'from' && this.how !== undefined);
    return names && typeof value === 'string' ? (hashes.get(value) ?? value) : value;
  }) as { files: Record<string, unknown> };
  return {
    ...renamed,
    files: Object.fromEntries(Object.entries(renamed.files).map(([name, file]) => [hashes.get(name) ?? name, file])),
  };
}

/** Writes a show back where it was read from, whole or not at all. */
export function writeShow(file: string, show: ShowFile): Promise<void> {
  return whole(file, (part) => writeFile(part, `${JSON.stringify(show, null, 2)}\n`));
}

/** What is known of all that sounds in a saved show. @param link see `linkedFiles` */
export async function factsOfSounds(
  show: ShowFile,
  showFile: string,
  link: (file: string) => Promise<string>,
): Promise<Map<AssetId, AssetFacts>> {
  const facts = new Map<AssetId, AssetFacts>();
  for (const id of soundsOf(show)) {
    const file = show.files[id];
    if (file === undefined) throw new Error(`The show uses a file it does not name: ${id}.`);
    facts.set(id, await factsOf(await link(path.resolve(path.dirname(showFile), file))));
  }
  return facts;
}

function soundsOf(show: Show): ReadonlySet<AssetId> {
  const sounds = [...show.cues, ...show.slides.flatMap((slide) => slide.sounds)];
  return new Set(sounds.flatMap((sound) => assetIdsOfSound(sound).slice(0, 1).map(assetId)));
}
