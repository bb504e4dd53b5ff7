import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import type { PictureSize } from '../../../core/frame/frame-plan';
import { planFrame, type PreparedShow } from '../../../core/frame/plan-frame';
import type { AssetId } from '../../../core/show/ids';
import { momentOfFrame } from '../../../core/timing/frames';
import type { PictureReader } from '../../../drawing/picture-reader';
import { planesFromDecodedFrame, releasePlanes, type Pixels } from '../../../drawing/planes/picture-planes';
import { pixelsOf } from '../../../drawing/planes/surface';
import { makePlate } from '../../../drawing/plates/make-plate';
import { keyOf, platesOf, type Plate } from '../../../drawing/plates/plate';
import { readCroppedClip } from '../../../drawing/plates/read-cropped-clip';
import { createFontShelf, type FontFile } from '../../../drawing/words/fonts';
import { renameSafely } from '../../blobs/whole';
import { fontFile, fontIndexFile } from '../../paths';
import type { DrawnSegment, FilmWork, SegmentOrder, UnreadFile } from '../film-work';
import type { NodeDrawing } from '../node-drawing';
import { writePack, type PackedItem } from './packed';

/** Frames of clips are decoded one by one in the browser while it plays; larger ones would come too late. */
const WIDEST_CLIP_PX = 1280;
/** Two neighbouring frames of a film are no further apart in a clip than this, however quick it runs; what lies between them is seen on quicker screens. */
const LONGEST_STRIDE = 8;

const GLIMPSE_EVERY_MS = 2000;
const GLIMPSE_PX = 240;

/** What the frames of a stretch are drawn from. */
interface Wanted {
  /** The widest each picture is read. */
  readonly pictures: Map<AssetId, number>;
  readonly clips: Map<AssetId, { size: PictureSize; readonly frames: Set<number> }>;
  readonly fonts: Set<string>;
}

/** Packs what a segment's frames are drawn from: its pictures as large as they are seen, its clips' frames, the names of its fonts. The pack appears under its name only when it is whole. */
export async function packSegment(
  prepared: PreparedShow,
  work: FilmWork,
  order: SegmentOrder,
  drawing: NodeDrawing,
  reader: PictureReader,
  told: (frames: number) => void,
  glimpse: (jpeg: Uint8Array) => void,
): Promise<{ drawn: DrawnSegment; problems: UnreadFile[] }> {
  const startedMs = performance.now();
  const { firstFrame, endFrame } = order.segment;
  const wanted = await wantedBy(prepared, work, order, drawing);
  const items: { item: PackedItem; bytes: Uint8Array }[] = [];
  const problems: UnreadFile[] = [];
  const guarded = async (assetId: AssetId, pack: () => Promise<void>) => {
    try {
      await pack();
    } catch (error) {
      // The page is drawn without it, as a film is.
      problems.push({ assetId, message: error instanceof Error ? error.message : String(error) });
    }
  };
  const add = (name: string, mime: string, widthPx: number, bytes: Uint8Array) =>
    void items.push({ item: { name, mime, widthPx, byteCount: bytes.length }, bytes });
  const quality = Number(work.encoding.args[0]);
  const readMs = performance.now();
  const count = wanted.pictures.size + wanted.clips.size;
  let [packed, said, glimpsedMs] = [0, 0, -Infinity];
  const next = () => {
    packed += 1;
    const due = Math.floor(((endFrame - firstFrame) * packed) / (count + 1));
    told(due - said);
    said = due;
  };
  for (const [id, widthPx] of wanted.pictures) {
    await guarded(id, async () => {
      const known = prepared.facts.get(id);
      if (known?.kind !== 'picture') throw new Error('The file is missing.');
      const width = Math.min(known.widthPx, widthPx);
      const height = Math.max(1, Math.round((width * known.heightPx) / known.widthPx));
      const pixels = await reader.readPicture(id, width, height);
      const bytes = await encoded(pixels, quality);
      // What was packed last is shown meanwhile.
      if (performance.now() - glimpsedMs > GLIMPSE_EVERY_MS) {
        glimpsedMs = performance.now();
        glimpse(await sharp(bytes).resize(GLIMPSE_PX).flatten().jpeg({ quality: 72 }).toBuffer());
      }
      add(`picture ${id}`, pixels.hasTransparency ? 'image/webp' : 'image/jpeg', width, bytes);
    });
    next();
  }
  for (const [id, { size, frames }] of wanted.clips) {
    await guarded(id, async () => {
      for (const frame of [...frames].toSorted((a, b) => a - b)) {
        const read = await reader.readClipFrame(id, frame, size.widthPx, size.heightPx);
        const pixels = 'rgba' in read ? read : pixelsOfDecoded(read);
        add(`clip ${id} ${frame}`, 'image/jpeg', pixels.widthPx, await encoded(pixels, Math.min(quality, 78)));
        told(0);
      }
    });
    next();
  }
  for (const name of wanted.fonts) add(`font ${name}`, '', 0, new Uint8Array(0));
  await writePack(`${order.outFile}.part`, items);
  await renameSafely(`${order.outFile}.part`, order.outFile);
  told(endFrame - firstFrame - said);
  const endedMs = performance.now();
  return {
    drawn: { drawMs: endedMs - startedMs, readMs: endedMs - readMs, encodeMs: 0, stillFrames: 0 },
    problems,
  };

  function pixelsOfDecoded(read: Exclude<Awaited<ReturnType<PictureReader['readClipFrame']>>, Pixels>): Pixels {
    const planes = planesFromDecodedFrame(drawing.kernels, read);
    const pixels = pixelsOf(drawing.kernels, planes);
    releasePlanes(drawing.kernels, planes);
    return pixels;
  }
}

/** Plans the segment's frames and makes what they need up to where a file would be read, noting which and how large. */
async function wantedBy(
  prepared: PreparedShow,
  work: FilmWork,
  { segment }: SegmentOrder,
  drawing: NodeDrawing,
): Promise<Wanted> {
  const wanted: Wanted = { pictures: new Map(), clips: new Map(), fonts: new Set() };
  const parts = { ...drawing, reader: notingReader(wanted), fonts: await notingFonts(wanted) };
  const { rate } = prepared.show.frame;
  const isTransparent = (id: AssetId) => {
    const known = prepared.facts.get(id);
    return known?.kind === 'picture' && known.hasTransparency;
  };
  const made = new Set<string>();
  const lastFrames = new Map<AssetId, number>();
  for (let frame = segment.firstFrame; frame < segment.endFrame; frame += 1) {
    const plan = planFrame(prepared, momentOfFrame(frame, rate), work)!;
    for (const plate of platesOf(plan, isTransparent)) {
      const key = keyOf(plate);
      if (made.has(key) || !reads(plate)) continue;
      made.add(key);
      if (plate.kind === 'clip') await noteClip(plate);
      else
        await makePlate(parts, plate).catch((error: unknown) => {
          if (!(error instanceof NotedError)) throw error;
        });
    }
  }
  return wanted;

  async function noteClip(plate: Extract<Plate, { kind: 'clip' }>): Promise<void> {
    const { assetId, clipFrame } = plate;
    let { size } = plate;
    // What a crop is taken from is larger than what it leaves.
    const sizing: PictureReader = {
      ...parts.reader,
      readClipFrame(_id, _frame, widthPx, heightPx) {
        size = { widthPx, heightPx };
        return Promise.reject(new NotedError());
      },
    };
    await readCroppedClip(sizing, plate).catch((error: unknown) => {
      if (!(error instanceof NotedError)) throw error;
    });
    const before = lastFrames.get(assetId) ?? clipFrame;
    lastFrames.set(assetId, clipFrame);
    const [low, high] = [Math.min(before, clipFrame), Math.max(before, clipFrame)];
    if (high - low <= LONGEST_STRIDE) for (let at = low; at < high; at += 1) note(wanted, assetId, at, size);
    note(wanted, assetId, clipFrame, size);
  }
}

/** Plates that are made from files or fonts; the others are made from nothing but themselves. */
const reads = (plate: Plate): boolean =>
  plate.kind === 'picture' ||
  plate.kind === 'clip' ||
  plate.kind === 'blurred' ||
  plate.kind === 'words' ||
  (plate.kind === 'wipe-map' && plate.look.kind === 'own-pattern');

/** A file would be read now, and that is all that was to be known. */
class NotedError extends Error {
  override readonly name = 'NotedError';
}

function notingReader(wanted: Wanted): PictureReader {
  return {
    readPicture(assetId, widthPx, _heightPx, part) {
      const whole = part ? Math.ceil((widthPx * part.ofWidthPx) / part.widthPx) : widthPx;
      wanted.pictures.set(assetId, Math.max(whole, wanted.pictures.get(assetId) ?? 0));
      return Promise.reject(new NotedError());
    },
    readClipFrame(assetId, clipFrame, widthPx, heightPx) {
      note(wanted, assetId, clipFrame, { widthPx, heightPx });
      return Promise.reject(new NotedError());
    },
  };
}

function note({ clips }: Wanted, assetId: AssetId, clipFrame: number, size: PictureSize): void {
  const scale = Math.min(1, WIDEST_CLIP_PX / size.widthPx);
  const even = (side: number) => Math.max(2, 2 * Math.round((side * scale) / 2));
  const held = { widthPx: even(size.widthPx), heightPx: even(size.heightPx) };
  const known = clips.get(assetId) ?? { size: held, frames: new Set() };
  if (held.widthPx > known.size.widthPx) known.size = held;
  known.frames.add(clipFrame);
  clips.set(assetId, known);
}

const fontBytes = new Map<string, Promise<Buffer>>();

async function notingFonts(wanted: Wanted) {
  // Written by our own build.
  const files = JSON.parse(await readFile(fontIndexFile(), 'utf8')) as FontFile[];
  return createFontShelf(files, (name) => {
    wanted.fonts.add(name);
    const read = fontBytes.get(name) ?? readFile(fontFile(name));
    fontBytes.set(name, read);
    return read.then((bytes) => new Uint8Array(bytes));
  });
}

function encoded({ widthPx, heightPx, rgba, hasTransparency }: Pixels, quality: number): Promise<Buffer> {
  const picture = sharp(rgba, {
    raw: { width: widthPx, height: heightPx, channels: 4 },
  });
  return hasTransparency
    ? picture.webp({ lossless: true }).toBuffer()
    : picture
        .removeAlpha()
        .jpeg({ quality, chromaSubsampling: quality > 90 ? '4:4:4' : '4:2:0' })
        .toBuffer();
}
