import { surroundingsOf, type PreparedShow } from '../frame/plan-frame';
import { withHeldMove } from '../motion/held-move';
import { withChooser } from '../show/chosen';
import type { ShowEdit } from '../show/edit';
import { slideId, type AssetId, type LayerId, type SlideId } from '../show/ids';
import type { GroupLayer, Layer } from '../show/layer';
import { gatheredSlide, picturesOf } from '../show/layout';
import { blankSlide } from '../show/new-slide';
import { layerIn, withChanged } from '../show/pile';
import type { Slide } from '../show/show';
import { lanterns, lanternsNeedMs, type LanternsPlan } from './lanterns';
import { faultOfLoupe, loupe, loupeNeedsMs, type LoupePlan } from './loupe';
import { withItsLooks } from './made-again';
import { turnover, turnoverNeedsMs, type TurnoverPlan } from './turnover';

/** A build as one step to be undone, or why it cannot be made, as a sentence. */
export type Built =
  | { readonly ok: true; readonly edit: ShowEdit; readonly layerId: LayerId; readonly slideId: SlideId }
  | { readonly ok: false; readonly sentence: string };

const no = (sentence: string): Built => ({ ok: false, sentence });

/** A loupe over a picture of a slide. The picture keeps moving as it does now, for good; the slide is made long enough. */
export function makeLoupe(prepared: PreparedShow, slide: Slide, baseId: LayerId, plan: LoupePlan, id: LayerId): Built {
  const index = prepared.show.slides.findIndex((other) => other.id === slide.id);
  const base = layerIn(slide.layers, baseId);
  if (index < 0 || !base) return no('That picture is not there any more.');
  if (plan.places.length === 0) return no('Click on the picture where the loupe is to go.');
  const around = surroundingsOf(prepared, index, prepared.show.frame);
  const fault = faultOfLoupe(around, base);
  if (fault) return no(fault);
  const edits: ShowEdit[] = [];
  const held = withHeldMove(base, prepared.moves.get(slide.id)?.get(base.id));
  if (held !== base) edits.push({ kind: 'put-layer', slideId: slide.id, layer: held });
  const made = loupe(around, base, plan, id);
  edits.push(
    layerIn(slide.layers, id)
      ? { kind: 'put-layer', slideId: slide.id, layer: likeBefore(layerIn(slide.layers, id)!, made) }
      : { kind: 'add-layers', slideId: slide.id, runs: [{ into: null, aboveId: base.id, layers: [made] }] },
    ...longEnough(prepared, index, loupeNeedsMs(plan)),
  );
  const name = layerIn(slide.layers, id) ? 'change the loupe' : 'lay a loupe over the picture';
  return { ok: true, edit: { kind: 'together', name, edits }, layerId: id, slideId: slide.id };
}

/** What a person changed of a loupe that is still one: its name and how its parts look. */
function likeBefore(before: Layer, made: GroupLayer): GroupLayer {
  return before.kind === 'group' ? withItsLooks(made, before) : made;
}

/** A picture that turns over. Its back is another picture of the slide, which is taken off, or any file. */
export function makeTurnover(prepared: PreparedShow, slide: Slide, frontId: LayerId, plan: TurnoverPlan): Built {
  const index = prepared.show.slides.findIndex((other) => other.id === slide.id);
  const front = layerIn(slide.layers, frontId);
  if (index < 0 || front?.kind !== 'picture') return no('Choose the picture that is to turn over.');
  const other = picturesOf(slide).find((layer) => layer.id !== frontId && layer.assetId === plan.back);
  const edits: ShowEdit[] = [{ kind: 'put-layer', slideId: slide.id, layer: turnover(front, plan) }];
  if (other) edits.push({ kind: 'remove-layers', slideId: slide.id, layerIds: [other.id] });
  edits.push(...longEnough(prepared, index, turnoverNeedsMs(plan)));
  return {
    ok: true,
    edit: { kind: 'together', name: 'let the picture turn over', edits },
    layerId: front.id,
    slideId: slide.id,
  };
}

/** Two slides of the running order as one picture that turns over: the first is its front, the second its back. */
export function turnoverOfSlides(
  prepared: PreparedShow,
  ids: readonly SlideId[],
  plan: Omit<TurnoverPlan, 'back'>,
): Built {
  const gathered = gatheredSlide(prepared.show, ids);
  if (!gathered)
    return no('These cannot become one slide: only one of them may have words, and none other layers than pictures.');
  const [front, back] = gathered.pictures;
  if (gathered.pictures.length !== 2 || front?.kind !== 'picture' || back?.kind !== 'picture')
    return no('A turnover needs two pictures: choose two slides with one each.');
  const whole = { ...plan, back: back.assetId };
  const turned = withChanged(gathered.slide.layers, new Map([[front.id, whole]]), (layer, how) =>
    layer.kind === 'picture' ? turnover(layer, how) : layer,
  );
  const lengthMs = Math.max(gathered.slide.lengthMs, turnoverNeedsMs(whole));
  return {
    ok: true,
    layerId: front.id,
    slideId: gathered.slide.id,
    edit: {
      kind: 'together',
      name: 'let one picture turn over into the other',
      edits: [
        ...gone(gathered.goneIds),
        { kind: 'put-slides', slides: [lasting({ ...gathered.slide, lengthMs, layers: turned })] },
      ],
    },
  };
}

/** Where lanterns go: on a slide of their own after the chosen ones, or in the place of these. */
export type LanternsPlace = 'after' | 'instead';

/**
 * Pictures of slides as lanterns on one slide.
 *
 * @param place `instead`: what else was on the first of the slides, such as its words, stays above the lanterns
 */
export function lanternsOfSlides(
  prepared: PreparedShow,
  ids: readonly SlideId[],
  plan: LanternsPlan,
  backing: AssetId | null,
  id: LayerId,
  place: LanternsPlace,
): Built {
  const { show } = prepared;
  const behind: Slide['backing'] = backing ? { kind: 'picture', assetId: backing } : NIGHT;
  const name = `make ${plan.pictures.length} lanterns`;
  if (place === 'after') {
    const last = show.slides.findLast((slide) => ids.includes(slide.id));
    const own = slideId(`${id}-slide`);
    const slide = lasting({
      ...blankSlide(lanternsNeedMs(plan), '#171513', () => own),
      layers: [lanterns(plan, show.frame, id)],
      backing: behind,
    });
    return {
      ok: true,
      layerId: id,
      slideId: own,
      edit: {
        kind: 'together',
        name,
        edits: [{ kind: 'add-slides', runs: [{ afterId: last?.id ?? null, slides: [slide] }] }],
      },
    };
  }
  const gathered = gatheredSlide(show, ids);
  if (!gathered)
    return no('These cannot become one slide: only one of them may have words, and none other layers than pictures.');
  const made = lanterns(plan, show.frame, id);
  const others = gathered.slide.layers.filter((layer) => layer.kind !== 'picture' && layer.kind !== 'clip');
  const slide = lasting({
    ...gathered.slide,
    lengthMs: Math.max(gathered.slide.lengthMs, lanternsNeedMs(plan)),
    layers: [made, ...others],
    backing: behind,
  });
  return {
    ok: true,
    layerId: id,
    slideId: slide.id,
    edit: {
      kind: 'together',
      name,
      edits: [...gone(gathered.goneIds), { kind: 'put-slides', slides: [slide] }],
    },
  };
}

/** A slide whose length is held: what is on it needs the time, whatever the music says. */
function lasting(slide: Slide): Slide {
  return withChooser(slide, 'length', 'hand');
}

/** Behind lanterns that were given nothing else. */
const NIGHT: Slide['backing'] = {
  kind: 'gradient',
  gradient: {
    kind: 'linear',
    angleDegrees: 90,
    stops: [
      { at: 0, colour: '#171513' },
      { at: 1, colour: '#3a2f3f' },
    ],
  },
};

/** The pictures of slides, in order: what lanterns can be made of. */
export function picturesOfSlides(slides: readonly Slide[], isPicture: (asset: AssetId) => boolean): AssetId[] {
  return slides
    .flatMap(picturesOf)
    .flatMap((layer) => (layer.kind === 'picture' && isPicture(layer.assetId) ? [layer.assetId] : []));
}

function gone(slideIds: readonly SlideId[]): ShowEdit[] {
  return slideIds.length > 0 ? [{ kind: 'remove-slides', slideIds }] : [];
}

function longEnough({ show, spans }: PreparedShow, index: number, neededMs: number): ShowEdit[] {
  const slide = show.slides[index]!;
  const seenMs = spans[index]!.leavesMs - spans[index]!.startMs;
  if (seenMs >= neededMs) return [];
  return [
    {
      kind: 'set-lengths',
      lengths: [{ slideId: slide.id, lengthMs: Math.ceil((slide.lengthMs + neededMs - seenMs) / 100) * 100 }],
    },
  ];
}
