import { randomUUID } from 'node:crypto';
import { mkdir, readFile, readdir, rename, rm, stat, utimes, writeFile } from 'node:fs/promises';
import { homedir } from 'node:os';
import path from 'node:path';
import { FACT_KINDS } from '../core/facts/fact-kinds';
import type { AssetFacts } from '../core/show/asset-facts';
import { hashOfFile } from '../server/blobs/content-hash';
import { lookAndFind } from '../server/focus/look-and-find';

const DAY_MS = 86_400_000;
/** What no command asked for as long as this is found out anew. */
const KEPT_FOR_MS = 90 * DAY_MS;

/** Where what was found out about files is kept; null when nothing is to be (`TANAGER_FACTS` is empty). */
export function factsFolder(): string | null {
  const said = process.env.TANAGER_FACTS;
  if (said === '') return null;
  return said ?? path.join(process.env.XDG_CACHE_HOME || path.join(homedir(), '.cache'), 'tanager', 'facts');
}

/**
 * All that is known of a file, found out once and kept by what the file holds: looking for faces and listening to music takes seconds, and every command on
 * the same show asks again. What cannot be kept, or read again, is found out as if nothing were kept. @throws {UnusableFileError}
 */
export async function factsOf(file: string): Promise<AssetFacts> {
  const folder = factsFolder();
  if (folder === null) return lookAndFind(file);
  const versions = Object.values(FACT_KINDS).map(({ version }) => version);
  const kept = path.join(folder, `${await hashOfFile(file)}-${versions.join('-')}.json`);
  const known = await readKept(kept);
  if (known) return known;
  const found = await lookAndFind(file);
  await keep(kept, found).catch(() => {});
  return found;
}

async function readKept(kept: string): Promise<AssetFacts | null> {
  try {
    // Written by `keep`, whole or not at all.
    const facts = JSON.parse(await readFile(kept, 'utf8')) as AssetFacts;
    const now = new Date();
    await utimes(kept, now, now);
    return facts;
  } catch {
    return null;
  }
}

async function keep(kept: string, facts: AssetFacts): Promise<void> {
  const folder = path.dirname(kept);
  // Faces are among what is found: nobody else on the machine need read it.
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const part = path.join(folder, `.${randomUUID()}`);
  await writeFile(part, JSON.stringify(facts), { mode: 0o600 });
  await rename(part, kept);
  await (tidied ??= tidy(folder));
}

let tidied: Promise<void> | null = null;

/** Once a command. */
async function tidy(folder: string): Promise<void> {
  for (const name of await readdir(folder)) {
    const file = path.join(folder, name);
    const { mtimeMs } = await stat(file).catch(() => ({ mtimeMs: Infinity }));
    if (Date.now() - mtimeMs > KEPT_FOR_MS) await rm(file, { force: true });
  }
}
