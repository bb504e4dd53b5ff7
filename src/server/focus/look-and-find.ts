import type { AssetFacts } from '../../core/show/asset-facts';
import { lookAtFile } from '../assets/look-at-file';
import { findFocus } from './find-focus';

/** All that is known of a file, found out at once: for commands, which have nothing to show meanwhile. @throws {UnusableFileError} */
export async function lookAndFind(file: string): Promise<AssetFacts> {
  const { facts } = await lookAtFile(file);
  return facts.kind === 'picture' ? { ...facts, focus: await findFocus(file) } : facts;
}
