import type { ContentPlan, FramePlan, LayerPlan, SlidePlan, WordsLook } from '../../core/frame/frame-plan';

const WHITE = '#ffffff';
const DARK: SlidePlan['backing'] = { kind: 'colour', colour: '#000000' };

/** The words layers a slide plan draws, bottom to top, those in groups too. */
export function wordsIn(layers: readonly LayerPlan[]): WordsPlan[] {
  return layers.flatMap((layer) => {
    if (layer.content.kind === 'group') return wordsIn(layer.content.layers);
    return layer.content.kind === 'words' ? [{ layer, look: layer.content.look }] : [];
  });
}

export interface WordsPlan {
  readonly layer: LayerPlan;
  readonly look: WordsLook;
}

/**
 * A plan that draws only the letters of one words layer, white on black, where they are seen: through its groups, masks and the transition, without the shadow, box and
 * outline about them and without what makes them fainter.
 *
 * @param wanted one of those `wordsIn` told of the plan
 */
export function lettersPlan(plan: FramePlan, wanted: WordsPlan): FramePlan {
  const only = (slide: SlidePlan): SlidePlan => ({
    slideId: slide.slideId,
    backing: DARK,
    layers: slide.layers.flatMap((layer) => lettersOnly(layer, wanted)),
  });
  return {
    ...plan,
    over: [],
    slide: only(plan.slide),
    incoming: plan.incoming && { ...plan.incoming, slide: only(plan.incoming.slide) },
  };
}

function lettersOnly(layer: LayerPlan, wanted: WordsPlan): LayerPlan[] {
  if (layer === wanted.layer)
    return [
      bare(layer, { ...(layer.content as Extract<ContentPlan, { kind: 'words' }>), look: whiteLook(wanted.look) }),
    ];
  if (layer.content.kind !== 'group') return [];
  const layers = layer.content.layers.flatMap((inner) => lettersOnly(inner, wanted));
  return layers.length > 0 ? [bare(layer, { kind: 'group', layers })] : [];
}

function bare(layer: LayerPlan, content: ContentPlan): LayerPlan {
  return { ...layer, content, plain: false, opacity: 1, blurPx: 0, blend: 'normal', edge: null, vignette: 0 };
}

export function whiteLook(look: WordsLook): WordsLook {
  const { box: _box, outline: _outline, accent: _accent, parts, ...style } = look.style;
  // Parts that lean are where they lean; their colours are not asked.
  const leaning = parts?.map(({ colour: _colour, ...part }) => part);
  return { ...look, style: { ...style, ...(leaning && { parts: leaning }), colour: WHITE, shadow: 'none' } };
}
