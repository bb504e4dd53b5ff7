import path from 'node:path';
import type { AssetFacts } from '../core/show/asset-facts';
import { assetId, type AssetId } from '../core/show/ids';
import { assetIdsOf } from '../core/show/show';
import { lookAndFind } from '../server/focus/look-and-find';
import type { ShowFile } from '../server/schema/show-schema';

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
    facts.set(id, await lookAndFind(linked));
  }
  return { files, facts };
}
