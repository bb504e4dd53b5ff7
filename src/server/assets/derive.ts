import { CLIP_FRAMES_PER_SECOND } from '../../core/frame/frame-plan';
import type { PictureFacts } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import type { BlobStore } from '../blobs/blob-store';
import type { Decoders } from '../decoding/decoders';
import { proxyName, SHEET_PRINT_WIDTH } from './write-derived';

/** Widths at which pictures are handed to browsers; the first is the contact sheet's print. */
export const PROXY_WIDTHS = [SHEET_PRINT_WIDTH, 960, 1920, 2880] as const;

/** A picture was read when it came in; what is asked for here takes no longer than this, or the file is not what it was. */
export const PROXY_LIMITS = { timeMs: 60_000, memoryBytes: 2 * 1024 ** 3 };

const beingMade = new Map<string, Promise<void>>();

/** The picture at the smallest width of `PROXY_WIDTHS` that is at least `widthPx`; made when it is first asked for, once even when asked for twice. */
export async function proxyOf(
  id: AssetId,
  facts: PictureFacts,
  widthPx: number,
  { blobs, decoders }: { readonly blobs: BlobStore; readonly decoders: Decoders },
  urgent = true,
): Promise<{ name: string; mime: string }> {
  const width = PROXY_WIDTHS.find((candidate) => candidate >= widthPx) ?? PROXY_WIDTHS.at(-1)!;
  const name = proxyName(width, facts.hasTransparency);
  if (!(await blobs.hasDerived(id, name))) {
    const key = `${id} ${name}`;
    const making =
      beingMade.get(key) ??
      blobs
        .putDerived(id, name, async (out) =>
          decoders.run(
            {
              kind: 'proxy',
              file: await blobs.localFile(id),
              out,
              widthPx: width,
              hasTransparency: facts.hasTransparency,
            },
            PROXY_LIMITS,
            urgent,
          ),
        )
        .finally(() => beingMade.delete(key));
    beingMade.set(key, making);
    await making;
  }
  return { name, mime: facts.hasTransparency ? 'image/webp' : 'image/jpeg' };
}

const BYTES_A_START = Float64Array.BYTES_PER_ELEMENT;

/** One second of a clip's frames: the JPEGs and the length of each, counted from `second · CLIP_FRAMES_PER_SECOND`. Null past the end. */
export async function clipSecond(
  id: AssetId,
  second: number,
  blobs: BlobStore,
): Promise<{ lengths: number[]; bytes: Uint8Array } | null> {
  if (!Number.isInteger(second) || second < 0 || second > 1e6) return null;
  const first = second * CLIP_FRAMES_PER_SECOND;
  // Where these frames begin and the last of them ends; fewer at the end of the clip.
  const index = await blobs.readDerived(id, 'frames.index', {
    from: first * BYTES_A_START,
    to: (first + CLIP_FRAMES_PER_SECOND + 1) * BYTES_A_START,
  });
  const starts = new Float64Array(index.slice().buffer, 0, Math.floor(index.length / BYTES_A_START));
  if (starts.length < 2) return null;
  const lengths = Array.from({ length: starts.length - 1 }, (_, at) => starts[at + 1]! - starts[at]!);
  const bytes = await blobs.readDerived(id, 'frames.mjpeg', { from: starts[0]!, to: starts.at(-1)! });
  return { lengths, bytes };
}
