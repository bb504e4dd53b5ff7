import type { FramePlan, LayerPlan, SlidePlan, WordsLook } from '../core/frame/frame-plan';
import type { AssetId } from '../core/show/ids';
import { BACKING_SOURCE_WIDTH_PX, fillWithBlur } from './planes/blurred-backing';
import type { Kernels } from './kernel-module';
import { planesFromDecodedFrame, planesFromPixels, releasePlanes, type PicturePlanes } from './planes/picture-planes';
import { createSurface, releaseSurface, type Surface } from './planes/surface';
import type { PictureReader } from './picture-reader';
import { drawWords, type FillOutline } from './words/draw-words';
import type { Fonts } from './words/fonts';

export interface WordsPlanes {
  readonly planes: PicturePlanes;
  readonly leftPx: number;
  readonly topPx: number;
}

type Kept =
  | { readonly kind: 'picture'; readonly planes: PicturePlanes }
  | { readonly kind: 'backing'; readonly surface: Surface }
  | { readonly kind: 'words'; readonly words: WordsPlanes | null }
  | { readonly kind: 'unreadable'; readonly error: Error };

interface Wanted {
  readonly key: string;
  readonly make: () => Promise<Kept>;
}

/** Everything the plans need beside themselves: pictures, backings and words, made once, kept while there is room, let go oldest first. */
export interface PictureStore {
  /** Makes what the plan needs and does not yet have. Unreadable pictures are reported through `problems`, not thrown. */
  prepare(plan: FramePlan): Promise<void>;
  isReady(plan: FramePlan): boolean;
  picture(layer: Extract<LayerPlan, { kind: 'picture' | 'clip' }>): PicturePlanes | null;
  backing(assetId: AssetId, frame: FrameSize): Surface | null;
  words(look: WordsLook, frame: FrameSize): WordsPlanes | null;
  problems(): ReadonlyMap<AssetId, Error>;
  close(): void;
}

interface FrameSize {
  readonly widthPx: number;
  readonly heightPx: number;
}

interface PictureStoreParts {
  readonly kernels: Kernels;
  readonly reader: PictureReader;
  readonly fonts: Fonts;
  readonly fillOutline: FillOutline;
  /** Room for what is kept, in bytes; what the latest plan needs is kept even beyond it. */
  readonly roomBytes: number;
}

export function createPictureStore({ kernels, reader, fonts, fillOutline, roomBytes }: PictureStoreParts): PictureStore {
  // A Map keeps the order of insertion; what is used is put in again, so the first entry is the one unused for longest.
  const kept = new Map<string, Kept>();
  const underWay = new Map<string, Promise<void>>();
  const problems = new Map<AssetId, Error>();
  let usedBytes = 0;
  let closed = false;

  return {
    async prepare(plan) {
      const wanted = wantedBy(plan);
      await Promise.all(wanted.map((entry) => fetch(entry)));
      makeRoom(new Set(wanted.map((entry) => entry.key)));
    },
    isReady: (plan) => wantedBy(plan).every((entry) => kept.has(entry.key)),
    picture(layer) {
      const found = touch(layerKey(layer));
      return found?.kind === 'picture' ? found.planes : null;
    },
    backing(assetId, frame) {
      const found = touch(backingKey(assetId, frame));
      return found?.kind === 'backing' ? found.surface : null;
    },
    words(look, frame) {
      const found = touch(wordsKey(look, frame));
      return found?.kind === 'words' ? found.words : null;
    },
    problems: () => problems,
    close() {
      closed = true;
      for (const entry of kept.values()) letGo(entry);
      kept.clear();
    },
  };

  function touch(key: string): Kept | undefined {
    const found = kept.get(key);
    if (found) {
      kept.delete(key);
      kept.set(key, found);
    }
    return found;
  }

  async function fetch(entry: Wanted): Promise<void> {
    if (touch(entry.key)) return;
    const running = underWay.get(entry.key);
    if (running) return running;
    const started = entry.make().then((made) => {
      if (closed) return letGo(made);
      kept.set(entry.key, made);
      usedBytes += sizeOf(made);
    }).finally(() => underWay.delete(entry.key));
    underWay.set(entry.key, started);
    return started;
  }

  function makeRoom(needed: ReadonlySet<string>): void {
    for (const [key, entry] of kept) {
      if (usedBytes <= roomBytes) return;
      if (needed.has(key) || sizeOf(entry) === 0) continue;
      kept.delete(key);
      usedBytes -= sizeOf(entry);
      letGo(entry);
    }
  }

  function letGo(entry: Kept): void {
    if (entry.kind === 'picture') releasePlanes(kernels, entry.planes);
    else if (entry.kind === 'backing') releaseSurface(kernels, entry.surface);
    else if (entry.kind === 'words' && entry.words) releasePlanes(kernels, entry.words.planes);
  }

  function wantedBy(plan: FramePlan): Wanted[] {
    return [plan.slide, ...(plan.incoming ? [plan.incoming.slide] : [])].flatMap((slide) => wantedBySlide(slide, plan));
  }

  function wantedBySlide(slide: SlidePlan, frame: FrameSize): Wanted[] {
    const wanted = slide.layers.map((layer): Wanted => {
      if (layer.kind === 'words') return { key: wordsKey(layer.look, frame), make: async () => ({ kind: 'words', words: makeWords(layer.look, frame) }) };
      return { key: layerKey(layer), make: () => guarded(layer.assetId, () => readLayer(layer)) };
    });
    const { backing } = slide;
    if (backing.kind !== 'blurred') return wanted;
    return [...wanted, { key: backingKey(backing.assetId, frame), make: () => guarded(backing.assetId, () => makeBacking(backing.assetId, slide, frame)) }];
  }

  async function guarded(assetId: AssetId, make: () => Promise<Kept>): Promise<Kept> {
    try {
      return await make();
    } catch (error) {
      // A picture that cannot be read must not stop the show: the frame is drawn without it and the person is told.
      const known = error instanceof Error ? error : new Error(String(error));
      problems.set(assetId, known);
      return { kind: 'unreadable', error: known };
    }
  }

  async function readLayer(layer: Extract<LayerPlan, { kind: 'picture' | 'clip' }>): Promise<Kept> {
    const { widthPx, heightPx } = layer.size;
    const read = layer.kind === 'picture'
      ? await reader.readPicture(layer.assetId, widthPx, heightPx)
      : await reader.readClipFrame(layer.assetId, layer.clipFrame, widthPx, heightPx);
    return { kind: 'picture', planes: 'rgba' in read ? planesFromPixels(kernels, read) : planesFromDecodedFrame(kernels, read) };
  }

  async function makeBacking(assetId: AssetId, slide: SlidePlan, frame: FrameSize): Promise<Kept> {
    const layer = slide.layers.find((candidate) => candidate.kind !== 'words' && candidate.assetId === assetId);
    if (!layer || layer.kind === 'words') throw new Error('the picture behind a blurred backing is not on the slide');
    const widthPx = BACKING_SOURCE_WIDTH_PX;
    const heightPx = Math.max(2, Math.round((widthPx * layer.size.heightPx) / layer.size.widthPx));
    // A clip's backing is a blurred copy of its first frame.
    const pixels = layer.kind === 'picture' ? await reader.readPicture(assetId, widthPx, heightPx) : rgbaOf(await reader.readClipFrame(assetId, 0, widthPx, heightPx));
    const surface = createSurface(kernels, frame.widthPx, frame.heightPx);
    fillWithBlur(kernels, surface, pixels);
    return { kind: 'backing', surface };
  }

  function makeWords(look: WordsLook, frame: FrameSize): WordsPlanes | null {
    const drawn = drawWords(look, fonts, fillOutline, frame);
    return drawn && { planes: planesFromPixels(kernels, drawn.pixels), leftPx: drawn.leftPx, topPx: drawn.topPx };
  }
}

/** A decoded frame as grey-free RGBA, for the few uses that want pixels; nearest chroma is enough under a wide blur. */
function rgbaOf(read: Awaited<ReturnType<PictureReader['readClipFrame']>>): { widthPx: number; heightPx: number; rgba: Uint8Array | Uint8ClampedArray; hasTransparency: boolean } {
  if ('rgba' in read) return read;
  const { widthPx, heightPx, i420 } = read;
  const rgba = new Uint8ClampedArray(widthPx * heightPx * 4);
  const cWidth = (widthPx + 1) >> 1;
  const uAt = widthPx * heightPx;
  const vAt = uAt + cWidth * ((heightPx + 1) >> 1);
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const luma = 1.16438 * (i420[y * widthPx + x]! - 16);
      const u = i420[uAt + (y >> 1) * cWidth + (x >> 1)]! - 128;
      const v = i420[vAt + (y >> 1) * cWidth + (x >> 1)]! - 128;
      rgba.set([luma + 1.79274 * v, luma - 0.21325 * u - 0.53291 * v, luma + 2.1124 * u, 255], 4 * (y * widthPx + x));
    }
  }
  return { widthPx, heightPx, rgba, hasTransparency: false };
}

function layerKey(layer: Extract<LayerPlan, { kind: 'picture' | 'clip' }>): string {
  const size = `${layer.size.widthPx}×${layer.size.heightPx}`;
  return layer.kind === 'picture' ? `${layer.assetId} ${size}` : `${layer.assetId} ${layer.clipFrame} ${size}`;
}

function backingKey(assetId: AssetId, frame: FrameSize): string {
  return `backing ${assetId} ${frame.widthPx}×${frame.heightPx}`;
}

function wordsKey(look: WordsLook, frame: FrameSize): string {
  return `words ${JSON.stringify(look)} ${frame.widthPx}×${frame.heightPx}`;
}

function sizeOf(entry: Kept): number {
  if (entry.kind === 'picture') return entry.planes.byteCount;
  if (entry.kind === 'backing') return entry.surface.byteCount;
  if (entry.kind === 'words') return entry.words?.planes.byteCount ?? 0;
  return 0;
}
