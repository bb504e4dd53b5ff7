import { LONGEST_FRAME_SHAPE } from './limits';
import type { Framing } from '../motion/framing';
import type { Layer, Move } from './layer';
import { mapped } from './pile';
import type { FrameShape, Show } from './show';
import type { WordsPlace } from './words';

/** A frame’s shape by its sides without common divisors: “16:9”, “1:1”. */
export type ShapeName = string;
export const SHAPE_LIKE = /^[1-9]\d{0,4}:[1-9]\d{0,4}$/;

/** What is otherwise about a layer when the show is seen in another shape. A part that is left out is as it is in the show’s own. */
export interface ShapeCorrection {
  /** Of pictures and clips: the part of the file that is used. */
  readonly crop?: Framing;
  /** Of pictures; of clips one that is set. */
  readonly move?: Move;
  /** Of words. */
  readonly place?: WordsPlace;
  readonly hidden?: boolean;
}

export function shapeName({ widthPx, heightPx }: Pick<FrameShape, 'widthPx' | 'heightPx'>): ShapeName {
  const divisor = common(widthPx, heightPx);
  return `${widthPx / divisor}:${heightPx / divisor}`;
}

/** Whether text from outside names a shape of ours, and one that a frame may have. */
export function isShapeName(text: string): boolean {
  const [across, down] = text.split(':').map(Number);
  if (!SHAPE_LIKE.test(text) || !across || !down) return false;
  return Math.max(across, down) / Math.min(across, down) <= LONGEST_FRAME_SHAPE;
}

/** The even width of a frame of a shape at a height. */
export function widthFor(shape: Pick<FrameShape, 'widthPx' | 'heightPx'>, heightPx: number): number {
  return 2 * Math.round((heightPx * shape.widthPx) / shape.heightPx / 2);
}

/** A frame of a shape whose shorter side is as long as that of another; sides are even. */
export function frameOfShape(shape: ShapeName, like: FrameShape): FrameShape {
  const [across, down] = shape.split(':').map(Number) as [number, number];
  const short = Math.min(like.widthPx, like.heightPx);
  const long = 2 * Math.round((short * Math.max(across, down)) / Math.min(across, down) / 2);
  return { ...like, widthPx: across > down ? long : short, heightPx: down > across ? long : short };
}

/** The show in another shape of the frame, with what was corrected for that. In its own it is as it is; slides without corrections keep their identity. */
export function inShape<OfShow extends Show>(show: OfShow, shape: ShapeName): OfShow {
  const [across, down] = shape.split(':').map(Number) as [number, number];
  const name = shapeName({ widthPx: across, heightPx: down });
  if (name === shapeName(show.frame)) return show;
  return {
    ...show,
    frame: frameOfShape(name, show.frame),
    slides: show.slides.map((slide) => {
      const layers = mapped(slide.layers, (layer) => corrected(layer, name));
      return layers === slide.layers ? slide : { ...slide, layers };
    }),
  };
}

function corrected(layer: Layer, name: ShapeName): Layer {
  const correction = layer.shapes?.[name];
  return correction ? ({ ...layer, ...correction } as Layer) : layer;
}

/** Why a layer cannot be corrected so, as a sentence; null when it can. */
export function faultOfCorrection(layer: Layer, { crop, move, place }: ShapeCorrection): string | null {
  if (layer.kind === 'clip') {
    if (move && move.kind !== 'set') return 'a clip can be framed otherwise for a shape only by a framing that is set';
  } else if ((crop || move) && layer.kind !== 'picture')
    return 'only pictures and clips can be framed otherwise for a shape';
  return place && layer.kind !== 'words' ? 'only words can stand elsewhere for a shape' : null;
}

function common(a: number, b: number): number {
  return b === 0 ? a : common(b, a % b);
}
