import { onPicture } from '../../core/focus/box';
import type { FoundSubject } from '../../core/focus/focus-facts';
import { distinct } from './find-faces';
import { loadModel } from './models';
import { resized, type RgbPicture } from './rgb-picture';

const SIDE = 512;
const LEAST_SCORE = 0.45;
const SAME = 0.6;
const PERSON = 0;
/** Of the names the network knows (COCO), those of animals, by number: bird, cat, dog, horse, sheep, cow, elephant, bear, zebra, giraffe. */
const ANIMALS = { first: 14, last: 23 };

/** People and animals by CenterNet (Zhou, Wang and Krähenbühl 2019; weights of `@vladmandic/human`, MIT). Which animal is often wrong and is not said. */
export async function findSubjects(picture: RgbPicture): Promise<FoundSubject[]> {
  const model = await loadModel('centernet');
  const input = await resized(picture, { left: 0, top: 0, width: 1, height: 1 }, SIDE, SIDE, SIDE);
  const [detections] = await model.run(Float32Array.from(input), SIDE, 'tower_0/detections');
  const found: FoundSubject[] = [];
  for (let at = 0; at + 5 < detections!.length; at += 6) {
    const [x1, y1, x2, y2, score, name] = detections!.subarray(at, at + 6) as unknown as [
      number,
      number,
      number,
      number,
      number,
      number,
    ];
    const isAnimal = name >= ANIMALS.first && name <= ANIMALS.last;
    if (score < LEAST_SCORE || (name !== PERSON && !isAnimal) || x2 <= x1 || y2 <= y1) continue;
    const box = onPicture({ left: x1 / SIDE, top: y1 / SIDE, width: (x2 - x1) / SIDE, height: (y2 - y1) / SIDE });
    if (box.width > 0 && box.height > 0) found.push({ ...box, score, kind: isAnimal ? 'animal' : 'person' });
  }
  return distinct(found, SAME);
}
