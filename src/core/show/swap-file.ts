import { unreachable } from '../unreachable';
import type { AssetId } from './ids';
import type { Layer } from './layer';
import type { PlacedSound } from './placed-sound';
import type { Show, Slide } from './show';

/** The show with one file in the place of another wherever it is used; moves, keys, light and edges stay. Slides that do not use it keep their identity. */
export function withFileSwapped(show: Show, from: AssetId, to: AssetId): Show {
  const cues = show.cues.map((cue) => swappedInSound(cue, from, to));
  return {
    ...show,
    slides: show.slides.map((slide) => swappedInSlide(slide, from, to)),
    cues: cues.some((cue, index) => cue !== show.cues[index]) ? cues : show.cues,
  };
}

function swappedInSlide(slide: Slide, from: AssetId, to: AssetId): Slide {
  const layers = slide.layers.map((layer) => swappedInLayer(layer, from, to));
  const backing =
    slide.backing.kind === 'picture' && slide.backing.assetId === from
      ? { ...slide.backing, assetId: to }
      : slide.backing;
  const { transition } = slide;
  const pattern =
    transition.kind === 'pattern' && typeof transition.pattern === 'object' && transition.pattern.assetId === from;
  const sounds = slide.sounds.map((sound) => swappedInSound(sound, from, to));
  const same =
    layers.every((layer, index) => layer === slide.layers[index]) &&
    backing === slide.backing &&
    !pattern &&
    sounds.every((sound, index) => sound === slide.sounds[index]);
  if (same) return slide;
  return {
    ...slide,
    layers,
    backing,
    sounds,
    transition: pattern ? { ...transition, pattern: { assetId: to } } : transition,
  };
}

/** Another file was not cleaned from the same recording. */
function swappedInSound(sound: PlacedSound, from: AssetId, to: AssetId): PlacedSound {
  if (sound.assetId !== from) return sound;
  const { cleaned: _cleaned, ...rest } = sound;
  return { ...rest, assetId: to };
}

function swappedInLayer(layer: Layer, from: AssetId, to: AssetId): Layer {
  switch (layer.kind) {
    case 'picture': {
      const back = layer.back?.assetId === from ? { ...layer.back, assetId: to } : layer.back;
      if (layer.assetId !== from && back === layer.back) return layer;
      return { ...layer, assetId: layer.assetId === from ? to : layer.assetId, ...(back && { back }) };
    }
    case 'clip':
    case 'drawing':
      return layer.assetId === from ? { ...layer, assetId: to } : layer;
    case 'box': {
      const sides = Object.entries(layer.faces).map(
        ([side, face]) =>
          [side, face.kind === 'picture' && face.assetId === from ? { ...face, assetId: to } : face] as const,
      );
      const changed = sides.some(([side, face]) => face !== layer.faces[side as keyof typeof layer.faces]);
      return changed ? { ...layer, faces: Object.fromEntries(sides) as typeof layer.faces } : layer;
    }
    case 'group': {
      const layers = layer.layers.map((inner) => swappedInLayer(inner, from, to));
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
