import { valueAt, type Channel } from '../keys/channel';
import { colourAt, type ColourChannel } from '../keys/colour';
import type { LayerId } from '../show/ids';
import type { Layer } from '../show/layer';
import type { SlideSpan } from '../timing/slide-span';
import type { FieldValues } from '../words/fields';
import { layerPoses, type LayerPoses, type PoseSurroundings } from './layer-poses';
import type { Eye } from './matrix';

/** From where a layer with no space of its own is seen, in heights of the frame. */
export const USUAL_DISTANCE = 2.5;

/** What is planned before one moment is: how large layers get, by layer, and the masks of the slide. */
export interface SlideSurroundings extends PoseSurroundings {
  readonly span: SlideSpan;
  readonly masks: ReadonlyMap<LayerId, readonly Layer[]>;
  /** What the fields of its words say. */
  readonly fields: FieldValues;
  /** Largest width and height of a box on the screen during the slide, in pixels; filled as layers ask. */
  readonly largest: Map<string, { readonly widthPx: number; readonly heightPx: number }>;
}

/** A slide at one moment: what everything that plans its layers asks. */
export interface SlideMoment {
  readonly around: SlideSurroundings;
  readonly offsetMs: number;
  readonly poses: LayerPoses;
  readonly usualEye: Eye;
  /** A channel’s value now. */
  at(channel: Channel | undefined, usual: number): number;
  /** A colour now. */
  colour(channel: ColourChannel): string;
}

export function slideMoment(around: SlideSurroundings, offsetMs: number): SlideMoment {
  return {
    around,
    offsetMs,
    poses: layerPoses(around, offsetMs),
    usualEye: usualEye(around.frame),
    at: (channel, usual) => (channel === undefined ? usual : valueAt(channel, offsetMs, around.seenMs)),
    colour: (channel) => colourAt(channel, offsetMs, around.seenMs),
  };
}

export function usualEye({ widthPx, heightPx }: SlideSurroundings['frame']): Eye {
  return { x: widthPx / 2, y: heightPx / 2, distance: USUAL_DISTANCE * heightPx };
}
