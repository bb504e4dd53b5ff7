import { stat } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { filesBelow } from '../server/assets/folder-intake';
import { UsageError } from './usage-error';

const LOOK_EVERY_MS = 500;

/** `--watch FOLDER` taken out of what was typed. */
export function watchIn(args: readonly string[]): { readonly folder: string | null; readonly rest: readonly string[] } {
  const at = args.findIndex((arg) => arg === '--watch' || arg.startsWith('--watch='));
  if (at < 0) return { folder: null, rest: args };
  const inline = args[at]!.slice('--watch='.length);
  const folder = args[at] === '--watch' ? args[at + 1] : inline;
  if (!folder || folder.startsWith('--')) throw new UsageError('--watch takes a folder.');
  return { folder, rest: [...args.slice(0, at), ...args.slice(at + (args[at] === '--watch' ? 2 : 1))] };
}

interface Watching {
  readonly folder: string;
  /** What it makes lies there, and is no change. */
  readonly out: string | null;
  readonly tell: (text: string) => void;
  readonly signal: AbortSignal;
}

/**
 * Does something, and again whenever a file of a folder came, went or changed, once it has come to rest; until the signal ends it.
 *
 * @returns what it returned last
 */
export async function againWhenChanged(
  { folder, out, tell, signal }: Watching,
  run: () => Promise<number>,
): Promise<number> {
  if (!(await stat(folder).catch(() => null))?.isDirectory()) throw new UsageError(`${folder} is no folder to watch.`);
  for (;;) {
    const before = await seen(folder, out);
    const code = await run();
    tell(`watching ${folder} …\n`);
    const changed = await changeSince(before, folder, out, signal);
    if (!changed) return code;
  }
}

/** @returns false when it was ended first */
async function changeSince(before: string, folder: string, out: string | null, signal: AbortSignal): Promise<boolean> {
  let last = before;
  for (;;) {
    try {
      await sleep(LOOK_EVERY_MS, undefined, { signal });
    } catch {
      return false;
    }
    const now = await seen(folder, out);
    // While files are still being copied there, it waits.
    if (now !== before && now === last) return true;
    last = now;
  }
}

/** The files of a folder as a text that differs when one of them does. */
async function seen(folder: string, out: string | null): Promise<string> {
  const files = (await filesBelow(folder)).filter(
    (file) => out === null || (file !== out && !file.startsWith(out + path.sep) && !file.startsWith(`${out}.`)),
  );
  const told = await Promise.all(
    files.map(async (file) => {
      const known = await stat(file).catch(() => null);
      return `${file} ${known?.size} ${known?.mtimeMs}`;
    }),
  );
  return told.join('\n');
}
