import type { AssetFacts } from '../../core/show/asset-facts';
import { lookAtFile } from '../assets/look-at-file';
import { hearFile } from '../listening/hear-file';
import { findClipFocus } from './find-clip-focus';
import { findFocus } from './find-focus';

/** All that is known of a file, found out at once: for commands, which have nothing to show meanwhile. @throws {UnusableFileError} */
export async function lookAndFind(file: string): Promise<AssetFacts> {
  const { facts } = await lookAtFile(file);
  if (facts.kind === 'picture') return { ...facts, focus: await findFocus(file) };
  const listening =
    facts.kind === 'sound' || facts.hasSound ? { listening: await hearFile(file, facts.kind === 'sound') } : {};
  if (facts.kind === 'sound') return { ...facts, ...listening };
  return { ...facts, ...listening, focus: await findClipFocus(file, facts) };
}
