import type { Channel, Key } from '../keys/channel';
import { inSpace, times4, type Matrix4 } from '../frame/matrix';
import { layerPoses, parentsOf, pictureToBox, unmirrored } from '../frame/layer-poses';
import type { SlideSurroundings } from '../frame/slide-moment';
import { factsInUse } from '../motion/crop';
import type { Framing } from '../motion/framing';
import { layerId, type LayerId } from '../show/ids';
import {
  clipTimes,
  type ClipLayer,
  type GroupLayer,
  type Layer,
  type PictureLayer,
  type ShapeLayer,
} from '../show/layer';
import { layerIn } from '../show/pile';
import { isMadeAlike } from './made-again';

/** A loupe that travels over a picture from place to place and enlarges what lies under its middle. */
export interface LoupePlan {
  /** Centre of each place in shares of the picture as it is used, in the order they are visited. At least one. */
  readonly places: readonly { readonly x: number; readonly y: number }[];
  /** How many times as large, 1…8. */
  readonly enlarges: number;
  /** Diameter of what is seen through it, as a share of the frame's height. */
  readonly across: number;
  /** Width of its rim, as a share of the frame's height. */
  readonly rim: number;
  readonly rimColour: string;
  /** So long it rests at each place, and takes from one to the next. */
  readonly restMs: number;
  readonly glideMs: number;
  /** When it begins to appear. */
  readonly beginMs: number;
}

export const USUAL_LOUPE: Omit<LoupePlan, 'places'> = {
  enlarges: 2,
  across: 0.42,
  rim: 0.012,
  rimColour: '#fcfaf5',
  restMs: 900,
  glideMs: 1100,
  beginMs: 700,
};
export const MOST_LOUPE_PLACES = 60;

/** It grows when it comes and shrinks when it goes. */
const COMES_MS = 500;
const SMALL = 0.3;
const WHOLE: Framing = { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 };

/** How long a slide must be seen for a loupe to come, visit its places and go. */
export function loupeNeedsMs({ places, restMs, glideMs, beginMs }: LoupePlan): number {
  return beginMs + 2 * COMES_MS + places.length * restMs + (places.length - 1) * glideMs;
}

/** Why a loupe cannot lie on a layer, as a sentence; null when it can. */
export function faultOfLoupe(around: SlideSurroundings, base: Layer): string | null {
  if (base.kind !== 'picture' && base.kind !== 'clip') return 'A loupe lies on a picture or a clip: choose one.';
  if (!around.moves.has(base.id)) return 'That picture’s file is not there, so there is nothing to enlarge.';
  if (parentsOf(around.slide.layers).has(base.id))
    return 'That picture lies in a group. Take it out of the group first.';
  const { tiltXDegrees, tiltYDegrees, z } = base.channels ?? {};
  if (tiltXDegrees !== undefined || tiltYDegrees !== undefined || z !== undefined)
    return 'That picture leans or stands nearer in space; a loupe lies flat. Take its tilt and nearness away first.';
  return null;
}

/**
 * The loupe as layers: a rim, and above it the enlarged picture cut out round. All of it follows the picture it lies on. The enlarged picture stands in a group
 * (“glass”) that is centred on the loupe and scaled; in it the picture is moved against the loupe's way. A point under the middle therefore stays under the
 * middle whatever the scale: rim, cut-out and picture share one centre at every moment, also while any of them grows.
 *
 * @param id of the group; its parts are named after it
 * @throws {RangeError} for a layer `faultOfLoupe` finds fault with
 */
export function loupe(around: SlideSurroundings, base: Layer, plan: LoupePlan, id: LayerId): GroupLayer {
  const fault = faultOfLoupe(around, base);
  if (fault || (base.kind !== 'picture' && base.kind !== 'clip')) throw new RangeError(fault ?? 'no picture');
  const { frame } = around;
  const shown = pictureOnFrame(around, base);
  const at = (onPicture: { x: number; y: number }) => {
    const { x, y } = mirroredBy(base, onPicture);
    const [px, py] = inSpace(shown, x, y);
    return { x: px / frame.widthPx, y: py / frame.heightPx };
  };
  const centre = at({ x: 0.5, y: 0.5 });
  const visits = plan.places.map(at);
  const path = (of: (place: { x: number; y: number }) => number) => travelled(visits.map(of), plan);
  const aspect = frame.heightPx / frame.widthPx;
  const [inner, outer] = [plan.across, plan.across + 2 * plan.rim];
  const place = { x: path(({ x }) => x), y: path(({ y }) => y) };
  const named = (part: 'rim' | 'glass' | 'picture' | 'cut') => layerId(`${id}-${part}`);
  const rim: ShapeLayer = {
    kind: 'shape',
    id: named('rim'),
    name: 'rim',
    shape: { kind: 'ellipse' },
    fill: { kind: 'colour', colour: plan.rimColour },
    channels: { ...place, width: grown(outer * aspect, plan), height: grown(outer, plan) },
    edge: { shadow: { x: 0, y: 0.012, softness: 0.02, colour: '#171513', opacity: 0.55 } },
  };
  const picture = enlarged(base, named('picture'), {
    x: path(({ x }) => 0.5 + centre.x - x),
    y: path(({ y }) => 0.5 + centre.y - y),
    width: Math.hypot(shown[0]!, shown[4]!) / frame.widthPx,
    height: Math.hypot(shown[1]!, shown[5]!) / frame.heightPx,
    turnDegrees: (Math.atan2(shown[4]!, shown[0]!) * 180) / Math.PI,
  });
  const glass: GroupLayer = {
    kind: 'group',
    id: named('glass'),
    name: 'what it shows',
    channels: { ...place, width: plan.enlarges, height: plan.enlarges },
    layers: [picture],
  };
  const cut: ShapeLayer = {
    kind: 'shape',
    id: named('cut'),
    name: 'round cut-out',
    shape: { kind: 'ellipse' },
    fill: { kind: 'colour', colour: '#ffffff' },
    channels: { ...place, width: grown(inner * aspect, plan), height: grown(inner, plan) },
    mask: { by: 'transparency', cuts: [glass.id] },
  };
  return {
    kind: 'group',
    id,
    name: 'Loupe',
    tether: { to: base.id, position: true, size: true, turn: true },
    channels: { opacity: shownWhile(plan) },
    layers: [rim, glass, cut],
  };
}

/**
 * The plan of a loupe that is as it was made; null for any other group, and for a loupe whose parts were changed by hand: that one is worked on like any group.
 */
export function loupePlanOf(around: SlideSurroundings, group: Layer): LoupePlan | null {
  if (group.kind !== 'group' || group.tether === undefined) return null;
  const base = layerIn(around.slide.layers, group.tether.to);
  const [rim, glass, cut] = group.layers;
  if (!base || faultOfLoupe(around, base) !== null) return null;
  if (rim?.kind !== 'shape' || glass?.kind !== 'group' || cut?.kind !== 'shape' || rim.fill.kind !== 'colour')
    return null;
  const xs = keysOf(rim.channels?.x);
  const ys = keysOf(rim.channels?.y);
  const times = xs.map(({ at }) => (at.tied === 'start' ? at.ms : NaN));
  const [width, across] = [glass.channels?.width, keysOf(cut.channels?.height)[1]?.value];
  const outer = keysOf(rim.channels?.height)[1]?.value;
  const opacity = keysOf(group.channels?.opacity)[0]?.at;
  if (typeof width !== 'number' || across === undefined || outer === undefined || opacity?.tied !== 'start')
    return null;
  if (xs.length < 2 || xs.length % 2 === 1 || ys.length !== xs.length || typeof rim.fill.colour !== 'string')
    return null;
  const picture = base as PictureLayer | ClipLayer;
  const toBox = inverseOf(pictureOnFrame(around, picture));
  const toPicture = (x: number, y: number) => mirroredBy(picture, toBox(x, y));
  const plan: LoupePlan = {
    places: xs.flatMap((key, index) =>
      index % 2 === 0 ? [toPicture(key.value * around.frame.widthPx, ys[index]!.value * around.frame.heightPx)] : [],
    ),
    enlarges: width,
    across,
    rim: (outer - across) / 2,
    rimColour: rim.fill.colour,
    restMs: times[1]! - times[0]!,
    glideMs: xs.length > 2 ? times[2]! - times[1]! : USUAL_LOUPE.glideMs,
    beginMs: opacity.ms,
  };
  const again = loupe(around, base, plan, group.id);
  return isMadeAlike(again, group) ? plan : null;
}

/**
 * Which place of a picture is seen at a point of the frame.
 *
 * @param point in shares of the frame
 * @returns shares of the picture as it is used, within it
 */
export function placeUnder(
  around: SlideSurroundings,
  base: PictureLayer | ClipLayer,
  offsetMs: number,
  point: { readonly x: number; readonly y: number },
): { x: number; y: number } {
  const { widthPx, heightPx } = around.frame;
  const toPicture = inverseOf(pictureOnFrame(around, base, offsetMs));
  const { x, y } = mirroredBy(base, toPicture(point.x * widthPx, point.y * heightPx));
  return { x: Math.min(1, Math.max(0, x)), y: Math.min(1, Math.max(0, y)) };
}

/** When a loupe arrives at each of its places. */
export function loupeArrivals({ places, restMs, glideMs, beginMs }: LoupePlan): number[] {
  return places.map((_place, index) => Math.round(beginMs + COMES_MS + index * (restMs + glideMs)));
}

/** The picture's whole (unit square) to frame pixels, as it stands at a moment (when the slide begins if none is said), mirrored where it is. */
function pictureOnFrame(around: SlideSurroundings, base: PictureLayer | ClipLayer, offsetMs = 0): Matrix4 {
  const poses = layerPoses(around, offsetMs);
  const facts = factsInUse(base, around.facts.get(base.assetId));
  const aspect = facts && facts.kind !== 'sound' ? facts.heightPx / facts.widthPx : 1;
  const toBox = pictureToBox(poses.framing(base) ?? WHOLE, aspect);
  return times4(poses.box(base), unmirrored(base, toBox));
}

/** A place on a picture as it lies in a mirrored one, and back. */
function mirroredBy({ flip }: PictureLayer | ClipLayer, { x, y }: { x: number; y: number }): { x: number; y: number } {
  return { x: flip?.across ? 1 - x : x, y: flip?.down ? 1 - y : y };
}

/** The same picture shown whole; a clip runs along with the one below, unheard. */
function enlarged(base: PictureLayer | ClipLayer, id: LayerId, channels: NonNullable<Layer['channels']>): Layer {
  const kept = { ...(base.light && { light: base.light }), ...(base.flip && { flip: base.flip }) };
  if (base.kind === 'clip')
    return {
      kind: 'clip',
      id,
      assetId: base.assetId,
      ...clipTimes(base),
      soundGainDb: -60,
      ...(base.crop && { crop: base.crop }),
      ...kept,
      channels,
    };
  return {
    kind: 'picture',
    id,
    assetId: base.assetId,
    move: { kind: 'set', first: WHOLE, last: WHOLE },
    ...(base.crop && { crop: base.crop }),
    ...kept,
    channels,
  };
}

/** Two keys a place: when it gets there and when it leaves. */
function travelled(values: readonly number[], { restMs, glideMs, beginMs }: LoupePlan): Channel {
  const first = beginMs + COMES_MS;
  return {
    keys: values.flatMap((value, index): Key[] => {
      const from = first + index * (restMs + glideMs);
      return [
        { at: { tied: 'start', ms: Math.round(from) }, value },
        { at: { tied: 'start', ms: Math.round(from + restMs) }, value },
      ];
    }),
  };
}

function grown(size: number, plan: LoupePlan): Channel {
  const gone = loupeNeedsMs(plan);
  const key = (ms: number, value: number, easing?: Key['easing']): Key => ({
    at: { tied: 'start', ms: Math.round(ms) },
    value,
    ...(easing && { easing }),
  });
  return {
    keys: [
      key(plan.beginMs, size * SMALL, 'arrive'),
      key(plan.beginMs + COMES_MS, size),
      key(gone - COMES_MS, size, 'set-off'),
      key(gone, size * SMALL),
    ],
  };
}

function shownWhile(plan: LoupePlan): Channel {
  const gone = loupeNeedsMs(plan);
  const key = (ms: number, value: number): Key => ({
    at: { tied: 'start', ms: Math.round(ms) },
    value,
    easing: 'linear',
  });
  return {
    keys: [key(plan.beginMs, 0), key(plan.beginMs + COMES_MS / 2, 1), key(gone - COMES_MS / 2, 1), key(gone, 0)],
  };
}

function keysOf(channel: Channel | undefined): readonly Key[] {
  return typeof channel === 'object' ? channel.keys : [];
}

/** Frame pixels to shares of a picture that is neither tilted nor skewed. */
function inverseOf(shown: Matrix4): (x: number, y: number) => { x: number; y: number } {
  const [a, b, e, c, d, f] = [shown[0]!, shown[1]!, shown[3]!, shown[4]!, shown[5]!, shown[7]!];
  const determinant = a * d - b * c;
  return (x, y) => ({
    x: (d * (x - e) - b * (y - f)) / determinant,
    y: (a * (y - f) - c * (x - e)) / determinant,
  });
}
