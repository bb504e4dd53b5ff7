import type { FactsById } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import { ownClipRate } from '../../core/timing/clip-rate';
import { ownFrame } from '../../core/timing/clip-time';
import type { PictureReader } from '../../drawing/picture-reader';
import { openClip, type ClipFrames } from './clip-frames';
import { readPictureFile } from './read-picture';

/** Reads pictures and clips from original files. Close it to end the clips' decoders. */
export function createFileReader(
  fileOf: (assetId: AssetId) => string,
  facts: FactsById,
): PictureReader & { close(): void } {
  const clips = new Map<string, ClipFrames>();
  return {
    readPicture: (assetId, widthPx, heightPx, part) => readPictureFile(fileOf(assetId), widthPx, heightPx, part),
    readClipFrame(assetId, clipFrame, widthPx, heightPx) {
      const key = `${assetId} ${widthPx}×${heightPx}`;
      const known = facts.get(assetId);
      const rate = known?.kind === 'clip' ? ownClipRate(known) : null;
      let clip = clips.get(key);
      if (!clip) {
        clip = openClip(fileOf(assetId), widthPx, heightPx, known?.kind === 'clip' ? known.hdr : undefined, rate);
        clips.set(key, clip);
      }
      return clip.frame(rate ? ownFrame(clipFrame, rate) : clipFrame);
    },
    close() {
      for (const clip of clips.values()) clip.close();
      clips.clear();
    },
  };
}
