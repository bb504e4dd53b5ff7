/** A box on an upright picture, in shares of its sides. */
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

export const right = (box: Box) => box.left + box.width;
export const bottom = (box: Box) => box.top + box.height;
export const area = (box: Box) => box.width * box.height;
export const centre = (box: Box) => ({ x: box.left + box.width / 2, y: box.top + box.height / 2 });

/** The smallest box that holds them all. @throws {RangeError} for none */
export function around(boxes: readonly Box[]): Box {
  if (boxes.length === 0) throw new RangeError('a box around nothing');
  const left = Math.min(...boxes.map((box) => box.left));
  const top = Math.min(...boxes.map((box) => box.top));
  return {
    left,
    top,
    width: Math.max(...boxes.map(right)) - left,
    height: Math.max(...boxes.map(bottom)) - top,
  };
}

/** What two boxes share; null when they do not meet. */
export function shared(a: Box, b: Box): Box | null {
  const left = Math.max(a.left, b.left);
  const top = Math.max(a.top, b.top);
  const width = Math.min(right(a), right(b)) - left;
  const height = Math.min(bottom(a), bottom(b)) - top;
  return width > 0 && height > 0 ? { left, top, width, height } : null;
}

/** How much of a box lies within another, 0…1. */
export function shareWithin(box: Box, within: Box): number {
  const both = shared(box, within);
  return both ? area(both) / area(box) : 0;
}

/** How much two boxes are one, 0…1: what they share over what they cover. */
export function likeness(a: Box, b: Box): number {
  const both = shared(a, b);
  return both ? area(both) / (area(a) + area(b) - area(both)) : 0;
}

/** The part of a box that lies on the picture. */
export function onPicture(box: Box): Box {
  return shared(box, { left: 0, top: 0, width: 1, height: 1 }) ?? { left: 0, top: 0, width: 0, height: 0 };
}
