import type { Framing } from '../../core/motion/framing';

interface Size {
  readonly widthPx: number;
  readonly heightPx: number;
}
interface Point {
  readonly x: number;
  readonly y: number;
}

/** Of a framing, clockwise from the upper left. */
export type Corner = 0 | 1 | 2 | 3;
export const CORNERS: readonly Corner[] = [0, 1, 2, 3];

const SMALLEST_WIDTH = 0.04;
const LARGEST_WIDTH = 10;

/** Where a framing's corner lies, in pixels of the picture. */
export function cornerOf(framing: Framing, picture: Size, corner: Corner): Point {
  const reach = reachTo(framing, picture, corner);
  return { x: framing.x * picture.widthPx + reach.x, y: framing.y * picture.heightPx + reach.y };
}

/**
 * A framing sized by a corner, its shape and turn kept: the opposite corner stays, or its middle does.
 *
 * @param to where the corner is wanted, in pixels of the picture
 */
export function sizedFraming(
  start: Framing,
  picture: Size,
  corner: Corner,
  to: Point,
  aboutMiddle: boolean,
): Pick<Framing, 'x' | 'y' | 'width' | 'height'> {
  const reach = reachTo(start, picture, corner);
  const middle = { x: start.x * picture.widthPx, y: start.y * picture.heightPx };
  const stays = aboutMiddle ? middle : { x: middle.x - reach.x, y: middle.y - reach.y };
  const whole = aboutMiddle ? reach : { x: 2 * reach.x, y: 2 * reach.y };
  const along = (to.x - stays.x) * whole.x + (to.y - stays.y) * whole.y;
  const wanted = (start.width * along) / (whole.x ** 2 + whole.y ** 2);
  const width = Math.min(LARGEST_WIDTH, Math.max(SMALLEST_WIDTH, wanted));
  const scale = width / start.width;
  const centre = aboutMiddle ? middle : { x: stays.x + reach.x * scale, y: stays.y + reach.y * scale };
  return {
    x: centre.x / picture.widthPx,
    y: centre.y / picture.heightPx,
    width,
    height: start.height * scale,
  };
}

/** From the middle of a framing to one of its corners, in pixels of the picture. */
function reachTo({ width, height, turnDegrees }: Framing, picture: Size, corner: Corner): Point {
  const across = ((corner === 0 || corner === 3 ? -1 : 1) * width * picture.widthPx) / 2;
  const down = ((corner < 2 ? -1 : 1) * height * picture.heightPx) / 2;
  const angle = (turnDegrees * Math.PI) / 180;
  return {
    x: across * Math.cos(angle) - down * Math.sin(angle),
    y: across * Math.sin(angle) + down * Math.cos(angle),
  };
}

/** Whether part of a framing lies beyond the picture, where its backing shows. */
export function leavesPicture(framing: Framing, picture: Size): boolean {
  const slack = 0.5;
  return CORNERS.some((corner) => {
    const { x, y } = cornerOf(framing, picture, corner);
    return x < -slack || y < -slack || x > picture.widthPx + slack || y > picture.heightPx + slack;
  });
}
