import { readdir } from 'node:fs/promises';
import path from 'node:path';
import type { AssetFacts } from '../src/core/show/asset-facts';
import { showId, type AssetId } from '../src/core/show/ids';
import { slideFromAsset } from '../src/core/show/new-slide';
import { emptyShow, type Show } from '../src/core/show/show';
import { lookAtFile } from '../src/server/assets/look-at-file';
import { hashOfFile } from '../src/server/blobs/content-hash';

export interface BenchShow {
  readonly show: Show;
  readonly facts: Map<AssetId, AssetFacts>;
  readonly files: Map<AssetId, string>;
}

/** The first pictures of a folder as a silent show. */
export async function benchShow(folder: string, count: number, pictureMs: number): Promise<BenchShow> {
  const facts = new Map<AssetId, AssetFacts>();
  const files = new Map<AssetId, string>();
  for (const name of (await readdir(folder))
    .filter((entry) => /\.jpe?g$/i.test(entry))
    .sort()
    .slice(0, count)) {
    const file = path.resolve(folder, name);
    const id = await hashOfFile(file);
    files.set(id, file);
    facts.set(id, (await lookAtFile(file)).facts);
  }
  let counted = 0;
  const slides = [...files.keys()].map((id) =>
    slideFromAsset(id, facts.get(id)!, pictureMs, () => `n${(counted += 1)}`),
  );
  return { show: { ...emptyShow(showId('bench'), 'Bench'), slides }, facts, files };
}
