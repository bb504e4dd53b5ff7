import { object, whole, type Schema } from '../schema/schema';
import { LONGEST_BREATH_MS } from './limits';

/** Silence around what is spoken on a slide. */
export interface Breath {
  /** From where the slide is first seen to its voice. */
  readonly beforeMs: number;
  /** From the end of the voice to the next slide. */
  readonly afterMs: number;
}

export const USUAL_BREATH: Breath = { beforeMs: 700, afterMs: 900 };

export const BREATH: Schema = object<Breath>({
  beforeMs: whole(0, LONGEST_BREATH_MS),
  afterMs: whole(0, LONGEST_BREATH_MS),
});

/** The breath a slide goes by: its own, the show's, or the usual one. */
export function breathOf(
  show: { readonly breath?: Breath | undefined },
  slide: { readonly breath?: Breath | undefined },
): Breath {
  return slide.breath ?? show.breath ?? USUAL_BREATH;
}
