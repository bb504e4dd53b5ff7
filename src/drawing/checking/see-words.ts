import type { Box } from '../../core/focus/box';
import { planFrame, type PreparedShow } from '../../core/frame/plan-frame';
import type { LayerId } from '../../core/show/ids';
import { seenLayers, type WordsLayer } from '../../core/show/layer';
import type { WordsMoment, WordsSeen } from '../../core/snags/slide-seen';
import { legibilityOf, nearLetters, type LetteredFrame } from '../../core/words/legibility';
import { filledSlide } from '../../core/words/fields';
import { standingSpan } from '../../core/words/passage';
import { TITLE_SIZE } from '../../core/words/sizes';
import type { Checking } from './checking';
import { facesSeen, slideIn } from './faces-seen';
import { lettersPlan, whiteLook, wordsIn, type WordsPlan } from './letters-plan';

/** A moment is looked at so often while words can be read, within these counts. */
const EVERY_MS = 700;
const FEWEST = 3;
const MOST = 9;
/** The subtitle beside the title, as they are set. */
const SUBTITLE_SHARE = 0.512;
/** Coverage from which a pixel belongs to a letter. */
const LETTER = 128;
/** Words and the air about them, in heights of their letters. */
const AIR = 0.35;

/** How the words of a slide are seen, at every moment at which they can be read. */
export async function seeWords(checking: Checking, prepared: PreparedShow, index: number): Promise<WordsSeen[]> {
  // By what they say once their fields are filled: as they are drawn.
  const slide = filledSlide(prepared.show, prepared.facts, index);
  const words = [...seenLayers(slide.layers)].filter(
    (layer): layer is WordsLayer =>
      layer.kind === 'words' && !layer.mask && (layer.title.trim() !== '' || layer.subtitle.trim() !== ''),
  );
  const seen: WordsSeen[] = [];
  for (const layer of words) seen.push(await seeLayer(checking, prepared, index, layer));
  return seen;
}

async function seeLayer(
  checking: Checking,
  prepared: PreparedShow,
  index: number,
  layer: WordsLayer,
): Promise<WordsSeen> {
  const { frame } = checking;
  const slide = prepared.show.slides[index]!;
  const span = prepared.spans[index]!;
  const { startMs, endMs } = standingSpan(layer, span);
  const [fromMs, toMs] = [Math.max(0, startMs), Math.max(startMs + 1, Math.min(endMs, span.leavesMs - span.startMs))];
  const count = Math.min(MOST, Math.max(FEWEST, Math.round((toMs - fromMs) / EVERY_MS)));
  let worst: WordsMoment | null = null;
  let face: WordsSeen['face'] = null;
  let margins: WordsSeen['margins'] = null;
  let [scale, size] = [1, layer.style?.size ?? TITLE_SIZE];
  for (let at = 0; at < count; at += 1) {
    const offsetMs = Math.round(fromMs + 1 + ((toMs - fromMs - 2) * at) / (count - 1));
    const plan = planFrame(prepared, prepared.seenFromMs[index]! + offsetMs, frame);
    const drawn = plan && slideIn(plan, slide.id);
    const wanted = drawn && wordsOfLayer(wordsIn(drawn.layers), layer);
    if (!plan || !drawn || !wanted) continue;
    const letters = await checking.coverage(lettersPlan(plan, wanted));
    const box = boundsOf(letters, frame.widthPx);
    if (!box) continue;
    scale = Math.min(scale, checking.wordsScale(whiteLook(wanted.look)));
    const em = emPx(layer, wanted, frame) * scale;
    size = em / Math.min(frame.widthPx, frame.heightPx);
    const { rgba } = await checking.picture(plan);
    const legibility = legibilityOf(aroundLetters(frame, rgba, letters, box, em), em);
    if (legibility && (!worst || legibility.clear < worst.legibility.clear)) worst = { offsetMs, legibility };
    const covered = coveredFace(letters, facesSeen(drawn, prepared.facts), em, frame);
    if (covered > (face?.share ?? 0)) face = { share: covered, offsetMs };
    // Where they are shown by a transition is not where they stand.
    if (!layer.travel && !plan.incoming) margins = nearest(margins, box, frame);
  }
  return { layerId: layer.id as LayerId, worst, face, margins, scale, size };
}

/** The plan of a layer: of those that say the same the first. */
function wordsOfLayer(plans: readonly WordsPlan[], { title, subtitle, place }: WordsLayer): WordsPlan | null {
  return plans.find(({ look }) => look.title === title && look.subtitle === subtitle && look.place === place) ?? null;
}

/** Height of the smallest letters as they are seen. */
function emPx({ subtitle, style }: WordsLayer, { layer }: WordsPlan, frame: Checking['frame']): number {
  const size = (style?.size ?? TITLE_SIZE) * (subtitle.trim() === '' ? 1 : SUBTITLE_SHARE);
  const across = Math.hypot(layer.toScreen[0]!, layer.toScreen[3]!) / (frame.widthPx * (layer.toScreen[8] ?? 1));
  return size * Math.min(frame.widthPx, frame.heightPx) * across;
}

/** The part of a frame where letters are, with room about it: most of a frame has none. */
function aroundLetters(
  { widthPx, heightPx }: Checking['frame'],
  rgba: ArrayLike<number>,
  letters: Uint8Array,
  box: Bounds,
  roomPx: number,
): LetteredFrame {
  const left = Math.max(0, Math.floor(box.left - roomPx));
  const top = Math.max(0, Math.floor(box.top - roomPx));
  const right = Math.min(widthPx, Math.ceil(box.right + roomPx));
  const bottom = Math.min(heightPx, Math.ceil(box.bottom + roomPx));
  const part = {
    widthPx: right - left,
    heightPx: bottom - top,
    rgba: new Uint8ClampedArray(4 * (right - left) * (bottom - top)),
    letters: new Uint8Array((right - left) * (bottom - top)),
  };
  for (let y = top; y < bottom; y += 1)
    for (let x = left; x < right; x += 1) {
      const [from, to] = [y * widthPx + x, (y - top) * part.widthPx + x - left];
      part.letters[to] = letters[from]!;
      for (let channel = 0; channel < 3; channel += 1) part.rgba[4 * to + channel] = rgba[4 * from + channel]!;
    }
  return part;
}

interface Bounds {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

function boundsOf(letters: Uint8Array, widthPx: number): Bounds | null {
  let [left, right, top, bottom] = [Infinity, -1, Infinity, -1];
  for (let at = 0; at < letters.length; at += 1) {
    if (letters[at]! < LETTER) continue;
    const [x, y] = [at % widthPx, Math.floor(at / widthPx)];
    left = Math.min(left, x);
    right = Math.max(right, x);
    top = Math.min(top, y);
    bottom = Math.max(bottom, y);
  }
  return right < 0 ? null : { left, top, right: right + 1, bottom: bottom + 1 };
}

function nearest(before: WordsSeen['margins'], box: Bounds, { widthPx, heightPx }: Checking['frame']) {
  const now = {
    left: box.left / widthPx,
    top: box.top / heightPx,
    right: 1 - box.right / widthPx,
    bottom: 1 - box.bottom / heightPx,
  };
  if (!before) return now;
  return {
    left: Math.min(before.left, now.left),
    top: Math.min(before.top, now.top),
    right: Math.min(before.right, now.right),
    bottom: Math.min(before.bottom, now.bottom),
  };
}

/** Most of a face that words and the air about them cover. */
function coveredFace(letters: Uint8Array, faces: readonly Box[], em: number, frame: Checking['frame']): number {
  if (faces.length === 0) return 0;
  const { widthPx, heightPx } = frame;
  const near = nearLetters({ ...frame, letters }, Math.max(1, Math.round(AIR * em)));
  return Math.max(
    ...faces.map(({ left, top, width, height }) => {
      let covered = 0;
      for (let y = Math.max(0, Math.round(top)); y < Math.min(heightPx, top + height); y += 1)
        for (let x = Math.max(0, Math.round(left)); x < Math.min(widthPx, left + width); x += 1)
          covered += near[y * widthPx + x]!;
      return covered / (width * height);
    }),
  );
}
