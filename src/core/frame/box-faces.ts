import type { BoxFace, BoxLayer, BoxSide } from '../show/layer';
import { rotation, scaling, times4, translation, type Matrix4 } from './matrix';

/** The six faces of a box in space, each a unit square whose front looks outwards. `box` takes the front's unit square, in the box's middle plane, to space. */
export function boxFaces(
  layer: BoxLayer,
  box: Matrix4,
  depthPx: number,
): { side: BoxSide; face: BoxFace; box: Matrix4; aspect: number }[] {
  const width = Math.hypot(box[0]!, box[4]!, box[8]!);
  const height = Math.hypot(box[1]!, box[5]!, box[9]!);
  // The box's own pixels about its middle, without its stretch.
  const middle = times4(box, times4(translation(0.5, 0.5, 0), scaling(1 / width, 1 / height, 1)));
  const depth = Math.max(1e-6, depthPx);
  const face = (side: BoxSide, turn: Matrix4, out: number, w: number, h: number) => ({
    side,
    face: layer.faces[side],
    aspect: w / h,
    box: times4(
      middle,
      times4(turn, times4(translation(0, 0, out), times4(scaling(w, h, 1), translation(-0.5, -0.5, 0)))),
    ),
  });
  return [
    face('front', rotation(0, 0, 0), depth / 2, width, height),
    face('back', rotation(0, 0, 180), depth / 2, width, height),
    face('right', rotation(0, 0, 90), width / 2, depth, height),
    face('left', rotation(0, 0, -90), width / 2, depth, height),
    face('bottom', rotation(0, -90, 0), height / 2, width, depth),
    face('top', rotation(0, 90, 0), height / 2, width, depth),
  ];
}
