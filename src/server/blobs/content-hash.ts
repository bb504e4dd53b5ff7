import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { assetId, type AssetId } from '../../core/show/ids';

/** Digits of an asset's id: 256 bits. */
const ID_DIGITS = 64;

/**
 * Works out an asset's id from its content: the first 256 bits of BLAKE2b-512 (RFC 7693), as `b2sum FILE | cut -c-64` prints them.
 * As safe as SHA-256 and about twice as quick where the processor has no instructions for that one.
 */
export interface ContentHash {
  update(bytes: Uint8Array): void;
  id(): AssetId;
}

export function contentHash(): ContentHash {
  const hash = createHash('blake2b512');
  return {
    update: (bytes) => void hash.update(bytes),
    id: () => assetId(hash.digest('hex').slice(0, ID_DIGITS)),
  };
}

export async function hashOfFile(file: string): Promise<AssetId> {
  const hash = contentHash();
  for await (const bytes of createReadStream(file, { highWaterMark: 1024 * 1024 }) as AsyncIterable<Buffer>)
    hash.update(bytes);
  return hash.id();
}
