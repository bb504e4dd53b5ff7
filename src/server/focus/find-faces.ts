import type { Box } from '../../core/focus/box';
import { likeness } from '../../core/focus/box';
import { loadModel, type Model } from './models';
import type { RgbPicture } from './rgb-picture';
import { quarterTurned, resized } from './rgb-picture';

export interface ScoredBox extends Box {
  readonly score: number;
}

const SIDE = 256;
/** Below, what is found is a face now and then; measured on photographs with and without people. */
const LEAST_SCORE = 0.75;
/** A face is found by itself a second time in a part of the picture, where it is larger. */
const SAME_FACE = 0.25;
/** Parts are looked at when the picture has so many pixels that faces in them may be missed in the whole. */
const PARTS_FROM_PX = 700;
const PART = 0.58;

/** Where the network’s 896 guesses stand: two on each of 16 × 16 places, six on each of 8 × 8. */
const ANCHORS: readonly (readonly [number, number])[] = [
  [16, 2],
  [8, 6],
].flatMap(([places, each]) =>
  Array.from({ length: places! * places! * each! }, (_, index) => {
    const place = Math.floor(index / each!);
    const step = SIDE / places!;
    return [((place % places!) + 0.5) * step, (Math.floor(place / places!) + 0.5) * step] as const;
  }),
);

/**
 * Faces by BlazeFace (Bazarevsky, Kartynnik, Vakunov, Raveendran and Grundmann 2019; weights of `@vladmandic/human`, MIT): in the whole picture, and in four
 * parts of it that overlap.
 */
export async function findFaces(picture: RgbPicture): Promise<ScoredBox[]> {
  const model = await loadModel('blazeface');
  const parts: Box[] = [{ left: 0, top: 0, width: 1, height: 1 }];
  if (Math.max(picture.widthPx, picture.heightPx) >= PARTS_FROM_PX)
    for (const top of [0, 1 - PART])
      for (const left of [0, 1 - PART]) parts.push({ left, top, width: PART, height: PART });
  const found: ScoredBox[] = [];
  for (const [index, part] of parts.entries())
    for (const face of await facesIn(model, picture, part)) {
      // Cut by the part’s own edge, it is found in another.
      const { left, top, width, height } = face;
      const inner =
        index === 0 || (touches(left, width, part.left, part.width) && touches(top, height, part.top, part.height));
      if (inner) found.push(face);
    }
  return distinct(found, SAME_FACE);
}

/** A picture in which an upright face is found by chance, once it is turned, is rarer with every face more or better. */
const SURE_SCORE = 0.9;
/** The network finds faces that lie, too, but is surer of them upright. */
const SURER_BY = 0.03;
/** Of the picture's shorter side: a face that makes a picture a portrait, not a pattern in the grass. */
const LEAST_HEIGHT = 0.12;

/**
 * By which quarter turn faces come to stand upright; null when they do as they are, or by neither.
 *
 * @param own how sure the network is of a face in the picture as it is, 0…1
 */
export async function turnForFaces(
  picture: RgbPicture,
  own: number,
): Promise<'clockwise' | 'counter-clockwise' | null> {
  const model = await loadModel('blazeface');
  let best: { readonly way: 'clockwise' | 'counter-clockwise'; readonly score: number } | null = null;
  for (const way of ['clockwise', 'counter-clockwise'] as const) {
    const turned = quarterTurned(picture, way);
    for (const face of await facesIn(model, turned, WHOLE)) {
      const heightPx = face.height * turned.heightPx;
      if (
        face.score < Math.max(SURE_SCORE, own + SURER_BY) ||
        heightPx < LEAST_HEIGHT * Math.min(turned.widthPx, turned.heightPx)
      )
        continue;
      if (!best || face.score > best.score) best = { way, score: face.score };
    }
  }
  return best?.way ?? null;
}

const WHOLE: Box = { left: 0, top: 0, width: 1, height: 1 };

/** Whether it lies clear of those edges of a part that are not the picture’s. */
function touches(from: number, size: number, partFrom: number, partSize: number): boolean {
  const clear = 0.01;
  return (
    (partFrom === 0 || from > partFrom + clear) &&
    (partFrom + partSize > 0.999 || from + size < partFrom + partSize - clear)
  );
}

async function facesIn(model: Model, picture: RgbPicture, part: Box): Promise<ScoredBox[]> {
  const [partW, partH] = [part.width * picture.widthPx, part.height * picture.heightPx];
  const scale = SIDE / Math.max(partW, partH);
  const input = await resized(picture, part, Math.round(partW * scale), Math.round(partH * scale), SIDE);
  const outputs = await model.run(
    Float32Array.from(input, (value) => value / 127.5 - 1),
    SIDE,
  );
  const [scoresFew, scoresMany, boxesFew, boxesMany] = outputs.toSorted((a, b) => a.length - b.length);
  const found: ScoredBox[] = [];
  const many = scoresMany!.length;
  ANCHORS.forEach(([x, y], index) => {
    const few = index - many;
    const score = 1 / (1 + Math.exp(-(few < 0 ? scoresMany![index]! : scoresFew![few]!)));
    if (score < LEAST_SCORE) return;
    const box = few < 0 ? boxesMany!.subarray(16 * index) : boxesFew!.subarray(16 * few);
    const [cx, cy, w, h] = [(box[0]! + x) / scale, (box[1]! + y) / scale, box[2]! / scale, box[3]! / scale];
    if (!(w > 0 && h > 0)) return;
    found.push({
      score,
      left: part.left + (cx - w / 2) / picture.widthPx,
      top: part.top + (cy - h / 2) / picture.heightPx,
      width: w / picture.widthPx,
      height: h / picture.heightPx,
    });
  });
  return distinct(found, SAME_FACE);
}

/** The surest of those that are one. */
export function distinct<Found extends ScoredBox>(found: readonly Found[], same: number): Found[] {
  const kept: Found[] = [];
  for (const box of found.toSorted((a, b) => b.score - a.score))
    if (!kept.some((other) => likeness(box, other) > same)) kept.push(box);
  return kept;
}
