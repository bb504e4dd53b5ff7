import { spawn } from 'node:child_process';
import { mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { hostname, tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { holderOf, lockFolder } from './lock-folder';

let folder: string;
beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-lock-'));
});
afterEach(() => rm(folder, { recursive: true, force: true }));

describe('a data folder', () => {
  it('is one server’s until it lets go, and the second is told whose', async () => {
    const lock = await lockFolder(folder);
    await expect(lockFolder(folder)).rejects.toThrow(new RegExp(`process ${process.pid} on ${hostname()}`));
    await lock.release();
    expect(await readdir(folder)).toEqual([]);
    await (await lockFolder(folder)).release();
  });
  it('is free when the server that had it was killed', async () => {
    const other = spawn('sleep', ['60']);
    await lockFolder(folder, other.pid);
    await expect(lockFolder(folder)).rejects.toMatchObject({ name: 'FolderInUseError' });
    other.kill('SIGKILL');
    await new Promise((resolve) => other.on('exit', resolve));
    const lock = await lockFolder(folder);
    expect((await holderOf(folder))!.pid).toBe(process.pid);
    await lock.release();
  });
  it('is free when another process got the dead server’s number, and when the lock was cut short', async () => {
    await writeFile(
      path.join(folder, 'server.lock'),
      JSON.stringify({ pid: process.pid, host: hostname(), began: 'long ago', address: null, since: '' }),
    );
    await (await lockFolder(folder)).release();
    await writeFile(path.join(folder, 'server.lock'), '{"pid":');
    await (await lockFolder(folder)).release();
  });
});
