import type { Space } from '../show/layer';
import { rotation, times4, translation, type Eye, type Matrix4 } from './matrix';
import { USUAL_DISTANCE, type SlideMoment } from './slide-moment';

/** From where layers are seen; `shift` moves everything against the camera's own shift, null outside a space. */
export interface View {
  readonly eye: Eye;
  readonly shift: Matrix4 | null;
}

/** From where what is in a space is seen: by its own camera. */
export function viewInto({ around, at }: SlideMoment, space: Space, { eye, shift }: View): View {
  const { widthPx, heightPx } = around.frame;
  const distance = Math.max(0.1, at(space.distance, USUAL_DISTANCE)) * heightPx;
  const shifted = translation(-at(space.x, 0) * widthPx, -at(space.y, 0) * heightPx, at(space.z, 0) * heightPx);
  const looks = [at(space.turnDegrees, 0), at(space.tiltXDegrees, 0), at(space.tiltYDegrees, 0)] as const;
  const camera = looks.every((angle) => angle === 0) ? shifted : times4(turnedAbout(eye, distance, looks), shifted);
  return { eye: { ...eye, distance }, shift: shift ? times4(camera, shift) : camera };
}

/** What the camera sees when it turns about itself: everything goes round it the other way. */
function turnedAbout(eye: Eye, distance: number, [turn, up, right]: readonly [number, number, number]): Matrix4 {
  const there = translation(eye.x, eye.y, distance);
  const back = translation(-eye.x, -eye.y, -distance);
  // The camera looks up by leaning what it sees down, and to its right by moving it to its left.
  return times4(there, times4(times4(rotation(-turn, 0, 0), rotation(0, up, right)), back));
}
