import { unreachable } from '../unreachable';
import type { ShowEdit } from './edit';
import type { LayerId, SlideId } from './ids';
import { everyLayer } from './layer';
import type { Show } from './show';

/** A place in a show as a path: `slides/ID/layers/ID/light`, `cues`. A place holds every place whose path begins with its own. */
export type Place = string;

/** The places an edit writes to. Adding slides writes to none that was there before. */
export function touched(edit: ShowEdit, show: Show): Place[] {
  const slide = (id: SlideId, part = '') => `slides/${id}/${part}`;
  const layer = (id: LayerId, part: string) => `${slide(slideOfLayer(show, id), 'layers/')}${id}/${part}`;
  switch (edit.kind) {
    case 'add-slides':
      return [];
    case 'remove-slides':
      return edit.slideIds.map((id) => slide(id));
    case 'move-slides':
      return edit.runs.flatMap((run) => run.slideIds.map((id) => slide(id, 'place')));
    case 'set-lengths':
      return edit.lengths.map((entry) => slide(entry.slideId, 'length'));
    case 'set-transitions':
      return edit.transitions.map((entry) => slide(entry.slideId, 'transition'));
    case 'set-words':
      return [slide(edit.slideId, `layers/${edit.layerId}/words`)];
    case 'set-move':
      return [slide(edit.slideId, `layers/${edit.layerId}/move`)];
    case 'set-crops':
      return edit.crops.flatMap((entry) => [layer(entry.layerId, 'crop'), layer(entry.layerId, 'move')]);
    case 'set-layers':
      return [slide(edit.slideId, 'layers/')];
    case 'set-light':
      return edit.lights.map((entry) => layer(entry.layerId, 'light'));
    case 'set-edge':
      return edit.edges.map((entry) => layer(entry.layerId, 'edge'));
    case 'set-backing':
      return [slide(edit.slideId, 'backing')];
    case 'set-narration':
      return [slide(edit.slideId, 'narration')];
    case 'set-cues':
      return ['cues'];
    case 'set-default-length':
      return ['pace'];
    case 'rename-show':
      return ['title'];
    case 'set-marks':
      return edit.marks.map((entry) => `marks/${entry.assetId}`);
    case 'swap-file':
      return [`files/${edit.from}`];
    case 'put-slides':
      return edit.slides.map((entry) => slide(entry.id));
    case 'set-content':
      return [''];
    case 'together':
      return edit.edits.flatMap((inner) => touched(inner, show));
    default:
      return unreachable(edit);
  }
}

/** Whether two sets of edits, made without knowing of each other, wrote to the same place, so that one has overwritten the other. */
export function collide(ours: readonly ShowEdit[], theirs: readonly ShowEdit[], show: Show): boolean {
  const there = new Set(theirs.flatMap((edit) => touched(edit, show)));
  const prefixesThere = new Set([...there].flatMap(prefixesOf));
  return ours
    .flatMap((edit) => touched(edit, show))
    .some((place) => prefixesThere.has(place) || prefixesOf(place).some((prefix) => there.has(prefix)));
}

/** The place itself and every place that holds it: those that end with a slash, and the whole show. */
function prefixesOf(place: Place): Place[] {
  const prefixes = ['', place];
  for (let at = place.indexOf('/'); at >= 0; at = place.indexOf('/', at + 1)) prefixes.push(place.slice(0, at + 1));
  return prefixes;
}

function slideOfLayer(show: Show, id: LayerId): SlideId {
  return (
    show.slides.find((slide) => [...everyLayer(slide.layers)].some((layer) => layer.id === id))?.id ?? ('' as SlideId)
  );
}
