import sharp from 'sharp';
import type { FocusFacts } from '../../core/focus/focus-facts';
import { tiltOf } from '../../core/focus/horizon';
import { salientBox, saliencyMap } from '../../core/focus/saliency';
import { finenessOf, sharpnessOf } from '../../core/focus/sharpness';
import { skySide } from '../../core/focus/sky';
import { MOST_PIXELS } from '../assets/look-at-picture';
import { openPicture } from '../assets/open-picture';
import { eyesOpen } from './find-eyes';
import { findFaces, turnForFaces, type ScoredBox } from './find-faces';
import { findSubjects, turnForSubjects } from './find-subjects';
import type { RgbPicture } from './rgb-picture';

/** Long side of the copy that is looked at. */
export const LOOKED_AT_PX = 1024;
const SALIENCY_PX = 160;
const LINES_PX = 640;
/** The largest faces of a picture are asked whether their eyes are open; in a crowd nobody looks. */
const MOST_EYES = 8;
/** A face so sure stands upright, and with it the picture. */
const SURE = 0.93;

/**
 * Finds out what a picture is about: its faces when they are sought, people and animals, what stands out, and how sharp it is. For decoder processes.
 *
 * @param asksHowItLies whether it hangs askew or lies on its side is asked as well
 */
export async function findFocus(file: string, seeksFaces = true, asksHowItLies = true): Promise<FocusFacts> {
  const picture = await smallCopy(file);
  const grey = await sharp(picture.rgb, { raw: { width: picture.widthPx, height: picture.heightPx, channels: 3 } })
    .greyscale()
    .raw()
    .toBuffer();
  const sharpness = (within?: Parameters<typeof sharpnessOf>[3]) =>
    rounded(sharpnessOf(grey, picture.widthPx, picture.heightPx, within));
  const faces = seeksFaces ? await findFaces(picture) : [];
  const subjects = await findSubjects(picture);
  const surest = Math.max(0, ...faces.map(({ score }) => score));
  const eyes = new Map<ScoredBox, number>();
  for (const face of faces.toSorted((a, b) => b.height - a.height).slice(0, MOST_EYES)) {
    const open = await eyesOpen(picture, face);
    if (open !== null) eyes.set(face, rounded(open));
  }
  const isFound = faces.length + subjects.length > 0;
  const lies = async () => {
    const byFaces = surest >= SURE || !seeksFaces ? null : await turnForFaces(picture, surest);
    const way = byFaces ?? (isFound ? null : ((await turnForSubjects(picture)) ?? turnForSky(picture)));
    return way ? { sideways: way } : tilt(picture);
  };
  return {
    faces: faces.map((face) => ({
      ...roundedBox(face),
      score: rounded(face.score),
      sharpness: sharpness(face),
      ...(eyes.has(face) && { eyes: eyes.get(face)! }),
    })),
    subjects: subjects.map((subject) => ({ ...subject, ...roundedBox(subject), score: rounded(subject.score) })),
    salient: await salient(picture, grey),
    sharpness: sharpness(),
    ...(!seeksFaces && { facesSought: false as const }),
    ...(asksHowItLies && (await lies())),
  };
}

async function smallCopy(file: string): Promise<RgbPicture> {
  const picture = await openPicture(file, LOOKED_AT_PX, { limitInputPixels: MOST_PIXELS, failOn: 'none' });
  const { data, info } = await picture
    .resize(LOOKED_AT_PX, LOOKED_AT_PX, { fit: 'inside', withoutEnlargement: true })
    .toColourspace('srgb')
    .flatten({ background: '#808080' })
    .removeAlpha()
    .raw({ depth: 'uchar' })
    .toBuffer({ resolveWithObject: true });
  const rgb =
    info.channels === 3
      ? data
      : Buffer.from(
          Array.from({ length: info.width * info.height * 3 }, (_, at) => data[Math.floor(at / 3) * info.channels]!),
        );
  return { widthPx: info.width, heightPx: info.height, rgb };
}

/** Where its sky lies at the left or at the right, how it has to be turned for that to be above. */
function turnForSky({ rgb, widthPx: width, heightPx: height }: RgbPicture): FocusFacts['sideways'] | null {
  const side = skySide({ rgb, width, height });
  return side === 'left' ? 'clockwise' : side === 'right' ? 'counter-clockwise' : null;
}

async function salient(picture: RgbPicture, grey: Uint8Array): Promise<FocusFacts['salient']> {
  const scale = SALIENCY_PX / Math.max(picture.widthPx, picture.heightPx);
  const [w, h] = [Math.max(8, Math.round(picture.widthPx * scale)), Math.max(8, Math.round(picture.heightPx * scale))];
  const small = await resizedExactly(picture, w, h);
  const box = salientBox(saliencyMap(small, w, h, finenessOf(grey, picture.widthPx, picture.heightPx, w, h)), w, h);
  return box && roundedBox(box);
}

async function tilt({ rgb, widthPx, heightPx }: RgbPicture): Promise<Pick<FocusFacts, 'tilt'>> {
  const { data, info } = await sharp(rgb, { raw: { width: widthPx, height: heightPx, channels: 3 } })
    .resize(LINES_PX, LINES_PX, { fit: 'inside', withoutEnlargement: true })
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const found = tiltOf(data, info.width, info.height);
  return found === null ? {} : { tilt: found };
}

function resizedExactly({ rgb, widthPx, heightPx }: RgbPicture, w: number, h: number): Promise<Buffer> {
  return sharp(rgb, { raw: { width: widthPx, height: heightPx, channels: 3 } })
    .resize(w, h, { fit: 'fill' })
    .raw()
    .toBuffer();
}

const rounded = (value: number) => Math.round(value * 10_000) / 10_000;
const roundedBox = ({ left, top, width, height }: { left: number; top: number; width: number; height: number }) => ({
  left: rounded(left),
  top: rounded(top),
  width: rounded(width),
  height: rounded(height),
});
