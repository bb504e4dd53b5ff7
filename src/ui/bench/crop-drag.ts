import type { CropSides } from '../../core/motion/crop';

/** What of a crop is held: all of it, a side or a corner. */
export type CropHandle =
  'all' | 'left' | 'right' | 'top' | 'bottom' | 'top left' | 'top right' | 'bottom left' | 'bottom right';

const LEAST = 0.01;

/**
 * The sides of a crop after a drag, all in shares of the box it is cut from.
 *
 * @param aspect width over height (both as shares of the box) that is kept, or null
 */
export function draggedSides(
  start: CropSides,
  handle: CropHandle,
  dx: number,
  dy: number,
  aspect: number | null,
): CropSides {
  if (handle === 'all') {
    const x = Math.min(start.right, Math.max(-start.left, dx));
    const y = Math.min(start.bottom, Math.max(-start.top, dy));
    return { left: start.left + x, right: start.right - x, top: start.top + y, bottom: start.bottom - y };
  }
  const hold = (side: number, other: number) => Math.min(1 - other - LEAST, Math.max(0, side));
  const free: CropSides = {
    left: handle.includes('left') ? hold(start.left + dx, start.right) : start.left,
    right: handle.includes('right') ? hold(start.right - dx, start.left) : start.right,
    top: handle.includes('top') ? hold(start.top + dy, start.bottom) : start.top,
    bottom: handle.includes('bottom') ? hold(start.bottom - dy, start.top) : start.bottom,
  };
  return aspect === null ? free : shaped(start, free, handle, aspect);
}

/** Keeps the shape: a corner grows from the corner across, a side from the middle of the side across. */
function shaped(start: CropSides, free: CropSides, handle: CropHandle, aspect: number): CropSides {
  const [width, height] = [1 - free.left - free.right, 1 - free.top - free.bottom];
  const [across, down] = [
    handle.includes('left') || handle.includes('right'),
    handle.includes('top') || handle.includes('bottom'),
  ];
  // What the hand pulled decides; at a corner, the smaller of both.
  const wanted = across && down ? Math.min(width, height * aspect) : across ? width : height * aspect;
  const middleX = (1 + start.left - start.right) / 2;
  const middleY = (1 + start.top - start.bottom) / 2;
  const mostWidth = across
    ? 1 - (handle.includes('left') ? start.right : start.left)
    : 2 * Math.min(middleX, 1 - middleX);
  const mostHeight = down
    ? 1 - (handle.includes('top') ? start.bottom : start.top)
    : 2 * Math.min(middleY, 1 - middleY);
  const w = Math.max(LEAST, Math.min(wanted, mostWidth, mostHeight * aspect));
  const h = w / aspect;
  const [left, right] = handle.includes('left')
    ? [1 - start.right - w, start.right]
    : handle.includes('right')
      ? [start.left, 1 - start.left - w]
      : [middleX - w / 2, 1 - middleX - w / 2];
  const [top, bottom] = handle.includes('top')
    ? [1 - start.bottom - h, start.bottom]
    : handle.includes('bottom')
      ? [start.top, 1 - start.top - h]
      : [middleY - h / 2, 1 - middleY - h / 2];
  return { left, right, top, bottom };
}
