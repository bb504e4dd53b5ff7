import { shapeName } from '../../show/shape';
import type { Show } from '../../show/show';
import { showLengthMs } from '../../timing/slide-span';
import type { FilmSpec } from '../film-spec';
import { disc } from './disc';
import { email } from './email';
import { goingOn } from './going-on';
import { page } from './page';
import { phone } from './phone';
import { projector } from './projector';
import type { PurposeRecord } from './purpose';
import { screen } from './screen';
import { soundOnly } from './sound-only';
import { square } from './square';
import { teaser } from './teaser';
import { upright } from './upright';
import { web } from './web';

/** Everything a film is made for, in the order in which it is offered. */
export const PURPOSES = {
  screen,
  web,
  upright,
  square,
  phone,
  email,
  projector,
  teaser,
  page,
  sound: soundOnly,
  disc,
  edit: goingOn,
} as const satisfies Readonly<Record<string, PurposeRecord>>;

export type PurposeName = keyof typeof PURPOSES;
export const PURPOSE_NAMES = Object.keys(PURPOSES) as PurposeName[];
/** A film whose numbers were chosen one by one. */
export const BY_HAND = 'by-hand';

/** What is made of a show for a purpose. */
export function specFor(show: Show, purpose: PurposeName, mostBytes?: number): FilmSpec {
  const of = { frame: show.frame, shape: shapeName(show.frame), lengthMs: showLengthMs(show) };
  return { purpose, ...PURPOSES[purpose].spec(mostBytes === undefined ? of : { ...of, mostBytes }) };
}

export function purposeTitle(purpose: string): string {
  return Object.hasOwn(PURPOSES, purpose) ? PURPOSES[purpose as PurposeName].name : 'By hand';
}
