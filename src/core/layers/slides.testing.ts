import { planFrame, prepareShow, surroundingsOf, type PreparedShow } from '../frame/plan-frame';
import type { SlideSurroundings } from '../frame/slide-moment';
import type { FactsById, PictureFacts } from '../show/asset-facts';
import { applyEdit, type ShowEdit } from '../show/edit';
import { assetId, layerId, showId, slideId, type LayerId } from '../show/ids';
import type { Layer, PictureLayer, ShapeLayer } from '../show/layer';
import { emptyShow, type Show } from '../show/show';

export const ASSETS = ['a', 'b', 'c', 'd', 'e', 'f'].map((letter) => assetId(letter.repeat(64)));
export const PICTURE: PictureFacts = {
  kind: 'picture',
  widthPx: 3000,
  heightPx: 2000,
  hasTransparency: false,
  takenAt: null,
  camera: null,
  brightness: 0.5,
};
export const FACTS: FactsById = new Map(ASSETS.map((id) => [id, PICTURE]));
export const SMALL = { widthPx: 320, heightPx: 180 };
export const LENGTH_MS = 6000;

export const picture = (id: string, parts: Partial<PictureLayer> = {}): PictureLayer => ({
  kind: 'picture',
  id: layerId(id),
  assetId: ASSETS[0]!,
  move: { kind: 'still' },
  ...parts,
});
export const disc = (id: string, parts: Partial<ShapeLayer> = {}): ShapeLayer => ({
  kind: 'shape',
  id: layerId(id),
  shape: { kind: 'ellipse' },
  fill: { kind: 'colour', colour: '#fcfaf5' },
  channels: { width: 0.2, height: 0.3 },
  ...parts,
});

/** A show of one slide for each pile. */
export function showOf(...piles: readonly (readonly Layer[])[]): Show {
  return {
    ...emptyShow(showId('s'), 'Regatta'),
    slides: piles.map((layers, index) => ({
      id: slideId(String(index + 1)),
      lengthMs: LENGTH_MS,
      transition: { kind: 'cut' },
      backing: { kind: 'colour', colour: '#171513' },
      sounds: [],
      layers,
    })),
  };
}

export const prepared = (show: Show): PreparedShow => prepareShow(show, FACTS);
export const aroundOf = (show: Show, index = 0): SlideSurroundings => surroundingsOf(prepared(show), index, show.frame);

/** @throws when it is refused */
export function edited(show: Show, edit: ShowEdit): { show: Show; inverse: ShowEdit } {
  const result = applyEdit(show, edit);
  if (!result.ok) throw new Error(result.sentence);
  return result;
}

/** All that decides what eleven frames look like, apart from what things are called. */
export function seen(show: Show): string[] {
  const ready = prepared(show);
  return Array.from({ length: 11 }, (_, index) => drawn(planFrame(ready, (index * LENGTH_MS) / 10.01, SMALL)));
}

/** Rounded as no film can show it: numbers that went other ways to the same place differ in their last digits. */
function drawn(plan: unknown): string {
  return JSON.stringify(plan, (name, value: unknown) => {
    if (name === 'plain') return undefined;
    return typeof value === 'number' ? Math.round(value * 1e6) / 1e6 + 0 : value;
  });
}

export const ids = (...names: string[]): Set<LayerId> => new Set(names.map(layerId));
