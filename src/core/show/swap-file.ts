import { unreachable } from '../unreachable';
import type { AssetId } from './ids';
import type { Layer } from './layer';
import type { PlacedSound } from './placed-sound';
import type { Show, Slide } from './show';
import type { Transition } from './transition';
import { windowNumber } from './window-id';

type Change = (id: AssetId) => AssetId;

/** The show with one file in the place of another wherever it is used; moves, keys, light and edges stay. Slides that do not use it keep their identity. */
export function withFileSwapped(show: Show, from: AssetId, to: AssetId): Show {
  const change: Change = (id) => (id === from ? to : id);
  const cues = show.cues.map((cue) => changedInSound(cue, change));
  return {
    ...show,
    slides: show.slides.map((slide) => withFilesChanged(slide, change)),
    cues: cues.some((cue, index) => cue !== show.cues[index]) ? cues : show.cues,
  };
}

/** The slide with every place that names a file as `change` says it, what lies under its mount too. One of which nothing changes keeps its identity. */
export function withFilesChanged(slide: Slide, change: Change): Slide {
  const layers = slide.layers.map((layer) => changedInLayer(layer, change));
  const backing =
    slide.backing.kind === 'picture' && change(slide.backing.assetId) !== slide.backing.assetId
      ? { ...slide.backing, assetId: change(slide.backing.assetId) }
      : slide.backing;
  const transition = changedInTransition(slide.transition, change);
  const sounds = slide.sounds.map((sound) => changedInSound(sound, change));
  const below = slide.mounted?.before.map((one) => withFilesChanged(one, change));
  const same =
    (below ?? []).every((one, index) => one === slide.mounted!.before[index]) &&
    layers.every((layer, index) => layer === slide.layers[index]) &&
    backing === slide.backing &&
    transition === slide.transition &&
    sounds.every((sound, index) => sound === slide.sounds[index]);
  if (same) return slide;
  return {
    ...slide,
    layers,
    backing,
    sounds,
    transition,
    ...(slide.mounted && { mounted: { ...slide.mounted, before: below! } }),
  };
}

/** Of one that is built of layers the frames of both slides stay what they are. */
function changedInTransition(transition: Transition, change: Change): Transition {
  if (transition.kind === 'built') {
    const ofFiles: Change = (id) => (windowNumber(id) === null ? change(id) : id);
    const layers = transition.layers.map((layer) => changedInLayer(layer, ofFiles));
    return layers.every((layer, index) => layer === transition.layers[index]) ? transition : { ...transition, layers };
  }
  if (transition.kind !== 'pattern' || typeof transition.pattern !== 'object') return transition;
  const assetId = change(transition.pattern.assetId);
  return assetId === transition.pattern.assetId ? transition : { ...transition, pattern: { assetId } };
}

/** Another file was not cleaned from the same recording. */
function changedInSound(sound: PlacedSound, change: Change): PlacedSound {
  const assetId = change(sound.assetId);
  if (assetId === sound.assetId) return sound;
  const { cleaned: _cleaned, ...rest } = sound;
  return { ...rest, assetId };
}

function changedInLayer(layer: Layer, change: Change): Layer {
  switch (layer.kind) {
    case 'picture': {
      const assetId = change(layer.assetId);
      const back = layer.back && change(layer.back.assetId);
      if (assetId === layer.assetId && back === layer.back?.assetId) return layer;
      return { ...layer, assetId, ...(back && { back: { assetId: back } }) };
    }
    case 'clip':
    case 'drawing': {
      const assetId = change(layer.assetId);
      return assetId === layer.assetId ? layer : { ...layer, assetId };
    }
    case 'box': {
      const sides = Object.entries(layer.faces).map(
        ([side, face]) =>
          [
            side,
            face.kind === 'picture' && change(face.assetId) !== face.assetId
              ? { ...face, assetId: change(face.assetId) }
              : face,
          ] as const,
      );
      const changed = sides.some(([side, face]) => face !== layer.faces[side as keyof typeof layer.faces]);
      return changed ? { ...layer, faces: Object.fromEntries(sides) as typeof layer.faces } : layer;
    }
    case 'group': {
      const layers = layer.layers.map((inner) => changedInLayer(inner, change));
      return layers.some((inner, index) => inner !== layer.layers[index]) ? { ...layer, layers } : layer;
    }
    case 'words':
    case 'shape':
    case 'gradient':
    case 'solid':
      return layer;
    default:
      return unreachable(layer);
  }
}
