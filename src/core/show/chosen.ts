import { maybe, object, oneOf, type Schema } from '../schema/schema';

/**
 * Who or what chose a value: a person’s hand, the pace of the show, its music, a voice that the slide waits for, or the look of the whole show. What a hand
 * chose is held: nothing else changes it unasked, until it is let go.
 */
export type Chooser = 'hand' | 'pace' | 'music' | 'voice' | 'look';
export const CHOOSERS: readonly Chooser[] = ['hand', 'pace', 'music', 'voice', 'look'];

/** The values of a slide that more than one can choose. */
export type SlideValue = 'length' | 'transition' | 'backing';
export const SLIDE_VALUES: readonly SlideValue[] = ['length', 'transition', 'backing'];
/** The values of a layer that more than one can choose: how a picture moves, what words say and how they look, the light on it. */
export type LayerValue = 'move' | 'words' | 'light';
export const LAYER_VALUES: readonly LayerValue[] = ['move', 'words', 'light'];

/** Who chose which value; one that is not named is as it came, and anybody may change it. */
type ChosenOf<Value extends string> = Readonly<Partial<Record<Value, Chooser>>>;
export type Chosen = ChosenOf<SlideValue>;
export type LayerChosen = ChosenOf<LayerValue>;

export const CHOOSER: Schema = oneOf(CHOOSERS);
export const CHOSEN: Schema = object<Chosen>({
  length: maybe(CHOOSER),
  transition: maybe(CHOOSER),
  backing: maybe(CHOOSER),
});
export const LAYER_CHOSEN: Schema = object<LayerChosen>({
  move: maybe(CHOOSER),
  words: maybe(CHOOSER),
  light: maybe(CHOOSER),
});

interface HasChosen<Value extends string> {
  readonly chosen?: ChosenOf<Value>;
}

/** Whether a value is held: chosen by a hand, and not let go. */
export function isHeld<Value extends string>(of: HasChosen<Value>, value: Value): boolean {
  return of.chosen?.[value] === 'hand';
}

/** The slide or layer with a value noted as chosen; null notes that nobody did. */
export function withChooser<Value extends string, Of extends HasChosen<Value>>(
  of: Of,
  value: Value,
  by: Chooser | null,
): Of {
  if ((of.chosen?.[value] ?? null) === by) return of;
  const { [value]: _before, ...others } = (of.chosen ?? {}) as Partial<Record<string, Chooser>>;
  const chosen = by === null ? others : { ...others, [value]: by };
  const { chosen: _chosen, ...rest } = of;
  return (Object.keys(chosen).length === 0 ? rest : { ...rest, chosen }) as Of;
}
