import { prepareShow, surroundingsOf } from '../frame/plan-frame';
import type { SlideSurroundings } from '../frame/slide-moment';
import { cropOn, placeOnCrop, placeOnPicture, WHOLE_CROP } from '../motion/crop';
import type { FactsById } from '../show/asset-facts';
import { applyEdit, type ShowEdit } from '../show/edit';
import { editSentence } from '../show/edit-sentence';
import type { GroupLayer, Layer } from '../show/layer';
import { layerIn } from '../show/pile';
import type { Show, Slide } from '../show/show';
import { faultOfLoupe, loupe, loupePlanOf, type LoupePlan } from './loupe';
import { withItsLooks } from './made-again';

/**
 * An edit with what it asks of loupes: one whose picture is framed or cropped otherwise is laid over it anew, at the same places of the picture. Both are one step.
 * Loupes that were changed by hand, and those the edit itself changes, are left alone.
 */
export function withItsLoupes(show: Show, facts: FactsById, edit: ShowEdit): ShowEdit {
  if (!show.slides.some((slide) => loupesOn(slide).length > 0)) return edit;
  const result = applyEdit(show, edit);
  if (!result.ok) return edit;
  const before = new Map(show.slides.map((slide, index) => [slide.id, { slide, index }]));
  const laid = result.show.slides.flatMap((slide, index): ShowEdit[] => {
    const was = before.get(slide.id);
    if (!was || was.slide === slide) return [];
    return loupesOn(was.slide).flatMap((group): ShowEdit[] => {
      const baseId = group.tether!.to;
      const base = layerIn(slide.layers, baseId);
      if (!base || base === layerIn(was.slide.layers, baseId) || layerIn(slide.layers, group.id) !== group) return [];
      const around = surroundingsOf(prepareShow(show, facts), was.index, show.frame);
      const plan = loupePlanOf(around, group);
      const after = surroundingsOf(prepareShow(result.show, facts), index, result.show.frame);
      const layer = plan && laidAgain(around, after, group, plan);
      return layer ? [{ kind: 'put-layer', slideId: slide.id, layer }] : [];
    });
  });
  return laid.length === 0 ? edit : { kind: 'together', name: editSentence(edit), edits: [edit, ...laid] };
}

/** Groups that follow a picture, as loupes do. */
export function loupesOn(slide: Slide): GroupLayer[] {
  return slide.layers.filter((layer): layer is GroupLayer => layer.kind === 'group' && layer.tether !== undefined);
}

/**
 * A loupe laid over its picture as that stands now, at the same places of it.
 *
 * @param around the slide as the loupe was made on it
 * @param plan of the loupe there
 * @returns null when it can no longer lie on what it lay on
 */
export function laidAgain(
  around: SlideSurroundings,
  after: SlideSurroundings,
  group: GroupLayer,
  plan: LoupePlan,
): GroupLayer | null {
  const [before, base] = [around, after].map(({ slide }) => layerIn(slide.layers, group.tether!.to));
  if (!base || faultOfLoupe(after, base) !== null) return null;
  const places = placesUnder(plan, before ?? null, base, after.facts);
  const made = loupe(after, base, { ...plan, places }, group.id);
  return withItsLooks(made, group);
}

/** The same places of the file's picture, however it is cropped now. */
function placesUnder(plan: LoupePlan, before: Layer | null, after: Layer, facts: FactsById): LoupePlan['places'] {
  const known = 'assetId' in after ? facts.get(after.assetId) : undefined;
  if (before?.kind !== 'picture' || after.kind !== 'picture' || known?.kind !== 'picture') return plan.places;
  if (before.crop === after.crop) return plan.places;
  const [from, to] = [before.crop, after.crop].map((crop) => (crop ? cropOn(known, crop) : WHOLE_CROP));
  return plan.places.map((place) => {
    const { x, y } = placeOnCrop(to!, placeOnPicture(from!, place, known), known);
    return { x: Math.min(1, Math.max(0, x)), y: Math.min(1, Math.max(0, y)) };
  });
}
