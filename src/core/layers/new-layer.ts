import { layerId, type AssetId, type LayerId } from '../show/ids';
import type { AssetFacts } from '../show/asset-facts';
import type { Layer } from '../show/layer';
import { layerFromAsset } from '../show/new-slide';
import type { FrameShape } from '../show/show';

export type NewLayerKind = 'words' | 'rectangle' | 'ellipse' | 'star' | 'gradient' | 'solid' | 'box' | 'group';

/** A layer as it is laid on: of a size that can be seen and taken hold of, in the middle. */
export function newLayer(
  kind: NewLayerKind,
  frame: Pick<FrameShape, 'widthPx' | 'heightPx'>,
  newId: () => string,
): Layer {
  const id: LayerId = layerId(newId());
  const aspect = frame.widthPx / frame.heightPx;
  const square = { width: 0.36 / Math.max(1, aspect), height: 0.36 * Math.min(1, aspect) };
  switch (kind) {
    case 'words':
      return { kind: 'words', id, title: 'Your words', subtitle: '', place: 'centre' };
    case 'rectangle':
      return {
        kind: 'shape',
        id,
        shape: { kind: 'rectangle' },
        fill: { kind: 'colour', colour: '#fcfaf5' },
        channels: { width: 0.4, height: 0.25 },
      };
    case 'ellipse':
      return {
        kind: 'shape',
        id,
        shape: { kind: 'ellipse' },
        fill: { kind: 'colour', colour: '#fcfaf5' },
        channels: square,
      };
    case 'star':
      return {
        kind: 'shape',
        id,
        shape: { kind: 'star', points: 9, depth: 0.75 },
        fill: { kind: 'colour', colour: '#c98a0c' },
        channels: square,
      };
    case 'gradient':
      return {
        kind: 'gradient',
        id,
        gradient: {
          kind: 'linear',
          angleDegrees: 90,
          stops: [
            { at: 0.4, colour: '#171513', opacity: 0 },
            { at: 1, colour: '#171513', opacity: 0.8 },
          ],
        },
      };
    case 'solid':
      return { kind: 'solid', id, colour: '#171513', channels: { opacity: 0.5 } };
    case 'box': {
      const side = { kind: 'colour', colour: '#c98a0c' } as const;
      const front = { kind: 'colour', colour: '#e8b23c' } as const;
      return {
        kind: 'box',
        id,
        depth: square.height,
        faces: { front, back: front, left: side, right: side, top: side, bottom: side },
        channels: { ...square, tiltXDegrees: -18, tiltYDegrees: 32 },
      };
    }
    case 'group':
      return { kind: 'group', id, name: 'Group', layers: [] };
  }
}

/** A file as a layer beside others: half as wide as the frame, in its own shape. A drawing stands whole. */
export function newFileLayer(asset: AssetId, facts: AssetFacts, asDrawing: boolean, newId: () => string): Layer | null {
  if (facts.kind === 'sound') return null;
  if (asDrawing) return { kind: 'drawing', id: layerId(newId()), assetId: asset, channels: { width: 0.3 } };
  return { ...layerFromAsset(asset, facts, newId), channels: { width: 0.5 } };
}
