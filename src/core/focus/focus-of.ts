import { area, around, onPicture, shareWithin, type Box } from './box';
import type { Focus, FocusFacts, FocusRing, FoundFace } from './focus-facts';

/** Hair above a found face, and room at its other sides, in shares of its own size. */
const ABOVE = 0.45;
const BESIDE = 0.18;
const BELOW = 0.2;
/** Faces of people who only pass by in the background are this much smaller than the largest. */
const LEAST_OF_LARGEST = 0.28;
/** A box that is nearly all of the picture tells nothing. */
const MOST_OF_PICTURE = 0.85;
/** Birds in the sky above a house are not what it is of. */
const LEAST_OF_PICTURE = 0.012;

/** A face as it must be seen: with hair and chin, as far as the picture goes. */
export function wholeFace(face: Box): Box {
  return onPicture({
    left: face.left - BESIDE * face.width,
    top: face.top - ABOVE * face.height,
    width: face.width * (1 + 2 * BESIDE),
    height: face.height * (1 + ABOVE + BELOW),
  });
}

/**
 * What a picture is about: what a person says; else its faces; else the people and animals in it; else what stands out.
 *
 * @param rings by hand; an empty list says that it is about nothing in particular
 * @param widthOverHeight of the upright picture
 * @returns null when nothing is known
 */
export function focusOf(
  facts: FocusFacts | undefined,
  rings: readonly FocusRing[] | undefined,
  widthOverHeight: number,
): Focus | null {
  const whole = (facts?.faces ?? []).map(wholeFace);
  if (rings) {
    if (rings.length === 0) return null;
    return { about: around(rings.map((ring) => boxOfRing(ring, widthOverHeight))), whole, from: 'person' };
  }
  if (!facts) return null;
  const faces = mainFaces(facts.faces);
  if (faces.length > 0) return { about: around(faces.map(wholeFace)), whole, from: 'faces' };
  const subjects = facts.subjects.filter(
    (subject) => area(subject) < MOST_OF_PICTURE && area(subject) > LEAST_OF_PICTURE,
  );
  if (subjects.length > 0) {
    const largest = Math.max(...subjects.map(area));
    const main = subjects.filter((subject) => area(subject) > 0.25 * largest);
    return { about: onPicture(around(main)), whole, from: 'subjects' };
  }
  return facts.salient && area(facts.salient) < MOST_OF_PICTURE
    ? { about: facts.salient, whole, from: 'colours' }
    : null;
}

/** Those that the picture is of, not those who pass by. */
function mainFaces(faces: readonly FoundFace[]): readonly FoundFace[] {
  const largest = Math.max(0, ...faces.map((face) => face.height));
  return faces.filter((face) => face.height >= LEAST_OF_LARGEST * largest);
}

export function boxOfRing({ x, y, radius }: FocusRing, widthOverHeight: number): Box {
  const down = radius * widthOverHeight;
  return onPicture({ left: x - radius, top: y - down, width: 2 * radius, height: 2 * down });
}

/** A ring around a box, for hands to begin with. */
export function ringAround(box: Box, widthOverHeight: number): FocusRing {
  return {
    x: box.left + box.width / 2,
    y: box.top + box.height / 2,
    radius: Math.min(0.35, Math.max(0.03, Math.sqrt((box.width * box.height) / widthOverHeight) / 2)),
  };
}

/** How many of the boxes that may not be cut a window cuts: neither all in it nor all out of it. */
export function cutCount(whole: readonly Box[], window: Box): number {
  return whole.filter((box) => {
    const share = shareWithin(box, window);
    return share > 1e-6 && share < 1 - 1e-6;
  }).length;
}
