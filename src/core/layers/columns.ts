import { isLit, type Layer } from '../show/layer';
import { LIGHT_AMOUNTS } from '../show/light-amounts';
import { channelsOf, type ChannelInfo, type ChannelPath } from './channel-paths';

/** Channels that people think of as one, and key together: where a layer stands is one thing, not an x and a y. */
export interface Column {
  readonly id: string;
  readonly name: string;
  readonly channels: readonly ChannelInfo[];
}

const TOGETHER: readonly { readonly id: string; readonly name: string; readonly paths: readonly ChannelPath[] }[] = [
  { id: 'place', name: 'place', paths: ['channels/x', 'channels/y'] },
  { id: 'size', name: 'size', paths: ['channels/width', 'channels/height'] },
  { id: 'turn', name: 'turn', paths: ['channels/turnDegrees'] },
  { id: 'tilt', name: 'tilt', paths: ['channels/tiltXDegrees', 'channels/tiltYDegrees'] },
  { id: 'near', name: 'nearness', paths: ['channels/z'] },
  { id: 'opacity', name: 'opacity', paths: ['channels/opacity'] },
  { id: 'blur', name: 'blur', paths: ['channels/blur'] },
  {
    id: 'crop',
    name: 'crop',
    paths: ['channels/cropLeft', 'channels/cropTop', 'channels/cropRight', 'channels/cropBottom'],
  },
  { id: 'colour', name: 'colour', paths: ['colour', 'fill/colour', 'style/colour'] },
  { id: 'accent', name: 'subtitle colour', paths: ['style/accent'] },
  { id: 'feather', name: 'soft edge', paths: ['edge/feather'] },
  { id: 'outline', name: 'outline', paths: ['edge/outline/width'] },
  {
    id: 'shadow',
    name: 'shadow',
    paths: ['edge/shadow/x', 'edge/shadow/y', 'edge/shadow/softness', 'edge/shadow/opacity'],
  },
  { id: 'mask', name: 'mask’s softness', paths: ['mask/feather'] },
  { id: 'depth', name: 'depth', paths: ['depth'] },
  { id: 'camera', name: 'camera', paths: ['space/x', 'space/y', 'space/z'] },
  { id: 'distance', name: 'camera’s distance', paths: ['space/distance'] },
  { id: 'look', name: 'where it looks', paths: ['space/turnDegrees', 'space/tiltXDegrees', 'space/tiltYDegrees'] },
];

/** The columns a layer has keys in or may have: in the order people look for them. */
export function columnsOf(layer: Layer): readonly Column[] {
  const known = new Map(channelsOf(layer).map((channel) => [channel.path, channel]));
  const own = TOGETHER.flatMap(({ id, name, paths }) => {
    const channels = inUse(layer, paths).flatMap((path) => known.get(path) ?? []);
    return channels.length > 0 ? [{ id, name, channels }] : [];
  });
  return [...own, ...stops(known), ...light(layer, known)];
}

/** A picture that was given one of its sides keeps its own shape: only that one is keyed. */
function inUse(layer: Layer, paths: readonly ChannelPath[]): readonly ChannelPath[] {
  const { width, height } = layer.channels ?? {};
  if (paths[0] !== 'channels/width' || (width === undefined) === (height === undefined)) return paths;
  return [width === undefined ? 'channels/height' : 'channels/width'];
}

function stops(known: ReadonlyMap<ChannelPath, ChannelInfo>): Column[] {
  return [...known.values()]
    .filter(({ path }) => path.includes('/stops/'))
    .map((channel, index) => ({ id: `stop-${index}`, name: `colour ${index + 1}`, channels: [channel] }));
}

function light(layer: Layer, known: ReadonlyMap<ChannelPath, ChannelInfo>): Column[] {
  if (!isLit(layer)) return [];
  return LIGHT_AMOUNTS.flatMap(({ name, called }) => {
    const channel = known.get(`light/${name}`);
    return channel ? [{ id: `light-${name}`, name: called, channels: [channel] }] : [];
  });
}
