import { unreachable } from '../unreachable';
import type { AssetId, LayerId, SlideId } from './ids';
import type { Mark } from './mark';
import { takeOut, putIn, type PlacedSlides } from './order';
import { contentOf, type Backing, type Cue, type Narration, type Show, type ShowContent, type Slide } from './show';
import type { Framing } from '../motion/framing';
import { withFileSwapped } from './swap-file';
import { everyLayer, type Edge, type Layer, type Move, type WordsLayer } from './layer';
import { withLayers } from './with-layers';
import type { Light } from './light';
import type { Transition } from './transition';
import { withWords } from './words-of-slide';

/** A change to a show as data: small, sent to the server as it is, and always answered by another edit that undoes it. */
export type ShowEdit =
  | { readonly kind: 'add-slides'; readonly runs: readonly PlacedSlides[] }
  | { readonly kind: 'remove-slides'; readonly slideIds: readonly SlideId[] }
  | {
      readonly kind: 'move-slides';
      readonly runs: readonly { readonly slideIds: readonly SlideId[]; readonly afterId: SlideId | null }[];
    }
  | {
      readonly kind: 'set-lengths';
      readonly lengths: readonly { readonly slideId: SlideId; readonly lengthMs: number }[];
    }
  | {
      readonly kind: 'set-transitions';
      readonly transitions: readonly { readonly slideId: SlideId; readonly transition: Transition }[];
    }
  | {
      readonly kind: 'set-words';
      readonly slideId: SlideId;
      readonly layerId: LayerId;
      readonly words: WordsText | null;
    }
  | { readonly kind: 'set-move'; readonly slideId: SlideId; readonly layerId: LayerId; readonly move: Move }
  /** What is used of pictures' files, and the moves as they are under it (see `moveUnderCrop`). */
  | {
      readonly kind: 'set-crops';
      readonly crops: readonly { readonly layerId: LayerId; readonly crop: Framing | null; readonly move: Move }[];
    }
  /** Everything on a slide, for work that goes beyond one picture and its words. */
  | { readonly kind: 'set-layers'; readonly slideId: SlideId; readonly layers: readonly Layer[] }
  | {
      readonly kind: 'set-light';
      readonly lights: readonly { readonly layerId: LayerId; readonly light: Light | null }[];
    }
  | { readonly kind: 'set-edge'; readonly edges: readonly { readonly layerId: LayerId; readonly edge: Edge | null }[] }
  | { readonly kind: 'set-backing'; readonly slideId: SlideId; readonly backing: Backing }
  | { readonly kind: 'set-narration'; readonly slideId: SlideId; readonly narration: Narration | null }
  | { readonly kind: 'set-cues'; readonly cues: readonly Cue[] }
  | { readonly kind: 'set-default-length'; readonly lengthMs: number }
  | { readonly kind: 'rename-show'; readonly title: string }
  | { readonly kind: 'set-marks'; readonly marks: readonly { readonly assetId: AssetId; readonly mark: Mark | null }[] }
  /** Another file wherever this one is used, as it is framed, keyed and lit. */
  | { readonly kind: 'swap-file'; readonly from: AssetId; readonly to: AssetId }
  /** Whole slides in the place of those with the same ids. */
  | { readonly kind: 'put-slides'; readonly slides: readonly Slide[] }
  /** The show as a version kept it. */
  | { readonly kind: 'set-content'; readonly content: ShowContent }
  /** Several edits as one step: all of them or none. `name` is what it does, as an order: “cut 3 slides”. */
  | { readonly kind: 'together'; readonly name: string; readonly edits: readonly ShowEdit[] };

/** What a words layer says, how it looks and how it comes and goes. */
export type WordsText = Pick<WordsLayer, 'title' | 'subtitle' | 'place' | 'style' | 'come' | 'travel'>;

export type EditRefusal = 'slide-not-found' | 'layer-not-found' | 'slide-already-there' | 'file-not-used';

/** `inverse` applied to `show` gives back the show as it was. */
export type EditResult =
  | { readonly ok: true; readonly show: Show; readonly inverse: ShowEdit }
  | { readonly ok: false; readonly reason: EditRefusal };

/**
 * Applies one edit. Slides it does not touch keep their identity. What names several slides or layers is done to those that are still there
 * (others may have been removed in another tab) and refused only when none is.
 */
export function applyEdit(show: Show, edit: ShowEdit): EditResult {
  switch (edit.kind) {
    case 'add-slides': {
      const present = new Set(show.slides.map((slide) => slide.id));
      const added = edit.runs.flatMap((run) => run.slides);
      for (const slide of added) {
        if (present.has(slide.id)) return refused('slide-already-there');
        present.add(slide.id);
      }
      return done(
        { ...show, slides: putIn(show.slides, edit.runs) },
        { kind: 'remove-slides', slideIds: added.map((slide) => slide.id) },
      );
    }
    case 'remove-slides': {
      const taken = takeOut(show.slides, edit.slideIds);
      if (!taken) return refused('slide-not-found');
      return done({ ...show, slides: taken.rest }, { kind: 'add-slides', runs: taken.runs });
    }
    case 'move-slides': {
      const byId = new Map(show.slides.map((slide) => [slide.id, slide]));
      const taken = takeOut(
        show.slides,
        edit.runs.flatMap((run) => run.slideIds),
      );
      if (!taken) return refused('slide-not-found');
      const placed = edit.runs.map((run) => ({
        afterId: run.afterId,
        slides: run.slideIds.flatMap((id) => byId.get(id) ?? []),
      }));
      const back = taken.runs.map((run) => ({ afterId: run.afterId, slideIds: run.slides.map((slide) => slide.id) }));
      return done({ ...show, slides: putIn(taken.rest, placed) }, { kind: 'move-slides', runs: back });
    }
    case 'set-lengths': {
      const wanted = new Map(edit.lengths.map((entry) => [entry.slideId, entry.lengthMs]));
      const before = show.slides.filter((slide) => wanted.has(slide.id));
      if (before.length === 0) return refused('slide-not-found');
      return done(
        changeSlides(show, wanted, (slide, lengthMs) => ({ ...slide, lengthMs })),
        { kind: 'set-lengths', lengths: before.map((slide) => ({ slideId: slide.id, lengthMs: slide.lengthMs })) },
      );
    }
    case 'set-transitions': {
      const wanted = new Map(edit.transitions.map((entry) => [entry.slideId, entry.transition]));
      const before = show.slides.filter((slide) => wanted.has(slide.id));
      if (before.length === 0) return refused('slide-not-found');
      return done(
        changeSlides(show, wanted, (slide, transition) => ({ ...slide, transition })),
        {
          kind: 'set-transitions',
          transitions: before.map((slide) => ({ slideId: slide.id, transition: slide.transition })),
        },
      );
    }
    case 'set-words': {
      const slide = slideOf(show, edit.slideId);
      if (!slide) return refused('slide-not-found');
      const changed = withWords(slide, edit.layerId, edit.words);
      // What is removed may have had more to it than its words.
      return done(
        putSlide(show, changed.slide),
        edit.words
          ? { ...edit, words: changed.before }
          : { kind: 'set-layers', slideId: slide.id, layers: slide.layers },
      );
    }
    case 'set-move': {
      const slide = slideOf(show, edit.slideId);
      if (!slide) return refused('slide-not-found');
      const layer = slide.layers.find((candidate) => candidate.id === edit.layerId);
      if (layer?.kind !== 'picture') return refused('layer-not-found');
      const layers = slide.layers.map((candidate) => (candidate === layer ? { ...layer, move: edit.move } : candidate));
      return done(putSlide(show, { ...slide, layers }), { ...edit, move: layer.move });
    }
    case 'set-crops': {
      const wanted = new Map(edit.crops.map((entry) => [entry.layerId, entry]));
      const before = layersOf(show, wanted)?.filter((layer) => layer.kind === 'picture');
      if (!before || before.length === 0) return refused('layer-not-found');
      return done(withLayers(show, wanted, withCrop), {
        kind: 'set-crops',
        crops: before.map((layer) => ({ layerId: layer.id, crop: layer.crop ?? null, move: layer.move })),
      });
    }
    case 'set-layers': {
      const slide = slideOf(show, edit.slideId);
      if (!slide) return refused('slide-not-found');
      return done(putSlide(show, { ...slide, layers: edit.layers }), { ...edit, layers: slide.layers });
    }
    case 'set-light': {
      const wanted = new Map(edit.lights.map((entry) => [entry.layerId, entry.light]));
      const before = layersOf(show, wanted);
      if (!before) return refused('layer-not-found');
      return done(withLayers(show, wanted, withLight), {
        kind: 'set-light',
        lights: before.map((layer) => ({ layerId: layer.id, light: layer.light ?? null })),
      });
    }
    case 'set-edge': {
      const wanted = new Map(edit.edges.map((entry) => [entry.layerId, entry.edge]));
      const before = layersOf(show, wanted);
      if (!before) return refused('layer-not-found');
      return done(withLayers(show, wanted, withEdge), {
        kind: 'set-edge',
        edges: before.map((layer) => ({ layerId: layer.id, edge: layer.edge ?? null })),
      });
    }
    case 'set-backing': {
      const slide = slideOf(show, edit.slideId);
      if (!slide) return refused('slide-not-found');
      return done(putSlide(show, { ...slide, backing: edit.backing }), { ...edit, backing: slide.backing });
    }
    case 'set-narration': {
      const slide = slideOf(show, edit.slideId);
      if (!slide) return refused('slide-not-found');
      return done(putSlide(show, { ...slide, narration: edit.narration }), { ...edit, narration: slide.narration });
    }
    case 'set-cues':
      return done({ ...show, cues: edit.cues }, { kind: 'set-cues', cues: show.cues });
    case 'set-default-length':
      return done(
        { ...show, defaultLengthMs: edit.lengthMs },
        { kind: 'set-default-length', lengthMs: show.defaultLengthMs },
      );
    case 'rename-show':
      return done({ ...show, title: edit.title }, { kind: 'rename-show', title: show.title });
    case 'set-marks': {
      const before = edit.marks.map(({ assetId }) => ({ assetId, mark: show.marks?.[assetId] ?? null }));
      return done(withMarks(show, edit.marks), { kind: 'set-marks', marks: before });
    }
    case 'swap-file': {
      const swapped = withFileSwapped(show, edit.from, edit.to);
      const before = show.slides.filter((slide, index) => slide !== swapped.slides[index]);
      if (before.length === 0 && swapped.cues === show.cues) return refused('file-not-used');
      const back: ShowEdit[] = [
        ...(before.length > 0 ? [{ kind: 'put-slides', slides: before } as const] : []),
        ...(swapped.cues === show.cues ? [] : [{ kind: 'set-cues', cues: show.cues } as const]),
      ];
      return done(swapped, { kind: 'together', name: 'swap a file', edits: back });
    }
    case 'put-slides': {
      const wanted = new Map(edit.slides.map((slide) => [slide.id, slide]));
      const before = show.slides.filter((slide) => wanted.has(slide.id));
      if (before.length === 0) return refused('slide-not-found');
      return done(
        changeSlides(show, wanted, (_before, after) => after),
        { kind: 'put-slides', slides: before },
      );
    }
    case 'set-content':
      return done(
        { format: show.format, version: show.version, id: show.id, ...edit.content },
        { kind: 'set-content', content: contentOf(show) },
      );
    case 'together':
      return applyTogether(show, edit.name, edit.edits);
    default:
      return unreachable(edit);
  }
}

function applyTogether(show: Show, name: string, edits: readonly ShowEdit[]): EditResult {
  let after = show;
  const inverses: ShowEdit[] = [];
  for (const edit of edits) {
    const result = applyEdit(after, edit);
    if (!result.ok) return result;
    after = result.show;
    inverses.unshift(result.inverse);
  }
  return done(after, { kind: 'together', name, edits: inverses });
}

function withMarks(show: Show, changes: readonly { readonly assetId: AssetId; readonly mark: Mark | null }[]): Show {
  const marks: Record<string, Mark> = { ...show.marks };
  for (const { assetId, mark } of changes) {
    if (mark) marks[assetId] = mark;
    else delete marks[assetId];
  }
  const { marks: _before, ...rest } = show;
  return Object.keys(marks).length === 0 ? rest : { ...rest, marks };
}

function done(show: Show, inverse: ShowEdit): EditResult {
  return { ok: true, show, inverse };
}

function refused(reason: EditRefusal): EditResult {
  return { ok: false, reason };
}

/** The layers named, wherever they are; null when none is there. */
function layersOf(show: Show, wanted: ReadonlyMap<LayerId, unknown>): Layer[] | null {
  const found = show.slides.flatMap((slide) => [...everyLayer(slide.layers)].filter((layer) => wanted.has(layer.id)));
  return found.length > 0 ? found : null;
}

function withCrop(layer: Layer, { crop, move }: { readonly crop: Framing | null; readonly move: Move }): Layer {
  if (layer.kind !== 'picture') return layer;
  const { crop: _before, ...rest } = layer;
  return crop ? { ...rest, move, crop } : { ...rest, move };
}

function withLight(layer: Layer, light: Light | null): Layer {
  const { light: _before, ...rest } = layer;
  return light ? ({ ...rest, light } as Layer) : (rest as Layer);
}

function withEdge(layer: Layer, edge: Edge | null): Layer {
  const { edge: _before, ...rest } = layer;
  return edge ? ({ ...rest, edge } as Layer) : (rest as Layer);
}

function slideOf(show: Show, id: SlideId): Slide | undefined {
  return show.slides.find((slide) => slide.id === id);
}

function putSlide(show: Show, changed: Slide): Show {
  return { ...show, slides: show.slides.map((slide) => (slide.id === changed.id ? changed : slide)) };
}

function changeSlides<Value>(
  show: Show,
  wanted: ReadonlyMap<SlideId, Value>,
  change: (slide: Slide, value: Value) => Slide,
): Show {
  return {
    ...show,
    slides: show.slides.map((slide) => (wanted.has(slide.id) ? change(slide, wanted.get(slide.id)!) : slide)),
  };
}
