import { editBetween } from '../show/edit-between';
import type { ShowEdit } from '../show/edit';
import { slideId, type SlideId } from '../show/ids';
import type { ClipLayer, Layer, PictureLayer } from '../show/layer';
import { picturesOf } from '../show/layout';
import type { Tie } from '../show/mounted';
import { kept } from '../show/freed-sounds';
import { mapped } from '../show/pile';
import type { PlacedSound } from '../show/placed-sound';
import type { Show, Slide } from '../show/show';

/** The whole runs that some slides are part of. */
export function runsAt(show: Show, ids: readonly SlideId[]): ReadonlySet<string> {
  const wanted = new Set(ids);
  return new Set(show.slides.flatMap((slide) => (slide.mounted && wanted.has(slide.id) ? [slide.mounted.run] : [])));
}

/**
 * The show with runs taken off: what they stood for stands there again as it was, with the light and the crop that were changed on their pictures since.
 *
 * @returns also the ids of what stands there again
 */
export function withTakenOff(
  show: Show,
  runs: ReadonlySet<string>,
  newId: () => string,
): { readonly show: Show; readonly slideIds: readonly SlideId[] } {
  if (runs.size === 0) return { show, slideIds: [] };
  const present = new Set(show.slides.map(({ id }) => id));
  const back: SlideId[] = [];
  /** Where a sound goes that is tied to a slide which goes. */
  const heirs = new Map<SlideId, SlideId | null>();
  const ties: (Tie & { readonly at: SlideId })[] = [];
  const slides: Slide[] = [];
  let orphans: SlideId[] = [];
  let chapter: string | null = null;
  for (const slide of show.slides) {
    const { mounted } = slide;
    if (!mounted || !runs.has(mounted.run)) {
      for (const id of orphans) heirs.set(id, slide.id);
      orphans = [];
      slides.push(chapter !== null && slide.chapter === undefined ? { ...slide, chapter } : slide);
      chapter = null;
      continue;
    }
    const restored = mounted.before.map((below) => {
      const own = withLaterLight(below, slide);
      const id = present.has(own.id) ? slideId(newId()) : own.id;
      present.add(id);
      return id === own.id ? own : { ...own, id };
    });
    ties.push(...(mounted.ties ?? []).map((tie) => ({ ...tie, at: slide.id })));
    if (restored.length === 0) {
      orphans.push(slide.id);
      chapter = slide.chapter ?? chapter;
      continue;
    }
    heirs.set(slide.id, restored[0]!.id);
    for (const id of orphans) heirs.set(id, restored[0]!.id);
    orphans = [];
    chapter = null;
    back.push(...restored.map(({ id }) => id));
    slides.push(...restored);
  }
  // Nothing comes after them: the last there is stands for them.
  for (const id of orphans) heirs.set(id, slides.at(-1)?.id ?? null);
  const retied = (sound: PlacedSound) => tiedElsewhere(sound, heirs, ties);
  return {
    show: {
      ...show,
      slides: slides.map((slide) => withRetied(slide, retied)),
      cues: kept(show.cues, retied),
    },
    slideIds: back,
  };
}

/** Taking runs off as one step; null when none of the slides was laid by a mount. */
export function takeOffEdit(show: Show, ids: readonly SlideId[], newId: () => string): ShowEdit | null {
  const runs = runsAt(show, ids);
  const name = runs.size === 1 ? 'take a mount off' : `take ${runs.size} mounts off`;
  return runs.size === 0 ? null : editBetween(show, withTakenOff(show, runs, newId).show, name);
}

/** Pictures keep the light and the crop they were given while they were in a mount. */
function withLaterLight(below: Slide, laid: Slide): Slide {
  const now = new Map<string, PictureLayer | ClipLayer>();
  for (const layer of picturesOf(laid)) if (!now.has(layer.assetId)) now.set(layer.assetId, layer);
  const layers = mapped(below.layers, (layer): Layer => {
    if (layer.kind !== 'picture' && layer.kind !== 'clip') return layer;
    const other = now.get(layer.assetId);
    if (!other) return layer;
    let after: PictureLayer | ClipLayer = layer;
    if (other.chosen?.light === 'hand' && JSON.stringify(other.light) !== JSON.stringify(layer.light)) {
      const { light: _light, ...rest } = after;
      after = other.light ? { ...rest, light: other.light } : rest;
    }
    if (
      after.kind === 'picture' &&
      other.kind === 'picture' &&
      JSON.stringify(after.crop) !== JSON.stringify(other.crop)
    ) {
      const { crop: _crop, ...rest } = after;
      after = other.crop ? { ...rest, crop: other.crop } : rest;
    }
    return after;
  });
  return layers === below.layers ? below : { ...below, layers };
}

function tiedElsewhere(
  sound: PlacedSound,
  heirs: ReadonlyMap<SlideId, SlideId | null>,
  ties: readonly (Tie & { readonly at: SlideId })[],
): PlacedSound {
  let after = sound;
  for (const part of ['starts', 'ends'] as const) {
    const tied = sound[part];
    if (tied.at !== 'slide' || !heirs.has(tied.slideId)) continue;
    const was = ties.find((tie) => tie.soundId === sound.id && tie.part === part && tie.at === tied.slideId);
    const heir = was?.slideId ?? heirs.get(tied.slideId);
    if (heir) after = { ...after, [part]: { ...tied, slideId: heir } };
    else if (part === 'starts') after = { ...after, starts: { at: 'moment', momentMs: 0 } };
    else after = { ...after, ends: { at: 'show-end', beforeMs: 0 } };
  }
  return after;
}

/** The slide with each of its sounds as `change` says. */
export function withRetied(slide: Slide, change: (sound: PlacedSound) => PlacedSound): Slide {
  const sounds = kept(slide.sounds, change);
  return sounds === slide.sounds ? slide : { ...slide, sounds };
}
