import { slideId, type AssetId } from '../show/ids';
import { everyLayer, withoutClip, type Layer } from '../show/layer';
import { blankSlide } from '../show/new-slide';
import type { FrameShape, Slide } from '../show/show';
import type { BuiltTransition, Transition, TransitionOverTime } from '../show/transition';
import { COMING, LEAVING } from '../show/window-id';
import { withFilesChanged } from '../show/swap-file';
import { stableText } from '../stable-text';
import { documentOf } from './keep-mount';
import type { KeptFit, MountDocument } from './mount-document';

/** A transition of the studio's own. */
export interface KeptTransition {
  readonly id: string;
  readonly name: string;
  readonly shelf: string;
  readonly transition: TransitionOverTime;
}

/** The transition a kept mount holds; null for one that holds slides. */
export function keptTransition(id: string, { holds, name, shelf, fits }: MountDocument): KeptTransition | null {
  const transition = fits[0]!.slides[0]!.transition;
  return holds && transition.kind !== 'cut' ? { id, name, shelf, transition: { ...transition, kept: id } } : null;
}

/** A transition as a file of its own, to be kept and handed on like a mount. */
export function transitionDocument(
  about: Pick<MountDocument, 'name' | 'author' | 'shelf'>,
  transition: TransitionOverTime,
  frame: FrameShape,
  fileNames: ReadonlyMap<AssetId, string>,
): MountDocument {
  const { kept: _kept, ...own } = transition;
  const fit: KeptFit = {
    name: 'transition',
    suits: 'any',
    frame: { widthPx: frame.widthPx, heightPx: frame.heightPx },
    windows: [],
    slides: [
      {
        ...blankSlide(5000, '#000000', () => 's1'),
        id: slideId('s1'),
        transition: named(own as TransitionOverTime, about.name),
      },
    ],
    words: [],
  };
  return {
    ...documentOf({ ...about, description: '', posterMs: 0, goes: 'before' }, [fit], fileNames),
    holds: 'transition',
  };
}

const named = (transition: TransitionOverTime, name: string): TransitionOverTime =>
  transition.kind === 'built' ? { ...transition, name } : transition;

/** Longest that a transition is when it is made from a slide; it is set to what is wanted afterwards. */
const USUAL_MOST_MS = 2500;

/**
 * A slide as a transition: one of its pictures is the slide that leaves, another the one that comes, whatever else lies on it goes along.
 *
 * @returns a sentence when one of them is not there
 */
export function builtFrom(slide: Slide, leaving: AssetId, coming: AssetId, name: string): BuiltTransition | string {
  const shown = new Set(
    [...everyLayer(slide.layers)].flatMap((layer) =>
      layer.kind === 'picture' || layer.kind === 'clip' ? [layer.assetId] : [],
    ),
  );
  if (leaving === coming || !shown.has(leaving) || !shown.has(coming))
    return 'A transition takes two pictures of the slide: one stands for what leaves, another for what comes.';
  const windows = new Map([
    [leaving, LEAVING],
    [coming, COMING],
  ]);
  const { layers } = withFilesChanged(
    { ...slide, layers: slide.layers.map((layer) => asFrames(layer, windows)) },
    (id) => windows.get(id) ?? id,
  );
  return {
    kind: 'built',
    name,
    lengthMs: Math.min(slide.lengthMs, USUAL_MOST_MS),
    ofMs: slide.lengthMs,
    ...(slide.backing.kind === 'colour' && { colour: slide.backing.colour }),
    layers,
  };
}

/** Frames are whole and stand still in their boxes: what was said of the pictures in them does not hold for slides. */
function asFrames(layer: Layer, windows: ReadonlyMap<AssetId, AssetId>): Layer {
  if (layer.kind === 'group') return { ...layer, layers: layer.layers.map((inner) => asFrames(inner, windows)) };
  if ((layer.kind !== 'picture' && layer.kind !== 'clip') || !windows.has(layer.assetId)) return layer;
  const { chosen: _chosen, bare: _bare, shapes: _shapes, ...rest } = layer;
  if (rest.kind === 'clip') return { ...withoutClip(rest), kind: 'picture', move: { kind: 'still' } };
  const { crop: _crop, back: _back, ...picture } = rest;
  return { ...picture, move: { kind: 'still' } };
}

/** Whether a transition is as it was kept, but for its length. */
export function isAsKept(transition: Transition, { transition: kept }: KeptTransition): boolean {
  return stableText({ ...transition, lengthMs: 0 }) === stableText({ ...kept, lengthMs: 0 });
}
