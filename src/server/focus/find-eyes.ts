import type { Box } from '../../core/focus/box';
import { loadModel } from './models';
import { squareOf, type RgbPicture } from './rgb-picture';

const MESH_PX = 192;
const EYE_PX = 64;
/** Around the face that was found, and around an eye between its corners. */
const ROUND_FACE = 1.5;
const ROUND_EYE = 2.3;
/** In pixels of the picture: lids of smaller faces cannot be told apart. */
const LEAST_FACE_PX = 36;
/** Below, what lies under the mesh is no face seen from before. */
const SURE = 0.9;
const MESH_VALUES = 3 * 468;
/** Of the mesh’s points: the outer and inner corner of each eye. The network for eyes knows left ones; the other is held up to a mirror. */
const EYES = [
  { corners: [33, 133], mirrored: false },
  { corners: [263, 362], mirrored: true },
] as const;
/** Of an eye’s contour: its corners, and pairs of points on both lids. */
const EYE_CORNERS = [0, 8] as const;
const LIDS = [
  [3, 11],
  [4, 12],
  [5, 13],
] as const;

/**
 * How far a face’s eyes are open: its corners from a mesh of the face (Kartynnik, Ablavatski, Grishchenko and Grundmann 2019), its lids from a network for eyes
 * (Ablavatski, Vakunov, Grishchenko, Raveendran and Zhdanovich 2020), as a ratio of the lids’ gap (Soukupová and Čech 2016). Weights of `@vladmandic/human`, MIT.
 *
 * @returns null where the face is too small or not seen from before
 */
export async function eyesOpen(picture: RgbPicture, face: Box): Promise<number | null> {
  const [faceW, faceH] = [face.width * picture.widthPx, face.height * picture.heightPx];
  if (faceH < LEAST_FACE_PX) return null;
  const [x, y] = [face.left * picture.widthPx + faceW / 2, face.top * picture.heightPx + faceH / 2];
  const side = ROUND_FACE * Math.max(faceW, faceH);
  const outputs = await (await loadModel('facemesh')).run(squareOf(picture, x, y, side, MESH_PX), MESH_PX);
  const mesh = outputs.find(({ length }) => length === MESH_VALUES);
  const sure = outputs.find(({ length }) => length === 1);
  if (!mesh || !sure || sure[0]! < SURE) return null;
  const scale = side / MESH_PX;
  const place = (point: number) => [
    x - side / 2 + mesh[3 * point]! * scale,
    y - side / 2 + mesh[3 * point + 1]! * scale,
  ];
  let sum = 0;
  for (const { corners, mirrored } of EYES) {
    const [[outerX, outerY], [innerX, innerY]] = [place(corners[0]), place(corners[1])] as [number[], number[]];
    const eyeSide = ROUND_EYE * Math.max(Math.abs(outerX! - innerX!), Math.abs(outerY! - innerY!));
    if (!(eyeSide > 4)) return null;
    const eye = squareOf(picture, (outerX! + innerX!) / 2, (outerY! + innerY!) / 2, eyeSide, EYE_PX);
    sum += await lidsGap(mirrored ? mirroredSquare(eye) : eye);
  }
  return Math.min(1, Math.max(0, sum / EYES.length));
}

async function lidsGap(eye: Float32Array): Promise<number> {
  const outputs = await (await loadModel('iris')).run(eye, EYE_PX);
  const contour = outputs.reduce((longest, one) => (one.length > longest.length ? one : longest));
  const apart = ([one, other]: readonly [number, number]) =>
    Math.hypot(contour[3 * one]! - contour[3 * other]!, contour[3 * one + 1]! - contour[3 * other + 1]!);
  const gap = LIDS.reduce((sum, pair) => sum + apart(pair), 0) / LIDS.length;
  return gap / Math.max(1e-6, apart(EYE_CORNERS));
}

function mirroredSquare(square: Float32Array): Float32Array {
  const mirrored = new Float32Array(square.length);
  for (let row = 0; row < EYE_PX; row += 1)
    for (let column = 0; column < EYE_PX; column += 1)
      for (let channel = 0; channel < 3; channel += 1)
        mirrored[3 * (row * EYE_PX + column) + channel] = square[3 * (row * EYE_PX + EYE_PX - 1 - column) + channel]!;
  return mirrored;
}
