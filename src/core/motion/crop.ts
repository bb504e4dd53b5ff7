import type { AssetFacts } from '../show/asset-facts';
import type { ClipLayer, Layer, Move, PictureLayer } from '../show/layer';
import type { Framing } from './framing';

/**
 * Which part of the upright picture is used, as if the rest had never been: a framing that lies on the picture. Straightening and quarter turns are its turn.
 * Moves, light and edges speak of what is left.
 */
export type Crop = Framing;

interface Size {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** Shares of the picture's box (as it lies under the crop's turn) that are cut away. */
export interface CropSides {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

export const WHOLE_CROP: Crop = { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 };
/** Less than this is no picture. */
const SMALLEST_SIDE_PX = 16;
/** Rounding of stored shares is forgiven. */
const SLACK = 1e-6;

/** The crop as it can be taken from a picture: held inside, should it have been made on another (a file that was swapped) or written by hand. */
export function cropOn(picture: Size, crop: Crop): Crop {
  return liesInside(crop, picture) ? crop : heldInside(crop, picture);
}

/** What a crop leaves of a picture, in the picture's own pixels. */
export function croppedSize(picture: Size, given: Crop | undefined): Size {
  if (!given) return { widthPx: picture.widthPx, heightPx: picture.heightPx };
  const crop = cropOn(picture, given);
  return {
    widthPx: Math.max(1, Math.round(crop.width * picture.widthPx)),
    heightPx: Math.max(1, Math.round(crop.height * picture.heightPx)),
  };
}

/** What is known about the file a layer shows, with the size of what its crop leaves. */
export function factsInUse<Facts extends AssetFacts | undefined>(
  layer: PictureLayer | ClipLayer | Layer,
  facts: Facts,
): Facts {
  if ((layer.kind !== 'picture' && layer.kind !== 'clip') || !layer.crop || facts?.kind !== layer.kind) return facts;
  return { ...facts, ...croppedSize(facts, layer.crop) };
}

/** Half the width and height of the upright box around a rectangle that is turned. */
function reach(size: Size, turnDegrees: number): readonly [across: number, down: number] {
  const radians = (turnDegrees * Math.PI) / 180;
  const [cos, sin] = [Math.abs(Math.cos(radians)), Math.abs(Math.sin(radians))];
  return [(cos * size.widthPx + sin * size.heightPx) / 2, (sin * size.widthPx + cos * size.heightPx) / 2];
}

/** A place in the picture's pixels, from the picture's middle, turned into the directions of a crop; or back with the turn the other way round. */
function turned(x: number, y: number, turnDegrees: number): readonly [number, number] {
  const radians = (turnDegrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)];
  return [cos * x - sin * y, sin * x + cos * y];
}

export function liesInside(framing: Framing, picture: Size): boolean {
  const [across, down] = reach(
    { widthPx: framing.width * picture.widthPx, heightPx: framing.height * picture.heightPx },
    framing.turnDegrees,
  );
  const [x, y] = [framing.x * picture.widthPx, framing.y * picture.heightPx];
  const [slackX, slackY] = [SLACK * picture.widthPx, SLACK * picture.heightPx];
  return (
    x - across >= -slackX &&
    x + across <= picture.widthPx + slackX &&
    y - down >= -slackY &&
    y + down <= picture.heightPx + slackY
  );
}

/** The framing made smaller, if it must be, and moved so that it lies on the picture. */
export function heldInside(framing: Framing, picture: Size): Framing {
  const [across, down] = reach(
    { widthPx: framing.width * picture.widthPx, heightPx: framing.height * picture.heightPx },
    framing.turnDegrees,
  );
  const scale = Math.min(1, picture.widthPx / (2 * across), picture.heightPx / (2 * down));
  const hold = (centre: number, half: number) => Math.min(1 - half, Math.max(half, centre));
  return {
    ...framing,
    width: framing.width * scale,
    height: framing.height * scale,
    x: hold(framing.x, (scale * across) / picture.widthPx),
    y: hold(framing.y, (scale * down) / picture.heightPx),
  };
}

/** As far as possible on the way from a crop to another (of the same turn) without leaving the picture. */
export function furthestInside(from: Crop, to: Crop, picture: Size): Crop {
  if (liesInside(to, picture)) return to;
  const between = (share: number): Crop => ({
    ...to,
    x: from.x + (to.x - from.x) * share,
    y: from.y + (to.y - from.y) * share,
    width: from.width + (to.width - from.width) * share,
    height: from.height + (to.height - from.height) * share,
  });
  let [inside, outside] = [0, 1];
  for (let step = 0; step < 20; step += 1) {
    const middle = (inside + outside) / 2;
    if (liesInside(between(middle), picture)) inside = middle;
    else outside = middle;
  }
  return between(inside);
}

/** The quarter turn nearest to the crop's turn, and what is left of it for straightening, less than 45 either way. */
export function partsOfTurn(turnDegrees: number): { readonly quarter: number; readonly straighten: number } {
  const quarter = 90 * Math.round(turnDegrees / 90);
  return { quarter, straighten: turnDegrees - quarter };
}

/** The crop with another straightening, about the same place. One that was as large as can be stays so; others are held inside. */
export function straightened(crop: Crop, straighten: number, picture: Size): Crop {
  const turnDegrees = partsOfTurn(crop.turnDegrees).quarter + straighten;
  const room = (of: Crop) => {
    const [across, down] = reach(
      { widthPx: of.width * picture.widthPx, heightPx: of.height * picture.heightPx },
      of.turnDegrees,
    );
    return Math.min(
      (Math.min(of.x, 1 - of.x) * picture.widthPx) / across,
      (Math.min(of.y, 1 - of.y) * picture.heightPx) / down,
    );
  };
  const next = { ...crop, turnDegrees };
  if (room(crop) > 1.005) return heldInside(next, picture);
  const scale = room(next);
  return heldInside({ ...next, width: crop.width * scale, height: crop.height * scale }, picture);
}

/** The same part of the picture, seen turned by a quarter: clockwise, or the other way. */
export function quarterTurned(crop: Crop, picture: Size, clockwise: boolean): Crop {
  const by = crop.turnDegrees + (clockwise ? -90 : 90);
  return {
    ...crop,
    width: (crop.height * picture.heightPx) / picture.widthPx,
    height: (crop.width * picture.widthPx) / picture.heightPx,
    turnDegrees: by > 180 ? by - 360 : by <= -180 ? by + 360 : by,
  };
}

/** How much of the picture's box, as it lies under the crop's turn, is cut away on each side. */
export function sidesOf(crop: Crop, picture: Size): CropSides {
  const [across, down] = reach(picture, -crop.turnDegrees);
  const [x, y] = turned((crop.x - 0.5) * picture.widthPx, (crop.y - 0.5) * picture.heightPx, -crop.turnDegrees);
  const [w, h] = [(crop.width * picture.widthPx) / 2, (crop.height * picture.heightPx) / 2];
  return {
    left: (x - w + across) / (2 * across),
    right: (across - x - w) / (2 * across),
    top: (y - h + down) / (2 * down),
    bottom: (down - y - h) / (2 * down),
  };
}

/** The crop that cuts away so much on each side. It may reach beyond the picture where it is turned. */
export function cropOfSides(sides: CropSides, turnDegrees: number, picture: Size): Crop {
  const [across, down] = reach(picture, -turnDegrees);
  const [x, y] = turned((sides.left - sides.right) * across, (sides.top - sides.bottom) * down, turnDegrees);
  const [smallX, smallY] = [SMALLEST_SIDE_PX / (2 * across), SMALLEST_SIDE_PX / (2 * down)];
  return {
    x: 0.5 + x / picture.widthPx,
    y: 0.5 + y / picture.heightPx,
    width: (2 * across * Math.max(smallX, 1 - sides.left - sides.right)) / picture.widthPx,
    height: (2 * down * Math.max(smallY, 1 - sides.top - sides.bottom)) / picture.heightPx,
    turnDegrees,
  };
}

/** The largest crop of a shape about the middle of another. @param aspect width over height */
export function cropOfShape(crop: Crop, aspect: number, picture: Size): Crop {
  const [w, h] = [crop.width * picture.widthPx, crop.height * picture.heightPx];
  const [width, height] = w / h > aspect ? [h * aspect, h] : [w, w / aspect];
  return { ...crop, width: width / picture.widthPx, height: height / picture.heightPx };
}

/** The crop on whole pixels, so that what is read of the picture is the same at every size; null when it leaves the picture as it is. */
export function settledCrop(crop: Crop, picture: Size): Crop | null {
  const { straighten } = partsOfTurn(crop.turnDegrees);
  if (Math.abs(straighten) > 1e-6) return crop;
  const { left, top, right, bottom } = sidesOf(crop, picture);
  const onItsSide = Math.abs(partsOfTurn(crop.turnDegrees).quarter) === 90;
  const [w, h] = onItsSide ? [picture.heightPx, picture.widthPx] : [picture.widthPx, picture.heightPx];
  const whole = (share: number, of: number) => Math.min(1, Math.max(0, Math.round(share * of) / of));
  const sides = { left: whole(left, w), right: whole(right, w), top: whole(top, h), bottom: whole(bottom, h) };
  if (crop.turnDegrees === 0 && sides.left === 0 && sides.top === 0 && sides.right === 0 && sides.bottom === 0)
    return null;
  return cropOfSides(sides, partsOfTurn(crop.turnDegrees).quarter, picture);
}

/** A place on what a crop leaves, as a place on the whole picture; both in shares. */
export function placeOnPicture(
  crop: Crop,
  place: { readonly x: number; readonly y: number },
  picture: Size,
): { x: number; y: number } {
  const [x, y] = turned(
    (place.x - 0.5) * crop.width * picture.widthPx,
    (place.y - 0.5) * crop.height * picture.heightPx,
    crop.turnDegrees,
  );
  return { x: crop.x + x / picture.widthPx, y: crop.y + y / picture.heightPx };
}

/** The reverse of `placeOnPicture`. */
export function placeOnCrop(
  crop: Crop,
  place: { readonly x: number; readonly y: number },
  picture: Size,
): { x: number; y: number } {
  const [x, y] = turned((place.x - crop.x) * picture.widthPx, (place.y - crop.y) * picture.heightPx, -crop.turnDegrees);
  return { x: 0.5 + x / (crop.width * picture.widthPx), y: 0.5 + y / (crop.height * picture.heightPx) };
}

/** A move that was set by hand, kept on the same part of the picture under another crop; what lay on the picture still does. */
export function moveUnderCrop(move: Move, before: Crop | undefined, after: Crop | null, picture: Size): Move {
  if (move.kind !== 'set') return move;
  const [from, to] = [before ? cropOn(picture, before) : WHOLE_CROP, after ?? WHOLE_CROP];
  const [was, is] = [croppedSize(picture, before), croppedSize(picture, after ?? undefined)];
  const kept = (framing: Framing): Framing => {
    const place = placeOnCrop(to, placeOnPicture(from, framing, picture), picture);
    const next = {
      ...framing,
      ...place,
      width: (framing.width * was.widthPx) / is.widthPx,
      height: (framing.height * was.heightPx) / is.heightPx,
    };
    return liesInside(framing, was) ? heldInside(next, is) : next;
  };
  return {
    ...move,
    first: kept(move.first),
    last: kept(move.last),
    ...(move.middle && { middle: { ...move.middle, framing: kept(move.middle.framing) } }),
  };
}
