/**
 * A rectangle on a picture that fills the frame: centre, size (fractions of the upright picture) and turn (degrees, clockwise as seen on the picture).
 * It may reach beyond the picture; there the backing shows.
 */
export interface Framing {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly turnDegrees: number;
}

/** The largest framing of the frame's shape that lies inside the picture, centred. */
export function fillFraming(pictureAspect: number, frameAspect: number): Framing {
  return pictureAspect >= frameAspect
    ? { x: 0.5, y: 0.5, width: frameAspect / pictureAspect, height: 1, turnDegrees: 0 }
    : { x: 0.5, y: 0.5, width: 1, height: pictureAspect / frameAspect, turnDegrees: 0 };
}

/** The smallest framing of the frame's shape that holds the whole picture, centred. */
export function fitFraming(pictureAspect: number, frameAspect: number): Framing {
  return pictureAspect >= frameAspect
    ? { x: 0.5, y: 0.5, width: 1, height: pictureAspect / frameAspect, turnDegrees: 0 }
    : { x: 0.5, y: 0.5, width: frameAspect / pictureAspect, height: 1, turnDegrees: 0 };
}

/** The framing scaled about its centre. */
export function scaled(framing: Framing, factor: number): Framing {
  return { ...framing, width: framing.width * factor, height: framing.height * factor };
}

/**
 * Between two framings. The size goes in equal ratios (a zoom that looks even), and the centre follows the size, so that a point which stays in place
 * in both framings stays in place all the way.
 *
 * @param progress 0…1, already eased
 */
export function betweenFramings(first: Framing, last: Framing, progress: number): Framing {
  const mix = (from: number, to: number, share: number) => from + (to - from) * share;
  const width = first.width * (last.width / first.width) ** progress;
  const height = first.height * (last.height / first.height) ** progress;
  const across = shareOfWay(first.width, last.width, width, progress);
  const down = shareOfWay(first.height, last.height, height, progress);
  return {
    x: mix(first.x, last.x, across),
    y: mix(first.y, last.y, down),
    width,
    height,
    turnDegrees: mix(first.turnDegrees, last.turnDegrees, progress),
  };
}

function shareOfWay(from: number, to: number, at: number, progress: number): number {
  return Math.abs(to - from) < 1e-6 * from ? progress : (at - from) / (to - from);
}
