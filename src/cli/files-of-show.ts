import path from 'node:path';
import type { AssetFacts } from '../core/show/asset-facts';
import { assetId, type AssetId } from '../core/show/ids';
import { assetIdsOf } from '../core/show/show';
import { factsOf } from './kept-facts';
import type { ShowFile } from '../server/schema/show-schema';

/** The files of a saved show that are there and can be read, and the names of all of them. */
export async function filesThatAreThere(
  show: ShowFile,
  showFile: string,
  link: (file: string) => Promise<string>,
): Promise<{
  readonly files: Map<AssetId, string>;
  readonly facts: Map<AssetId, AssetFacts>;
  readonly names: Map<AssetId, string>;
}> {
  const files = new Map<AssetId, string>();
  const facts = new Map<AssetId, AssetFacts>();
  const names = new Map<AssetId, string>();
  for (const id of assetIdsOf(show)) {
    const file = show.files[id];
    names.set(id, path.basename(file ?? `a file it does not name (${id.slice(0, 8)})`));
    if (file === undefined) continue;
    try {
      const linked = await link(path.resolve(path.dirname(showFile), file));
      facts.set(id, await factsOf(linked));
      files.set(id, linked);
    } catch {
      // It is told of as missing.
    }
  }
  return { files, facts, names };
}

/** Every file a saved show uses, looked at. @param link see `linkedFiles`. @throws an Error with a sentence for the person */
export async function filesOfShow(
  show: ShowFile,
  showFile: string,
  link: (file: string) => Promise<string>,
): Promise<{ readonly files: Map<AssetId, string>; readonly facts: Map<AssetId, AssetFacts> }> {
  const named = new Map(Object.entries(show.files).map(([hash, file]) => [assetId(hash), file]));
  const files = new Map<AssetId, string>();
  const facts = new Map<AssetId, AssetFacts>();
  for (const id of assetIdsOf(show)) {
    const file = named.get(id);
    if (file === undefined) throw new Error(`The show uses a file it does not name: ${id}.`);
    const linked = await link(path.resolve(path.dirname(showFile), file));
    files.set(id, linked);
    facts.set(id, await factsOf(linked));
  }
  return { files, facts };
}
