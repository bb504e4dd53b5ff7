import { valueAt, type Channel } from '../keys/channel';
import { factsInUse } from '../motion/crop';
import type { Framing } from '../motion/framing';
import { framingAt } from '../motion/move-pace';
import type { SlideMoves } from '../motion/plan-moves';
import type { FactsById } from '../show/asset-facts';
import type { LayerId } from '../show/ids';
import { everyLayer, type GroupLayer, type Layer } from '../show/layer';
import type { Slide } from '../show/show';
import { IDENTITY4, inSpace, rotation, scaling, times4, translation, type Matrix4 } from './matrix';

interface FrameSize {
  readonly widthPx: number;
  readonly heightPx: number;
}

export interface PoseSurroundings {
  readonly slide: Slide;
  readonly facts: FactsById;
  readonly moves: SlideMoves;
  readonly frame: FrameSize;
  /** How long the slide is seen. */
  readonly seenMs: number;
}

/** Where every layer of a slide stands at a moment, tethers included; each worked out once, in whatever order it is asked for. */
export interface LayerPoses {
  /** The layer's box in frame pixels: unit square to space, what holds it included. */
  box(layer: Layer): Matrix4;
  /** For a group: the frame its layers are laid out in, to space. */
  inside(group: GroupLayer): Matrix4;
  /** 0…1, tether included, without what holds it. */
  opacity(layer: Layer): number;
  /** Size of the box before it is turned, tilted or held, in frame pixels. */
  size(layer: Layer): FrameSize;
  framing(layer: Layer): Framing | null;
}

export function layerPoses(around: PoseSurroundings, offsetMs: number): LayerPoses {
  const parents = parentsOf(around.slide.layers);
  const byId = new Map([...everyLayer(around.slide.layers)].map((layer) => [layer.id, layer]));
  const boxes = new Map<LayerId, Matrix4>();
  const own = posesAt(around, offsetMs);
  const rest = offsetMs === 0 ? null : posesAt(around, 0);
  let resting: LayerPoses | null = null;

  const poses: LayerPoses = {
    box(layer) {
      const known = boxes.get(layer.id);
      if (known) return known;
      const parent = parents.get(layer.id);
      const free = times4(parent ? poses.inside(parent) : IDENTITY4, own.box(layer));
      const followed = follow(layer, free);
      boxes.set(layer.id, followed);
      return followed;
    },
    inside: (group) => times4(poses.box(group), own.frameInBox(group)),
    opacity(layer) {
      const leader = layer.tether?.opacity ? byId.get(layer.tether.to) : undefined;
      return own.opacity(layer) * (leader ? poses.opacity(leader) : 1);
    },
    size: own.size,
    framing: own.framing,
  };
  return poses;

  /** The leader's change since the slide's start, applied to the follower. */
  function follow(layer: Layer, free: Matrix4): Matrix4 {
    const { tether } = layer;
    const leader = tether && byId.get(tether.to);
    if (!tether || !leader || !rest) return free;
    resting ??= layerPoses(around, 0);
    const then = similarity(shown(resting, leader));
    const now = similarity(shown(poses, leader));
    const ratio = tether.size ? ([now.width / then.width, now.height / then.height] as const) : ([1, 1] as const);
    const turned = tether.turn ? now.turn - then.turn : 0;
    const [cx, cy, cz] = inSpace(free, 0.5, 0.5);
    let [x, y, z] = [cx, cy, cz];
    if (tether.position) {
      // The offset lives in the leader's own directions: it grows with its size and goes round with its turn.
      const [cos, sin] = [Math.cos(then.turn), Math.sin(then.turn)];
      const along = (cos * (cx - then.x) + sin * (cy - then.y)) * ratio[0];
      const across = (cos * (cy - then.y) - sin * (cx - then.x)) * ratio[1];
      const by = then.turn + turned;
      if (tether.along !== 'y') x = now.x + Math.cos(by) * along - Math.sin(by) * across;
      if (tether.along !== 'x') y = now.y + Math.sin(by) * along + Math.cos(by) * across;
      if (!tether.along) z = cz + now.z - then.z;
    }
    const grown = times4(
      free,
      times4(translation(0.5, 0.5, 0), times4(scaling(ratio[0], ratio[1], 1), translation(-0.5, -0.5, 0))),
    );
    const leaned = tether.tilt ? leanedSince(poses.box(leader), resting.box(leader)) : IDENTITY4;
    return times4(
      translation(x, y, z),
      times4(leaned, times4(rotation((turned * 180) / Math.PI, 0, 0), times4(translation(-cx, -cy, -cz), grown))),
    );
  }

  /** What the eye follows: a picture's whole picture, wherever its framing puts it; else the box. */
  function shown(at: LayerPoses, leader: Layer): Matrix4 {
    const framing = at.framing(leader);
    const box = at.box(leader);
    if (!framing) return box;
    const facts = 'assetId' in leader ? factsInUse(leader, around.facts.get(leader.assetId)) : undefined;
    const aspect = facts && facts.kind !== 'sound' ? facts.heightPx / facts.widthPx : 1;
    return times4(box, unmirrored(leader, pictureToBox(framing, aspect)));
  }
}

/**
 * A picture's way into its box as it is seen where it is mirrored: the box the mirrored picture fills. What is drawn into it is mirrored once more.
 *
 * @param toBox picture (unit square) to box, as `pictureToBox`
 */
export function unmirrored(layer: Layer, toBox: Matrix4): Matrix4 {
  const flip = layer.kind === 'picture' || layer.kind === 'clip' ? layer.flip : undefined;
  if (!flip?.across && !flip?.down) return toBox;
  const [x, y] = [flip.across ? -1 : 1, flip.down ? -1 : 1];
  const mirror: Matrix4 = [x, 0, 0, (1 - x) / 2, 0, y, 0, (1 - y) / 2, 0, 0, 1, 0, 0, 0, 0, 1];
  return times4(times4(mirror, toBox), mirror);
}

/**
 * A picture (unit square) to the box it is shown in (unit square): the inverse of its framing.
 *
 * @param aspect the picture's height over its width
 */
export function pictureToBox(framing: Framing, aspect: number): Matrix4 {
  const turn = (-framing.turnDegrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const [w, h] = [framing.width, framing.height];
  const right = 0.5 - (cos * framing.x - sin * aspect * framing.y) / w;
  const down = 0.5 - ((sin / aspect) * framing.x + cos * framing.y) / h;
  return [cos / w, (-sin * aspect) / w, 0, right, sin / (aspect * h), cos / h, 0, down, 0, 0, 1, 0, 0, 0, 0, 1];
}

function similarity(box: Matrix4): { x: number; y: number; z: number; width: number; height: number; turn: number } {
  const [x, y, z] = inSpace(box, 0.5, 0.5);
  return {
    x,
    y,
    z,
    width: Math.hypot(box[0]!, box[4]!, box[8]!),
    height: Math.hypot(box[1]!, box[5]!, box[9]!),
    turn: Math.atan2(box[4]!, box[0]!),
  };
}

/** How a box has leaned in space since then, without its turn about the line of sight. */
function leanedSince(now: Matrix4, then: Matrix4): Matrix4 {
  const [a, b] = [leanOf(now), leanOf(then)];
  return times4(a, transposed(b));
}

/** The lean of a box: the rotation that is left when its turn is taken away. */
function leanOf(box: Matrix4): Matrix4 {
  const [u, v] = [column(box, 0), column(box, 1)];
  // `rotation` turns first and leans then, so the leans alone say where the box faces.
  const [x, y, z] = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
  const degrees = 180 / Math.PI;
  return rotation(0, Math.asin(Math.min(1, Math.max(-1, -y))) * degrees, Math.atan2(x, z) * degrees);
}

function column(box: Matrix4, at: 0 | 1): [number, number, number] {
  const [x, y, z] = [box[at]!, box[4 + at]!, box[8 + at]!];
  const length = Math.hypot(x, y, z) || 1;
  return [x / length, y / length, z / length];
}

/** Of a rotation: its inverse. */
function transposed(m: Matrix4): Matrix4 {
  return [0, 4, 8, 12, 1, 5, 9, 13, 2, 6, 10, 14, 3, 7, 11, 15].map((at) => m[at]!);
}

interface OwnPoses {
  box(layer: Layer): Matrix4;
  frameInBox(group: GroupLayer): Matrix4;
  opacity(layer: Layer): number;
  size(layer: Layer): FrameSize;
  framing(layer: Layer): Framing | null;
}

/** Poses by the layers' own channels alone, in the frame that holds them. */
function posesAt({ facts, moves, frame, seenMs }: PoseSurroundings, offsetMs: number): OwnPoses {
  const at = (channel: Channel | undefined, usual: number) =>
    channel === undefined ? usual : valueAt(channel, offsetMs, seenMs);
  const size = (layer: Layer): FrameSize => {
    const { width, height } = layer.channels ?? {};
    if ((width === undefined) === (height === undefined))
      return { widthPx: at(width, 1) * frame.widthPx, heightPx: at(height, 1) * frame.heightPx };
    const known = 'assetId' in layer ? factsInUse(layer, facts.get(layer.assetId)) : undefined;
    const aspect = known && known.kind !== 'sound' ? known.widthPx / known.heightPx : frame.widthPx / frame.heightPx;
    if (width !== undefined)
      return { widthPx: at(width, 1) * frame.widthPx, heightPx: (at(width, 1) * frame.widthPx) / aspect };
    return { widthPx: at(height, 1) * frame.heightPx * aspect, heightPx: at(height, 1) * frame.heightPx };
  };
  return {
    size,
    box(layer) {
      const channels = layer.channels ?? {};
      const { widthPx, heightPx } = size(layer);
      const stands = translation(
        at(channels.x, 0.5) * frame.widthPx,
        at(channels.y, 0.5) * frame.heightPx,
        at(channels.z, 0) * frame.heightPx,
      );
      const turned = times4(
        stands,
        rotation(at(channels.turnDegrees, 0), at(channels.tiltXDegrees, 0), at(channels.tiltYDegrees, 0)),
      );
      const depth = layer.kind === 'group' ? Math.sqrt((widthPx * heightPx) / (frame.widthPx * frame.heightPx)) : 1;
      return times4(turned, times4(scaling(widthPx, heightPx, depth), translation(-0.5, -0.5, 0)));
    },
    frameInBox: () => scaling(1 / frame.widthPx, 1 / frame.heightPx, 1),
    opacity: (layer) => Math.min(1, Math.max(0, at(layer.channels?.opacity, 1))),
    framing(layer) {
      const move = moves.get(layer.id);
      return move ? framingAt(move, offsetMs, seenMs) : null;
    },
  };
}

export function parentsOf(
  layers: readonly Layer[],
  parent: GroupLayer | null = null,
  into = new Map<LayerId, GroupLayer>(),
): ReadonlyMap<LayerId, GroupLayer> {
  for (const layer of layers) {
    if (parent) into.set(layer.id, parent);
    if (layer.kind === 'group') parentsOf(layer.layers, layer, into);
  }
  return into;
}
