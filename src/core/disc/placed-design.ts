import { solid, WORDS_MARGIN } from '../mounts/design';
import type { Channel } from '../keys/channel';
import { layerId } from '../show/ids';
import type { Channels, Layer, WordsLayer } from '../show/layer';
import type { FrameShape, Slide } from '../show/show';
import type { Place } from './menu-pages';

type Size = Pick<FrameShape, 'widthPx' | 'heightPx'>;

/** Layers that can be put elsewhere one by one; others stand in a frame of their own. */
const SIMPLE: ReadonlySet<Layer['kind']> = new Set([
  'picture',
  'clip',
  'words',
  'shape',
  'solid',
  'gradient',
  'drawing',
]);

export const isSimpleDesign = ({ layers }: Pick<Slide, 'layers'>): boolean =>
  layers.every((layer) => SIMPLE.has(layer.kind) && !layer.mask && !layer.tether);

/** The part of a frame that a place is. */
export function sizeOfPlace(frame: Size, place: Place): Size {
  return {
    widthPx: Math.round(frame.widthPx * (place.right - place.left)),
    heightPx: Math.round(frame.heightPx * (place.bottom - place.top)),
  };
}

/**
 * The layers of a slide that was designed for a frame of a place's size, put into that place of a larger frame.
 *
 * @param frame the larger one
 */
export function inPlace({ backing, layers }: Slide, frame: Size, place: Place): Layer[] {
  const [width, height] = [place.right - place.left, place.bottom - place.top];
  const all = backing.kind === 'colour' ? [solid('backing', backing.colour), ...layers] : layers;
  const small = sizeOfPlace(frame, place);
  return all.map((layer): Layer => {
    if (layer.kind === 'words') return wordsInPlace(layer, frame, small, place);
    const { channels = {} } = layer;
    const whole = channels.width === undefined && channels.height === undefined;
    const moved: Channels = {
      ...channels,
      x: mapped(channels.x ?? 0.5, width, place.left),
      y: mapped(channels.y ?? 0.5, height, place.top),
      ...(whole && { width, height }),
      ...(channels.width !== undefined && { width: mapped(channels.width, width, 0) }),
      ...(channels.height !== undefined && { height: mapped(channels.height, height, 0) }),
    };
    return { ...layer, channels: moved } as Layer;
  });
}

/** A whole design made smaller, as large as there is room for in a place. */
export function asCard({ backing, layers }: Slide, place: Place): Layer {
  const margin = 0.05;
  const share = Math.min(place.right - place.left, place.bottom - place.top) - margin;
  return {
    kind: 'group',
    id: layerId('design'),
    layers: backing.kind === 'colour' ? [solid('backing', backing.colour), ...layers] : layers,
    channels: {
      x: (place.left + place.right) / 2 + (place.left === 0 ? margin / 4 : -margin / 4),
      y: (place.top + place.bottom) / 2,
      width: share,
      height: share,
    },
  };
}

function mapped(channel: Channel, times: number, plus: number): Channel {
  if (typeof channel === 'number') return channel * times + plus;
  return {
    ...channel,
    keys: channel.keys.map((key) => ({
      ...key,
      value: key.value * times + plus,
      ...(key.slopes && { slopes: { in: key.slopes.in * times, out: key.slopes.out * times } }),
    })),
    ...(channel.still !== undefined && { still: channel.still * times + plus }),
  };
}

/** Words stand by the frame's edges, with a margin that goes by its shorter side; where they stand is told from there. */
function wordsInPlace(layer: WordsLayer, frame: Size, small: Size, place: Place): WordsLayer {
  const shorter = (size: Size) => Math.min(size.widthPx, size.heightPx);
  const margins = (shorter(small) - shorter(frame)) * WORDS_MARGIN;
  const along = (
    channel: Channel | undefined,
    side: 'start' | 'middle' | 'end',
    from: number,
    smallPx: number,
    wholePx: number,
  ) => {
    const times = smallPx / wholePx;
    if (side === 'middle') return mapped(channel ?? 0.5, times, from);
    const edge = side === 'start' ? from * wholePx + margins : from * wholePx + smallPx - wholePx - margins;
    return mapped(channel ?? 0.5, times, 0.5 - 0.5 * times + edge / wholePx);
  };
  const across = layer.place.includes('left') ? 'start' : layer.place.includes('right') ? 'end' : 'middle';
  const down = layer.place.startsWith('top') ? 'start' : layer.place.startsWith('bottom') ? 'end' : 'middle';
  const { style } = layer;
  const narrower = small.widthPx / frame.widthPx;
  return {
    ...layer,
    channels: {
      ...layer.channels,
      x: along(layer.channels?.x, across, place.left, small.widthPx, frame.widthPx),
      y: along(layer.channels?.y, down, place.top, small.heightPx, frame.heightPx),
    },
    style: {
      ...style,
      measure: (style?.measure ?? 0.8) * narrower,
      ...(style?.room !== undefined && { room: (style.room * small.heightPx) / frame.heightPx }),
      ...(style?.size !== undefined && { size: (style.size * shorter(small)) / shorter(frame) }),
    },
  };
}
