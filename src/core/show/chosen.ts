import { maybe, object, oneOf, type Schema } from '../schema/schema';

/**
 * Who or what chose a value: a person’s hand, the pace of the show, its music, a voice that the slide waits for, or the look of the whole show. What a hand
 * chose is held: nothing else changes it unasked, until it is let go.
 */
export type Chooser = 'hand' | 'pace' | 'music' | 'voice' | 'look';
export const CHOOSERS: readonly Chooser[] = ['hand', 'pace', 'music', 'voice', 'look'];

/** The values of a slide that more than one can choose. */
export type SlideValue = 'length' | 'transition';
export const SLIDE_VALUES: readonly SlideValue[] = ['length', 'transition'];

/** Who chose which of a slide’s values; one that is not named is as it came, and anybody may change it. */
export type Chosen = Readonly<Partial<Record<SlideValue, Chooser>>>;

export const CHOOSER: Schema = oneOf(CHOOSERS);
export const CHOSEN: Schema = object<Chosen>({ length: maybe(CHOOSER), transition: maybe(CHOOSER) });

interface HasChosen {
  readonly chosen?: Chosen;
}

/** Whether a value is held: chosen by a hand, and not let go. */
export function isHeld(slide: HasChosen, value: SlideValue): boolean {
  return slide.chosen?.[value] === 'hand';
}

/** The slide with a value noted as chosen; null notes that nobody did. */
export function withChooser<OfSlide extends HasChosen>(slide: OfSlide, value: SlideValue, by: Chooser | null): OfSlide {
  if ((slide.chosen?.[value] ?? null) === by) return slide;
  const { [value]: _before, ...others } = slide.chosen ?? {};
  const chosen: Chosen = by === null ? others : { ...others, [value]: by };
  const { chosen: _chosen, ...rest } = slide;
  return (Object.keys(chosen).length === 0 ? rest : { ...rest, chosen }) as OfSlide;
}
