import { orNull } from '../../schema/schema';
import type { Edge, Layer } from '../layer';
import { EDGE } from '../schemas/edge-schema';
import { atLayers, changeLayers, done, placeOfLayer, refused, type LayerAddress } from './changing';
import type { EditRecord } from './edit-record';

interface Entry extends LayerAddress {
  readonly edge: Edge | null;
}

export interface SetEdge {
  readonly kind: 'set-edge';
  readonly edges: readonly Entry[];
}

export const setEdge: EditRecord<SetEdge> = {
  kind: 'set-edge',
  parts: { edges: atLayers<Entry>({ edge: orNull(EDGE) }) },
  apply(show, edit) {
    const { show: after, before } = changeLayers<Entry>(
      show,
      edit.edges,
      (layer, { edge }): Layer => {
        const { edge: _before, ...rest } = layer;
        return edge ? { ...rest, edge } : rest;
      },
      (layer, address) => ({ ...address, edge: layer.edge ?? null }),
    );
    return before.length > 0 ? done(after, { kind: 'set-edge', edges: before }) : refused('layer-not-found');
  },
  touched: (edit) => edit.edges.map((entry) => placeOfLayer(entry, 'edge')),
  sentence: (edit) =>
    edit.edges.length === 1 ? 'change the edge' : `change the edges of ${edit.edges.length} pictures`,
};
