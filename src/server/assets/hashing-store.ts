import { open } from 'node:fs/promises';
import path from 'node:path';
import type { Readable } from 'node:stream';
import { FileStore } from '@tus/file-store';
import type { AssetId } from '../../core/show/ids';
import { contentHash, type ContentHash } from '../blobs/content-hash';

/** A write costs more than what it writes; the pieces the network cuts, some 64 KB each, are put together to this. */
const WRITE_BYTES = 1024 * 1024;
/** The protocol’s answer when the disk is full. */
export const NO_ROOM = {
  status_code: 507,
  body: 'There is no room left on the server’s disk. What has arrived is kept; make room and give the file again.',
};

/** Keeps uploads as files and hashes them while they arrive, so that they need not be read again. */
export class HashingStore extends FileStore {
  private readonly hashes = new Map<string, { readonly hash: ContentHash; bytes: number }>();

  private fullMs = -Infinity;

  constructor(directory: string) {
    super({ directory });
  }

  /** Whether the disk was found full a moment ago: the protocol’s library may tell the person of a broken connection instead. */
  wasFull(): boolean {
    return performance.now() - this.fullMs < 5000;
  }

  private full(): typeof NO_ROOM {
    this.fullMs = performance.now();
    return NO_ROOM;
  }

  /** The hash of a finished upload, told once; undefined when part of it came before this server was started. */
  hashOf(id: string): AssetId | undefined {
    const hashed = this.hashes.get(id);
    this.hashes.delete(id);
    return hashed?.hash.id();
  }

  /** Writes what arrives from `offset` on, down to the last piece before a connection broke. @returns the offset reached */
  override async write(readable: Readable, id: string, offset: number): Promise<number> {
    const hashed = offset === 0 ? { hash: contentHash(), bytes: 0 } : this.hashes.get(id);
    // Kept again when all went well: a hash that does not stand for exactly what the file holds is worth nothing.
    this.hashes.delete(id);
    const file = await open(path.join(this.directory, path.basename(id)), 'r+');
    let at = offset;
    let pieces: Buffer[] = [];
    let waiting = 0;
    const flush = async () => {
      const [batch, bytes] = [pieces, waiting];
      [pieces, waiting] = [[], 0];
      if (bytes === 0) return;
      for (const piece of batch) hashed?.hash.update(piece);
      const { bytesWritten } = await file.writev(batch, at).catch((error: NodeJS.ErrnoException) => {
        throw error.code === 'ENOSPC' ? this.full() : error;
      });
      at += bytesWritten;
      if (bytesWritten !== bytes) throw this.full();
    };
    try {
      for await (const piece of readable as AsyncIterable<Buffer>) {
        pieces.push(piece);
        waiting += piece.length;
        if (waiting >= WRITE_BYTES) await flush();
      }
    } finally {
      await flush().finally(() => file.close());
    }
    if (hashed && hashed.bytes === offset) this.hashes.set(id, { hash: hashed.hash, bytes: at });
    return at;
  }

  override async remove(id: string): Promise<void> {
    this.hashes.delete(id);
    await super.remove(id);
  }
}
