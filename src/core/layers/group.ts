import { type Channel, type Key, type KeyedChannel } from '../keys/channel';
import { isKeyed } from '../keys/edit-keys';
import { parentsOf } from '../frame/layer-poses';
import { masksOf } from '../frame/plan-layers';
import type { ShowEdit } from '../show/edit';
import type { LayerId } from '../show/ids';
import { everyLayer, type Channels, type GroupLayer, type Layer, type Mask } from '../show/layer';
import { layerIn } from '../show/pile';
import type { Slide } from '../show/show';

export type Restacked =
  { readonly ok: true; readonly edit: ShowEdit } | { readonly ok: false; readonly sentence: string };

const no = (sentence: string): Restacked => ({ ok: false, sentence });

/**
 * Layers of one pile into a group of their own, which lies where the highest of them lay. Nothing moves on the screen: what lies between them and is not chosen
 * would come under or over them, so that is refused; masks that cut “below” are told whom they cut.
 */
export function grouped(slide: Slide, ids: ReadonlySet<LayerId>, groupId: LayerId, name: string): Restacked {
  const parents = parentsOf(slide.layers);
  const chosen = [...everyLayer(slide.layers)].filter((layer) => ids.has(layer.id));
  const parent = chosen[0] ? (parents.get(chosen[0].id) ?? null) : null;
  if (chosen.length === 0) return no('Choose the layers that are to move as one.');
  if (chosen.some((layer) => (parents.get(layer.id) ?? null) !== parent))
    return no('These lie in different groups. Choose layers that lie in one.');
  const pile = parent ? parent.layers : slide.layers;
  const places = chosen.map((layer) => pile.indexOf(layer));
  const between = pile
    .slice(Math.min(...places), Math.max(...places) + 1)
    .filter((layer) => !ids.has(layer.id) && !layer.mask);
  if (between.length > 0)
    return no('Another layer lies between these and would change places with one. Choose it too, or move it first.');
  const top = pile[Math.max(...places)]!;
  const group: GroupLayer = { kind: 'group', id: groupId, name, layers: [] };
  return {
    ok: true,
    edit: {
      kind: 'together',
      name: `group ${chosen.length === 1 ? 'a layer' : `${chosen.length} layers`}`,
      edits: [
        ...toldWhomTheyCut(slide),
        {
          kind: 'add-layers',
          slideId: slide.id,
          runs: [{ into: parent?.id ?? null, aboveId: top.id, layers: [group] }],
        },
        {
          kind: 'place-layers',
          slideId: slide.id,
          runs: [{ into: groupId, aboveId: null, layerIds: chosen.map((layer) => layer.id) }],
        },
      ],
    },
  };
}

/** What a group holds back in the pile it lay in. Where the group moves, sizes or turns them, they are given that themselves; what they cannot be given is said. */
export function ungrouped(slide: Slide, id: LayerId, nameOf: (id: LayerId) => string, frame: FrameSize): Restacked {
  const group = layerIn(slide.layers, id);
  if (group?.kind !== 'group') return no('This is no group.');
  const all = [...everyLayer(slide.layers)];
  const follower = all.find((layer) => layer.tether?.to === id);
  if (follower) return no(`“${nameOf(follower.id)}” follows this group. Untie it first.`);
  const cutter = all.find((layer) => layer.mask && masksOf(slide.layers).get(id)?.includes(layer));
  if (cutter) return no(`“${nameOf(cutter.id)}” cuts this group as a whole. Let it cut what is in it first.`);
  const own = placeOf(group);
  if (typeof own === 'string') return no(own);
  const inner = group.layers.map((layer) => placedBy(layer, own, frame));
  const stuck = inner.find((result): result is string => typeof result === 'string');
  if (stuck !== undefined) return no(stuck);
  const changed = (inner as Layer[]).filter((layer, index) => layer !== group.layers[index]);
  const parent = parentsOf(slide.layers).get(id) ?? null;
  const edits: ShowEdit[] = [
    ...toldWhomTheyCut(slide),
    ...changed.map((layer): ShowEdit => ({
      kind: 'put-layer',
      slideId: slide.id,
      layer: { ...layer, ...(layer.mask && { mask: told(slide, layer) }) },
    })),
  ];
  if (group.layers.length > 0)
    edits.push({
      kind: 'place-layers',
      slideId: slide.id,
      runs: [{ into: parent?.id ?? null, aboveId: id, layerIds: group.layers.map((layer) => layer.id) }],
    });
  edits.push({ kind: 'remove-layers', slideId: slide.id, layerIds: [id] });
  return { ok: true, edit: { kind: 'together', name: 'take a group apart', edits } };
}

/** Masks that cut what lies below them, told its name, so that it stays the same when the pile is stacked anew. */
export function toldWhomTheyCut(slide: Slide): ShowEdit[] {
  return [...everyLayer(slide.layers)]
    .filter((layer) => layer.mask?.cuts === 'below')
    .map((layer) => ({
      kind: 'set-layer-properties',
      slideId: slide.id,
      layerId: layer.id,
      properties: { mask: told(slide, layer) },
    }));
}

function told(slide: Slide, layer: Layer): Mask {
  const mask = layer.mask!;
  if (mask.cuts !== 'below') return mask;
  // A hidden mask cuts nothing now, and is told all the same.
  const seen = layer.hidden ? unhidden(slide.layers, layer.id) : slide.layers;
  const cuts = [...masksOf(seen)].filter(([, masks]) => masks.some((other) => other.id === layer.id));
  return { ...mask, cuts: cuts.map(([target]) => target) };
}

function unhidden(layers: readonly Layer[], id: LayerId): Layer[] {
  return layers.map((layer) => {
    const shown = layer.id === id ? { ...layer, hidden: false } : layer;
    return shown.kind === 'group' ? { ...shown, layers: unhidden(shown.layers, id) } : shown;
  });
}

interface FrameSize {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** What a group does to what it holds. */
interface Placing {
  readonly x: number;
  readonly y: number;
  readonly z: number;
  readonly scale: number;
  readonly turnDegrees: number;
}

function placeOf(group: GroupLayer): Placing | string {
  const channels = group.channels ?? {};
  const moving = Object.values(channels).some((channel) => isKeyed(channel));
  if (moving) return 'This group moves by keys of its own, which its layers cannot be given one by one.';
  if (group.tether) return 'This group follows another layer. Untie it first.';
  if (group.mask) return 'This group is a mask as a whole.';
  if (group.space) return 'This group has a space and a camera of its own, which would be lost.';
  if (group.hidden) return 'This group is hidden. Show it first.';
  const value = (name: keyof Channels, usual: number) => (channels[name] as number | undefined) ?? usual;
  const asOne =
    value('opacity', 1) < 1 ||
    value('blur', 0) > 0 ||
    (group.blend ?? 'normal') !== 'normal' ||
    group.edge !== undefined ||
    (['cropLeft', 'cropTop', 'cropRight', 'cropBottom'] as const).some((name) => value(name, 0) > 0);
  if (asOne)
    return 'This group is faded, softened, blended, cropped or edged as a whole; its layers one by one would look different.';
  if (value('tiltXDegrees', 0) !== 0 || value('tiltYDegrees', 0) !== 0)
    return 'This group leans as a whole; its layers one by one would lean differently.';
  const [width, height] = [channels.width as number | undefined, channels.height as number | undefined];
  const scale = width ?? height ?? 1;
  if (Math.abs((height ?? scale) - scale) > 1e-9) return 'This group is drawn wider or higher; give it one size first.';
  return { x: value('x', 0.5), y: value('y', 0.5), z: value('z', 0), scale, turnDegrees: value('turnDegrees', 0) };
}

/** A layer standing by itself where its group has put it, or why it cannot. */
function placedBy(
  layer: Layer,
  { x, y, z, scale, turnDegrees }: Placing,
  { widthPx, heightPx }: FrameSize,
): Layer | string {
  if (x === 0.5 && y === 0.5 && z === 0 && scale === 1 && turnDegrees === 0) return layer;
  const channels = layer.channels ?? {};
  const bare = channels.width === undefined && channels.height === undefined;
  if (scale !== 1 && bare && (layer.kind === 'picture' || layer.kind === 'clip'))
    return 'A picture in this group fills it, and would not look the same at that size. Give the picture a size of its own first.';
  if (layer.tether) return 'A layer in this group follows another. Untie it first.';
  if (turnDegrees !== 0 && (channels.tiltXDegrees !== undefined || channels.tiltYDegrees !== undefined))
    return 'A layer in this group leans, and the group is turned; it cannot be given both.';
  const [dx, dy] = [channels.x ?? 0.5, channels.y ?? 0.5];
  const angle = (turnDegrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle) * scale, Math.sin(angle) * scale];
  const ratio = heightPx / widthPx;
  const nx = combined(dx, dy, (a, b) => x + cos * (a - 0.5) - sin * (b - 0.5) * ratio);
  const ny = combined(dy, dx, (b, a) => y + cos * (b - 0.5) + (sin * (a - 0.5)) / ratio);
  if (turnDegrees !== 0 && (nx === null || ny === null))
    return 'A layer in this group has keys for left and right at other times than for up and down, and the group is turned.';
  const straight = (channel: Channel, by: (value: number) => number) => combined(channel, 0, by)!;
  return {
    ...layer,
    channels: {
      ...channels,
      x: turnDegrees === 0 ? straight(dx, (a) => x + scale * (a - 0.5)) : nx!,
      y: turnDegrees === 0 ? straight(dy, (b) => y + scale * (b - 0.5)) : ny!,
      ...((z !== 0 || channels.z !== undefined) && { z: straight(channels.z ?? 0, (value) => z + scale * value) }),
      ...(scale !== 1 && sizes(channels, bare, (channel) => straight(channel, (value) => value * scale))),
      ...((turnDegrees !== 0 || channels.turnDegrees !== undefined) && {
        turnDegrees: straight(channels.turnDegrees ?? 0, (value) => value + turnDegrees),
      }),
    },
  };
}

function sizes({ width, height }: Channels, bare: boolean, scaled: (channel: Channel) => Channel): Channels {
  if (bare) return { width: scaled(1), height: scaled(1) };
  return {
    ...(width !== undefined && { width: scaled(width) }),
    ...(height !== undefined && { height: scaled(height) }),
  };
}

/** A channel of two others whose keys stand at the same times; null when they do not. */
function combined(one: Channel, other: Channel, by: (one: number, other: number) => number): Channel | null {
  if (typeof one === 'number' && typeof other === 'number') return by(one, other);
  if (typeof one === 'number') return mappedKeys(other as KeyedChannel, (value) => by(one, value));
  if (typeof other === 'number') return mappedKeys(one, (value) => by(value, other));
  const alike =
    one.keys.length === other.keys.length &&
    one.smooth === other.smooth &&
    (one.still === undefined) === (other.still === undefined) &&
    one.keys.every((key, index) => {
      const twin = other.keys[index]!;
      return (
        JSON.stringify([key.at, key.easing ?? 'settle']) === JSON.stringify([twin.at, twin.easing ?? 'settle']) &&
        key.slopes === undefined &&
        twin.slopes === undefined
      );
    });
  // Smooth curves are not linear in their keys: theirs cannot be mixed.
  if (!alike || one.smooth) return null;
  return {
    ...one,
    ...(one.still !== undefined && { still: by(one.still, other.still!) }),
    keys: one.keys.map((key, index): Key => ({ ...key, value: by(key.value, other.keys[index]!.value) })),
  };
}

function mappedKeys(channel: KeyedChannel, by: (value: number) => number): KeyedChannel {
  const slope = by(1) - by(0);
  return {
    ...channel,
    ...(channel.still !== undefined && { still: by(channel.still) }),
    keys: channel.keys.map((key): Key => ({
      ...key,
      value: by(key.value),
      ...(key.slopes && { slopes: { in: key.slopes.in * slope, out: key.slopes.out * slope } }),
    })),
  };
}
