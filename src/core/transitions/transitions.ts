import { blinds } from './kinds/blinds';
import { blurThrough } from './kinds/blur-through';
import { burn } from './kinds/burn';
import { cardTurn } from './kinds/card-turn';
import { checks } from './kinds/checks';
import { clock } from './kinds/clock';
import { cubeTurn } from './kinds/cube-turn';
import { dip } from './kinds/dip';
import { dissolve } from './kinds/dissolve';
import { iris } from './kinds/iris';
import { mosaic } from './kinds/mosaic';
import { pageTurn } from './kinds/page-turn';
import { pattern } from './kinds/pattern';
import { push } from './kinds/push';
import { slideApart } from './kinds/slide-apart';
import { slideOff } from './kinds/slide-off';
import { slideOver } from './kinds/slide-over';
import { wipe } from './kinds/wipe';
import { zoomBlur } from './kinds/zoom-blur';
import { zoomThrough } from './kinds/zoom-through';
import type { PlainKind, TransitionKindRecord } from './transition-kind';
import { TRANSITION_FAMILIES, type TransitionFamily, type TransitionKind } from '../show/transition';

/** Every kind of transition, in the order in which they are offered and dealt: a shuffle of an earlier show must go on dealing the same hand, so new ones come last in their family. */
export const TRANSITIONS: { readonly [Kind in PlainKind]: TransitionKindRecord<Kind> } = {
  dissolve,
  dip,
  burn,
  'blur-through': blurThrough,
  mosaic,
  wipe,
  blinds,
  clock,
  iris,
  checks,
  pattern,
  push,
  'slide-over': slideOver,
  'slide-off': slideOff,
  'slide-apart': slideApart,
  'zoom-through': zoomThrough,
  'zoom-blur': zoomBlur,
  'page-turn': pageTurn,
  'card-turn': cardTurn,
  'cube-turn': cubeTurn,
};

const RECORDS = Object.values(TRANSITIONS) as readonly TransitionKindRecord[];

/** The kinds of each family. */
export const FAMILIES = Object.fromEntries(
  TRANSITION_FAMILIES.map((family) => [family, RECORDS.filter((of) => of.family === family).map((of) => of.kind)]),
) as unknown as Readonly<Record<TransitionFamily, readonly PlainKind[]>>;

/** What a person calls it. */
export function transitionName(kind: TransitionKind): string {
  if (kind === 'built') return 'built by hand';
  return kind === 'cut' || kind === 'shuffle' ? kind : TRANSITIONS[kind].name;
}
