import type { AssetFacts } from '../../core/show/asset-facts';
import { lookAtFile } from '../assets/look-at-file';
import { hearFile } from '../listening/hear-file';
import { findFocus } from './find-focus';

/** All that is known of a file, found out at once: for commands, which have nothing to show meanwhile. @throws {UnusableFileError} */
export async function lookAndFind(file: string): Promise<AssetFacts> {
  const { facts } = await lookAtFile(file);
  if (facts.kind === 'picture') return { ...facts, focus: await findFocus(file) };
  if (facts.kind === 'clip' && !facts.hasSound) return facts;
  return { ...facts, listening: await hearFile(file, facts.kind === 'sound') };
}
