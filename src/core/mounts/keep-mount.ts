import { windowId } from '../show/window-id';
import { FORMAT_VERSION } from '../show/format/version';
import { slideId, type AssetId, type LayerId } from '../show/ids';
import { everyLayer, withoutClip, type Layer } from '../show/layer';
import type { FrameShape, Slide } from '../show/show';
import { withFilesChanged } from '../show/swap-file';
import { filesIn, MOUNT_VERSION, type KeptFit, type MountDocument } from './mount-document';
import { type MountWindow, type MountWords, type Suits, type WordsFrom } from './mount';

/** A file that is seen on slides which become a mount, and whether it stays part of the design or is a window. */
export interface WindowDraft {
  readonly assetId: AssetId;
  /** What a person calls it; its number otherwise. */
  readonly name: string;
  readonly is: 'design' | 'picture' | 'backing' | 'logo';
}

/** Words on them, and whether they stay as they are or are filled from something. */
export interface WordsDraft {
  readonly slide: number;
  readonly layerId: LayerId;
  readonly part: 'title' | 'subtitle';
  readonly name: string;
  /** Null: they stay. */
  readonly from: WordsFrom | null;
}

/** The files seen on some slides, in the order they are met, each offered as a window; and their words, offered to be filled. */
export function draftsOf(slides: readonly Slide[]): { readonly windows: WindowDraft[]; readonly words: WordsDraft[] } {
  const windows = new Map<AssetId, WindowDraft>();
  const words: WordsDraft[] = [];
  slides.forEach((slide, index) => {
    const backing = slide.backing.kind === 'picture' ? slide.backing.assetId : null;
    const seen = [...everyLayer(slide.layers)].flatMap(picturesSeen);
    for (const { id, isDrawing } of seen)
      if (!windows.has(id))
        windows.set(id, {
          assetId: id,
          name: `Picture ${[...windows.values()].filter(({ is }) => is === 'picture').length + 1}`,
          is: isDrawing ? 'design' : 'picture',
        });
    if (backing && !windows.has(backing)) windows.set(backing, { assetId: backing, name: 'Backing', is: 'design' });
    for (const layer of everyLayer(slide.layers)) {
      if (layer.kind !== 'words') continue;
      for (const part of ['title', 'subtitle'] as const)
        if (layer[part].trim() !== '')
          words.push({
            slide: index,
            layerId: layer.id,
            part,
            name: `${layer.name ?? (part === 'title' ? 'Title' : 'Text')}${words.length > 1 ? ` ${words.length + 1}` : ''}`,
            from: 'words',
          });
    }
  });
  return { windows: [...windows.values()], words };
}

function picturesSeen(layer: Layer): { id: AssetId; isDrawing: boolean }[] {
  if (layer.kind === 'picture')
    return [layer.assetId, ...(layer.back ? [layer.back.assetId] : [])].map((id) => ({ id, isDrawing: false }));
  if (layer.kind === 'clip') return [{ id: layer.assetId, isDrawing: false }];
  if (layer.kind === 'drawing') return [{ id: layer.assetId, isDrawing: true }];
  if (layer.kind === 'box')
    return Object.values(layer.faces).flatMap((face) =>
      face.kind === 'picture' ? [{ id: face.assetId, isDrawing: false }] : [],
    );
  return [];
}

interface KeepFit {
  readonly name: string;
  readonly suits: Suits;
  readonly frame: FrameShape;
  readonly slides: readonly Slide[];
  readonly windows: readonly WindowDraft[];
  readonly words: readonly WordsDraft[];
}

/** Slides as a fit of a mount: windows for the pictures that are no part of the design, words without what they said where they are to be filled. */
export function fitOf({ name, suits, frame, slides, windows, words }: KeepFit): KeptFit {
  const taken = windows.filter(({ is }) => is !== 'design');
  const numbers = new Map(taken.map(({ assetId }, index) => [assetId, windowId(index + 1)]));
  const filled = new Map(
    words.filter(({ from }) => from !== null).map((one) => [`${one.slide} ${one.layerId} ${one.part}`, one]),
  );
  const designs = slides.map((slide, index): Slide => {
    const {
      mounted: _mounted,
      bare: _bare,
      chosen: _chosen,
      script: _script,
      captions: _captions,
      breath: _breath,
      chapter: _chapter,
      ...rest
    } = slide;
    // What is spoken belongs to the show it is spoken in.
    const design = {
      ...rest,
      id: slideId(`s${index + 1}`),
      sounds: slide.sounds.filter(({ kind }) => kind !== 'voice'),
    };
    return withFilesChanged(
      { ...design, layers: design.layers.map((layer) => emptied(layer, index, filled, numbers)) },
      (id) => numbers.get(id) ?? id,
    );
  });
  return {
    name,
    suits,
    frame: { widthPx: frame.widthPx, heightPx: frame.heightPx },
    windows: taken.map((draft): MountWindow => ({
      name: draft.name,
      takes: draft.is === 'design' ? 'picture' : draft.is,
      ...(needsStill(designs, numbers.get(draft.assetId)!) && { stills: true as const }),
    })),
    slides: designs,
    words: [...filled.values()].map(({ slide, layerId, part, name: called, from }): MountWords => ({
      slide,
      layerId,
      part,
      name: called,
      from: from!,
    })),
  };
}

/** A window's own crop and corrections belong to the picture that was in it; the design keeps how it moves, where a hand did not set that for the picture. */
function emptied(
  layer: Layer,
  slide: number,
  filled: ReadonlyMap<string, WordsDraft>,
  numbers: ReadonlyMap<AssetId, AssetId>,
): Layer {
  const { chosen: _chosen, bare: _bare, ...rest } = layer;
  const plain = rest as Layer;
  if (plain.kind === 'group')
    return { ...plain, layers: plain.layers.map((inner) => emptied(inner, slide, filled, numbers)) };
  if (plain.kind === 'words') {
    const said = (part: 'title' | 'subtitle') => {
      const draft = filled.get(`${slide} ${plain.id} ${part}`);
      return draft && draft.from !== 'own' ? '' : plain[part];
    };
    return { ...plain, title: said('title'), subtitle: said('subtitle') };
  }
  if (plain.kind === 'clip' && numbers.has(plain.assetId))
    return { ...withoutClip(plain), kind: 'picture', move: { kind: 'automatic' } };
  if (plain.kind === 'picture' && numbers.has(plain.assetId)) {
    const { crop: _crop, shapes: _shapes, ...picture } = plain;
    return picture;
  }
  return plain;
}

/** Whether a window stands where a clip cannot: on a back, on a side of a box, as a backing. */
function needsStill(slides: readonly Slide[], window: AssetId): boolean {
  return slides.some(
    (slide) =>
      (slide.backing.kind === 'picture' && slide.backing.assetId === window) ||
      [...everyLayer(slide.layers)].some(
        (layer) =>
          (layer.kind === 'picture' && layer.back?.assetId === window) ||
          (layer.kind === 'box' &&
            Object.values(layer.faces).some((face) => face.kind === 'picture' && face.assetId === window)),
      ),
  );
}

/** A mount of one fit; more are added to it. @param fileNames names of the files that are part of its design */
export function documentOf(
  about: Pick<MountDocument, 'name' | 'author' | 'description' | 'shelf' | 'posterMs' | 'goes'>,
  fits: readonly KeptFit[],
  fileNames: ReadonlyMap<AssetId, string>,
): MountDocument {
  const ids = [...new Set(fits.flatMap((fit) => fit.slides.flatMap(filesIn)))].filter(
    (id) => !id.startsWith(windowId(0).slice(0, 60)),
  );
  return {
    format: 'tanager-mount',
    version: MOUNT_VERSION,
    shows: FORMAT_VERSION,
    ...about,
    fits,
    files: Object.fromEntries(ids.map((id) => [id, fileNames.get(id) ?? id.slice(0, 12)])),
  };
}
