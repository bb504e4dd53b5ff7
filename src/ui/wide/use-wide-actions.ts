'use client';

import { nanoid } from 'nanoid';
import { columnKeys, columnState } from '../../core/layers/column-keys';
import { columnsOf } from '../../core/layers/columns';
import { grouped, ungrouped } from '../../core/layers/group';
import { duplicated, steppedOnce, topmost } from '../../core/layers/stack';
import { layerId } from '../../core/show/ids';
import type { Layer } from '../../core/show/layer';
import { layerIn } from '../../core/show/pile';
import { momentOfFrame } from '../../core/timing/frames';
import type { Actions } from '../commands/use-commands';
import { useKeyHere } from './use-key-here';
import { say, useOpenSlide } from './use-slide';
import { useWide, useWideStore } from './wide-store';

/** Everything the wide bench does by key, and offers in the palette. */
export function useWideActions(onFold: () => void): Actions {
  const store = useWideStore();
  const { slide, prepared, seenMs, edit, nameOf } = useOpenSlide();
  const putKeys = useKeyHere();
  const chosen = useWide((state) => state.chosen);
  const anchor = useWide((state) => state.anchor);
  const asking = useWide((state) => state.asking);
  const layer = anchor === null ? null : layerIn(slide.layers, anchor);
  const one = layer !== null && chosen.size === 1;
  const ids = topmost(slide, chosen).map((other) => other.id);
  const { frame } = prepared.show;

  const restack = (by: 1 | -1) => {
    const step = anchor === null ? null : steppedOnce(slide, anchor, by);
    if (step) edit(step);
    else say(by > 0 ? 'It lies nearest already.' : 'It lies at the bottom already.');
  };
  const toggled = (part: 'hidden' | 'locked') => () => {
    const on = !layer?.[part];
    edit({
      kind: 'together',
      name: part === 'hidden' ? (on ? 'hide layers' : 'show layers') : on ? 'lock layers' : 'unlock layers',
      edits: ids.map((id) => ({
        kind: 'set-layer-properties',
        slideId: slide.id,
        layerId: id,
        properties: { [part]: on ? true : null },
      })),
    });
  };
  const keyHere = (of: Layer) => {
    const { offsetMs } = store.getState();
    const columns = columnsOf(of);
    const moving = columns.filter((column) => columnState(of, column) === 'moving');
    const keyed = moving.length > 0 ? moving : columns.filter(({ id }) => id === 'place');
    putKeys(of, keyed, offsetMs);
  };
  const toKey = (of: Layer, by: 1 | -1) => {
    const { offsetMs, seek } = store.getState();
    const moments = columnsOf(of).flatMap((column) => columnKeys(of, column, seenMs).map(({ ms }) => ms));
    const half = momentOfFrame(1, frame.rate) / 2;
    const others = moments.filter((ms) => (by > 0 ? ms > offsetMs + half : ms < offsetMs - half));
    if (others.length === 0) return say(by > 0 ? 'There is no later key.' : 'There is no earlier key.');
    seek(by > 0 ? Math.min(...others) : Math.max(...others));
  };

  return {
    fold: () => {
      if (asking) store.getState().set({ asking: null });
      else onFold();
    },
    'stage-play': () => store.getState().toggle(),
    'layer-nearer': anchor ? () => restack(1) : undefined,
    'layer-farther': anchor ? () => restack(-1) : undefined,
    'layer-group': chosen.size > 0 ? group : undefined,
    'layer-ungroup': one && layer.kind === 'group' ? () => ungroup(layer) : undefined,
    'layer-duplicate': chosen.size > 0 ? duplicate : undefined,
    'layer-remove': chosen.size > 0 ? remove : undefined,
    'layer-hide': chosen.size > 0 ? toggled('hidden') : undefined,
    'layer-lock': chosen.size > 0 ? toggled('locked') : undefined,
    'layer-name': one
      ? () => window.dispatchEvent(new CustomEvent('tanager-name-layer', { detail: layer.id }))
      : undefined,
    'key-here': one ? () => keyHere(layer) : undefined,
    'key-before': one ? () => toKey(layer, -1) : undefined,
    'key-after': one ? () => toKey(layer, 1) : undefined,
    'layer-tie': one ? () => store.getState().set({ asking: { for: 'leader', layerId: layer.id } }) : undefined,
  };

  function group(): void {
    const id = layerId(nanoid(10));
    const made = grouped(slide, new Set(ids), id, 'Group');
    if (!made.ok) return say(made.sentence);
    if (edit(made.edit)) store.getState().choose([id], id);
  }

  function ungroup(of: Layer): void {
    const inner = of.kind === 'group' ? of.layers.map((layer) => layer.id) : [];
    const made = ungrouped(slide, of.id, (id) => nameOf(id), frame);
    if (!made.ok) return say(made.sentence);
    if (edit(made.edit)) store.getState().choose(inner, inner[0] ?? null);
  }

  function duplicate(): void {
    const made = duplicated(slide, new Set(ids), () => nanoid(10));
    if (made && edit(made.edit)) store.getState().choose(made.layerIds, made.layerIds[0] ?? null);
  }

  function remove(): void {
    if (topmost(slide, chosen).some((other) => other.locked))
      return say('A locked layer is not removed. Unlock it first.');
    edit({ kind: 'remove-layers', slideId: slide.id, layerIds: ids });
  }
}
