import { mkdir, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { BUNDLE_FILES, BUNDLE_SHOW } from '../core/bundles/bundle';
import { openStrangeArchive } from '../server/archive/strange-archive';
import { BUNDLE_LIMITS } from '../server/bundles/bundle-file';
import type { ServerClient } from './server-client';

/** A file as a bundle names it: what is in it, as a hash, and an ending. */
const BUNDLED = /^[0-9a-f]{64}(\.[A-Za-z0-9]{1,8})?$/;

/** Fetches a show of a server with its files, for a command that works on saved shows. What is fetched is removed afterwards. @param work given where the saved show lies */
export async function withBorrowed<Made>(
  server: ServerClient,
  show: string,
  work: (file: string) => Promise<Made>,
): Promise<Made> {
  const folder = await mkdtemp(path.join(tmpdir(), 'tanager-borrowed-'));
  try {
    const bundle = path.join(folder, 'show.zip');
    await server.fetchTo(`/api/v1/shows/${show}/bundle`, bundle);
    await mkdir(path.join(folder, 'files'));
    const archive = await openStrangeArchive(bundle, BUNDLE_LIMITS);
    try {
      for (const name of archive.names) {
        const bundled = name.startsWith(BUNDLE_FILES) ? name.slice(BUNDLE_FILES.length) : null;
        if (bundled !== null && BUNDLED.test(bundled)) await archive.unpack(name, path.join(folder, 'files'), bundled);
      }
      return await work(await archive.unpack(BUNDLE_SHOW, folder, BUNDLE_SHOW));
    } finally {
      archive.close();
    }
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
