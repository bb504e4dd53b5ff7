import { open, readFile, rm } from 'node:fs/promises';
import { hostname } from 'node:os';
import path from 'node:path';

/** Another server has the data folder; the message says who. */
export class FolderInUseError extends Error {
  override readonly name = 'FolderInUseError';
}

interface Holder {
  readonly pid: number;
  readonly host: string;
  /** When its process began, as the system counts; tells it from another one that got the same number later. */
  readonly began: string;
  readonly address: string | null;
  readonly since: string;
}

export interface FolderLock {
  release(): Promise<void>;
}

const NAME = 'server.lock';

/**
 * One server to a data folder. A lock that a dead process left holds nobody up.
 *
 * @throws {FolderInUseError}
 */
export async function lockFolder(folder: string, pid = process.pid): Promise<FolderLock> {
  const file = path.join(folder, NAME);
  const mine: Holder = {
    pid,
    host: hostname(),
    began: await beganAt(pid),
    address: ownAddress(),
    since: new Date().toISOString(),
  };
  for (let tries = 0; ; tries += 1) {
    try {
      const handle = await open(file, 'wx');
      await handle.writeFile(JSON.stringify(mine));
      await handle.close();
      return { release: () => release(file, mine) };
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST' || tries > 4) throw error;
    }
    const holder = await holderOf(folder);
    if (holder && (await isAlive(holder)))
      throw new FolderInUseError(
        `Another server has this data folder: process ${holder.pid} on ${holder.host}, since ${holder.since}${holder.address ? `, at ${holder.address}` : ''}. End it, or name another folder in TANAGER_DATA.`,
      );
    await rm(file, { force: true });
  }
}

/** Who has a data folder; null when nobody has. */
export async function holderOf(folder: string): Promise<Holder | null> {
  try {
    return JSON.parse(await readFile(path.join(folder, NAME), 'utf8')) as Holder;
  } catch {
    // Not there, or cut short by a power cut: nobody holds it.
    return null;
  }
}

async function release(file: string, mine: Holder): Promise<void> {
  const holder = await holderOf(path.dirname(file));
  if (holder?.pid === mine.pid && holder.began === mine.began) await rm(file, { force: true });
}

/** On another machine it cannot be told, so it counts as alive. */
async function isAlive(holder: Holder): Promise<boolean> {
  if (holder.host !== hostname()) return true;
  try {
    process.kill(holder.pid, 0);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ESRCH') return false;
  }
  return (await beganAt(holder.pid)) === holder.began;
}

/** The 22nd field of `/proc/PID/stat`; empty where there is no such thing. */
async function beganAt(pid: number): Promise<string> {
  const text = await readFile(`/proc/${pid}/stat`, 'utf8').catch(() => '');
  return text.slice(text.lastIndexOf(')') + 2).split(' ')[19] ?? '';
}

function ownAddress(): string | null {
  return process.env.PORT ? `http://${process.env.HOST ?? '127.0.0.1'}:${process.env.PORT}` : null;
}
