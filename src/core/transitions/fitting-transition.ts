import { okLab } from '../keys/colour';
import { differenceOf } from '../light/likeness';
import type { PlannedMove } from '../motion/automatic-move';
import type { AssetFacts } from '../show/asset-facts';
import { takenAt, type CameraClocks } from '../show/camera-clock';
import type { Slide } from '../show/show';
import type { FourWays, Transition } from '../show/transition';

/** One side of a seam. */
export interface SeamSide {
  readonly slide: Pick<Slide, 'chapter'>;
  /** Of the slide's first picture or clip. */
  readonly facts: AssetFacts | undefined;
  readonly move: PlannedMove | undefined;
}

export interface FittingTransition {
  readonly transition: Transition;
  /** Why, as a sentence. */
  readonly reason: string;
}

const MINUTE_MS = 60_000;
/** Taken further apart than this, time has passed; nearer than that, they are of one scene. */
const LATER_MS = 180 * MINUTE_MS;
const SCENE_MS = 10 * MINUTE_MS;
/** Of the 256 signs of a likeness. */
const NEARLY_THE_SAME = 48;
/** Between two mean brightnesses, 0…1. */
const OTHER_LIGHT = 0.3;
/** Chroma in OKLab of a picture's mean from which it is of a colour; between two hues, in degrees, one and the same, and across from one another. */
const STRONG = 0.045;
const SAME_HUE = 25;
const ACROSS = 130;
/** Travel over the framing’s own side from which a picture is seen to go somewhere. */
const TRAVELS = 0.05;
/** Logarithm of the sizes’ ratio from which it is seen to come closer or go back. */
const ZOOMS = 0.05;

/**
 * The transition that fits what lies on both sides of a seam: by the first of these that holds.
 *
 * 1. A chapter begins: through black, long. 2. Two clips of one scene: a cut, since both run by themselves. 3. Two pictures nearly the same: a short dissolve,
 * which looks like something moving in one picture. 4. Three hours or more between them: through black. 5. Both pictures travel the same way: a push that way.
 * 6. The one comes closer and the next goes back: a zoom through. 7. From a dark picture to a bright one, through light; the other way, through black: a dissolve
 * between them is grey half-way. 8. Both of one strong colour: a long dissolve, which the colour carries. 9. Of strong colours across from one another: a soft wipe,
 * since a dissolve is grey half-way. 10. A dissolve, a second long.
 */
export function fittingTransition(leaving: SeamSide, coming: SeamSide, clocks?: CameraClocks): FittingTransition {
  if (coming.slide.chapter !== undefined)
    return { transition: { kind: 'dip', lengthMs: 1600 }, reason: 'A chapter begins here.' };
  const [one, other] = [leaving.facts, coming.facts];
  const apartMs = timeBetween(one, other, clocks);
  if (one?.kind === 'clip' && other?.kind === 'clip' && (apartMs === null || apartMs < SCENE_MS))
    return { transition: { kind: 'cut' }, reason: 'Both run by themselves, and are of one scene.' };
  const [likeness, next] = [likenessOf(one), likenessOf(other)];
  if (likeness !== null && next !== null && differenceOf(likeness, next) <= NEARLY_THE_SAME)
    return {
      transition: { kind: 'dissolve', lengthMs: 600 },
      reason: 'They are nearly the same: it looks as if something moved.',
    };
  if (apartMs !== null && apartMs >= LATER_MS)
    return { transition: { kind: 'dip', lengthMs: 1200 }, reason: `Between them lie ${lasting(apartMs)}.` };
  const [way, nextWay] = [wayOf(leaving.move), wayOf(coming.move)];
  if (way !== null && way === nextWay)
    return { transition: { kind: 'push', lengthMs: 900, direction: way }, reason: `Both go ${WAYS[way]}.` };
  if (zoomOf(leaving.move) > ZOOMS && zoomOf(coming.move) < -ZOOMS)
    return { transition: { kind: 'zoom-through', lengthMs: 900 }, reason: 'One comes closer, and the next goes back.' };
  const brighter = brightnessOf(other) - brightnessOf(one);
  if (brighter > OTHER_LIGHT)
    return {
      transition: { kind: 'burn', lengthMs: 1000 },
      reason: 'It goes from dark to bright: half-way a dissolve is grey.',
    };
  if (brighter < -OTHER_LIGHT)
    return {
      transition: { kind: 'dip', lengthMs: 1000 },
      reason: 'It goes from bright to dark: half-way a dissolve is grey.',
    };
  const between = huesBetween(one, other);
  if (between !== null && between <= SAME_HUE)
    return {
      transition: { kind: 'dissolve', lengthMs: 1600 },
      reason: 'Both are of one colour, which carries a long dissolve.',
    };
  if (between !== null && between >= ACROSS)
    return {
      transition: { kind: 'wipe', lengthMs: 1000, direction: 'right', softness: 0.4 },
      reason: 'Their colours are opposites: half-way a dissolve is grey.',
    };
  return { transition: { kind: 'dissolve', lengthMs: 1000 }, reason: 'Nothing asks for more.' };
}

/** Degrees between the hues of two pictures that are each of a strong colour; null when one of them is not. */
function huesBetween(one: AssetFacts | undefined, other: AssetFacts | undefined): number | null {
  const [hue, next] = [strongHueOf(one), strongHueOf(other)];
  if (hue === null || next === null) return null;
  const apart = Math.abs(hue - next) % 360;
  return Math.min(apart, 360 - apart);
}

function strongHueOf(facts: AssetFacts | undefined): number | null {
  if (facts?.kind !== 'picture' || facts.meanColour === undefined) return null;
  const [, a, b] = okLab(facts.meanColour);
  return Math.hypot(a, b) >= STRONG ? (Math.atan2(b, a) * 180) / Math.PI : null;
}

const WAYS: Record<FourWays, string> = { left: 'to the left', right: 'to the right', up: 'upwards', down: 'downwards' };

/** Where a picture is seen to go on the screen; null when it stands, comes closer or goes back. */
function wayOf(move: PlannedMove | undefined): FourWays | null {
  if (!move) return null;
  const across = (move.last.x - move.first.x) / Math.min(move.first.width, move.last.width);
  const down = (move.last.y - move.first.y) / Math.min(move.first.height, move.last.height);
  const far = Math.max(Math.abs(across), Math.abs(down));
  if (far < TRAVELS || Math.abs(zoomOf(move)) > far) return null;
  // The framing goes one way, what is seen in it the other.
  if (Math.abs(across) >= Math.abs(down)) return across > 0 ? 'left' : 'right';
  return down > 0 ? 'up' : 'down';
}

/** Above 0 it comes closer. */
function zoomOf(move: PlannedMove | undefined): number {
  return move ? Math.log(move.first.width / move.last.width) : 0;
}

function timeBetween(one: AssetFacts | undefined, other: AssetFacts | undefined, clocks?: CameraClocks): number | null {
  if (!one || !other || one.kind === 'sound' || other.kind === 'sound') return null;
  const [from, to] = [takenAt(one, clocks), takenAt(other, clocks)];
  if (from === null || to === null) return null;
  const apart = Math.abs(Date.parse(`${to.slice(0, 19)}Z`) - Date.parse(`${from.slice(0, 19)}Z`));
  return Number.isNaN(apart) ? null : apart;
}

function lasting(ms: number): string {
  const hours = Math.round(ms / (60 * MINUTE_MS));
  const days = Math.round(hours / 24);
  return hours < 36 ? `${hours} hours` : `${days} days`;
}

const likenessOf = (facts: AssetFacts | undefined) => (facts?.kind === 'picture' ? (facts.likeness ?? null) : null);
const brightnessOf = (facts: AssetFacts | undefined) => (facts?.kind === 'picture' ? facts.brightness : 0.5);
