import { COLOUR, either, HASH, maybe, number, object, oneOf, truth, whole, type Schema } from '../schema/schema';
import { PATTERN_NAMES, type PatternName, type TransitionFamily, type TransitionOverTime } from '../show/transition';
import type { TransitionPlan } from './transition-plan';

/** The transitions that a shuffle can deal: all but the cut, those built by hand, and the shuffle itself. */
export type PlainTransition = Exclude<TransitionOverTime, { readonly kind: 'shuffle' | 'built' }>;
export type PlainKind = PlainTransition['kind'];
type Of<Kind extends PlainKind> = Extract<PlainTransition, { readonly kind: Kind }>;

/** Something that can be chosen about a transition. `usual` is what it has when nothing is said. */
export type Parameter =
  /** A shuffle deals one of the values. */
  | { readonly is: 'choice'; readonly label: string; readonly values: readonly string[]; readonly usual: string }
  | { readonly is: 'pattern'; readonly usual: PatternName }
  | { readonly is: 'switch'; readonly label: string; readonly usual: boolean }
  /** Width of the soft border as a share of the way, 0…1. */
  | { readonly is: 'softness'; readonly usual: number }
  | { readonly is: 'count'; readonly usual: number; readonly least: number; readonly most: number }
  | { readonly is: 'colour'; readonly usual: string }
  | { readonly is: 'seed'; readonly usual: number };

/** Everything there is to know about one kind of transition but how it is drawn, which is `drawing/paint/transitions/`. To add one is to add a file and name it in `transitions.ts`. */
export interface TransitionKindRecord<Kind extends PlainKind = PlainKind> {
  readonly kind: Kind;
  /** For the person. */
  readonly name: string;
  readonly family: TransitionFamily;
  /** Those that move the pictures settle; the others go on evenly. */
  readonly movesPictures: boolean;
  readonly parameters: {
    readonly [Name in keyof Required<Omit<Of<Kind>, 'kind' | 'lengthMs' | 'easing' | 'kept' | 'overWords'>>]: Parameter;
  };
  plan(transition: Of<Kind>): TransitionPlan;
}

export const direction = (values: readonly string[], usual: string): Parameter => ({
  is: 'choice',
  label: 'Direction',
  values,
  usual,
});

/** A border of about a pixel, so that hard wipes are antialiased. */
const HARD = 0.002;

/** The softness a transition has, held to what can be drawn. */
export const softnessOf = (transition: { readonly softness?: number }, usual: number): number =>
  Math.max(HARD, transition.softness ?? usual);

/** What a document may say for a parameter. */
export function schemaOf(parameter: Parameter): Schema {
  switch (parameter.is) {
    case 'choice':
      return maybe(oneOf(parameter.values));
    case 'pattern':
      return either(
        { when: 'string', then: oneOf(PATTERN_NAMES) },
        { when: 'object', then: object<{ assetId: unknown }>({ assetId: HASH }) },
      );
    case 'switch':
      return maybe(truth);
    case 'softness':
      return maybe(number(0, 1));
    case 'count':
      return maybe(whole(parameter.least, parameter.most));
    case 'colour':
      return maybe(COLOUR);
    case 'seed':
      return maybe(whole(0, 1e9));
  }
}
