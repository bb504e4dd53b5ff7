import type { FramePlan, WordsLook } from '../../core/frame/frame-plan';
import type { PreparedShow } from '../../core/frame/plan-frame';
import type { SlideSeen } from '../../core/snags/slide-seen';
import type { Kernels } from '../kernel-module';
import { createPainter, type Painter } from '../paint/paint-frame';
import type { Pixels } from '../planes/picture-planes';
import { pixelsOf } from '../planes/surface';
import type { PlateStore } from '../plates/plate-store';
import { seeFlashes } from './see-flashes';
import { seeWords } from './see-words';

/** Frames are looked at at this size of their shorter side: letters of a usual subtitle are about 15 px high. */
const SHORT_SIDE_PX = 360;

/** What looks at frames as they are drawn. */
export interface Checking {
  readonly frame: { readonly widthPx: number; readonly heightPx: number };
  /** A frame as it is seen. */
  picture(plan: FramePlan): Promise<Pixels>;
  /** How much of each pixel of a frame that is white on black is white, 0…255. */
  coverage(plan: FramePlan): Promise<Uint8Array>;
  /** By how much words are drawn smaller than was asked; of words that were drawn. */
  wordsScale(look: WordsLook): number;
  close(): void;
}

/** @param shape of the show's frame */
export function openChecking(
  kernels: Kernels,
  store: PlateStore,
  shape: { readonly widthPx: number; readonly heightPx: number },
): Checking {
  const scale = SHORT_SIDE_PX / Math.min(shape.widthPx, shape.heightPx);
  const frame = { widthPx: even(shape.widthPx * scale), heightPx: even(shape.heightPx * scale) };
  const painters = new Map<string, Painter>();
  const painterFor = ({ widthPx, heightPx }: FramePlan): Painter => {
    const key = `${widthPx} ${heightPx}`;
    const painter = painters.get(key) ?? createPainter(kernels, widthPx, heightPx);
    painters.set(key, painter);
    return painter;
  };
  /** Words mostly stand still while the picture behind them moves. */
  let last: { readonly key: string; readonly letters: Uint8Array } | null = null;
  const picture = async (plan: FramePlan): Promise<Pixels> => {
    await store.prepare(plan);
    return pixelsOf(kernels, painterFor(plan).paint(plan, store));
  };
  return {
    frame,
    picture,
    async coverage(plan) {
      const key = JSON.stringify(plan);
      if (last?.key === key) return last.letters;
      const { rgba } = await picture(plan);
      const letters = new Uint8Array(rgba.length / 4);
      for (let at = 0; at < letters.length; at += 1) letters[at] = rgba[4 * at + 1]!;
      last = { key, letters };
      return letters;
    },
    wordsScale: (look) => store.made({ kind: 'words', look, frame }, 'words')?.scale ?? 1,
    close() {
      for (const painter of painters.values()) painter.close();
    },
  };
}

const even = (px: number) => 2 * Math.round(px / 2);

/** Everything that is measured in the frames of a slide. */
export async function seeSlide(checking: Checking, prepared: PreparedShow, index: number): Promise<SlideSeen> {
  return {
    words: await seeWords(checking, prepared, index),
    flashes: await seeFlashes(checking, prepared, index),
  };
}
