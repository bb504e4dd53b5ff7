'use client';

import { useCallback, useMemo } from 'react';
import { loupeArrivals, loupePlanOf, placeUnder, type LoupePlan } from '../../core/builds/loupe';
import { makeLoupe } from '../../core/builds/make-builds';
import type { ScreenPoint } from '../../core/frame/layer-sight';
import { parentsOf } from '../../core/frame/layer-poses';
import type { ClipLayer, GroupLayer, Layer, PictureLayer } from '../../core/show/layer';
import { layerIn } from '../../core/show/pile';
import { say, useChosenLayer, useOpenSlide } from './use-slide';

interface OpenLoupe {
  readonly group: GroupLayer;
  readonly base: PictureLayer | ClipLayer;
  readonly plan: LoupePlan;
  /** When it arrives at each place. */
  readonly arrivals: readonly number[];
  change(part: Partial<LoupePlan>, joins?: string): void;
  /** A place to where a point of the frame is at a moment. */
  movePlace(index: number, offsetMs: number, to: ScreenPoint, joins: string): void;
  /** The place it is at or nearest to in time. */
  placeAt(offsetMs: number): number;
}

/** The loupe that is chosen, or a part of which is, as long as it is as it was made; null otherwise. */
export function useLoupePlan(): OpenLoupe | null {
  const chosen = useChosenLayer();
  const { slide, around, prepared, edit } = useOpenSlide();
  const group = useMemo(() => (chosen ? tiedGroupAround(slide.layers, chosen) : null), [slide.layers, chosen]);
  const plan = useMemo(() => (group ? loupePlanOf(around, group) : null), [around, group]);
  const base = group?.tether ? layerIn(slide.layers, group.tether.to) : null;
  const change = useCallback(
    (part: Partial<LoupePlan>, joins?: string) => {
      if (!group || !plan || !base) return;
      const made = makeLoupe(prepared, slide, base.id, { ...plan, ...part }, group.id);
      if (made.ok) edit(made.edit, joins && `${joins} ${group.id}`);
      else say(made.sentence);
    },
    [group, plan, base, prepared, slide, edit],
  );
  if (!group || !plan || (base?.kind !== 'picture' && base?.kind !== 'clip')) return null;
  const arrivals = loupeArrivals(plan);
  return {
    group,
    base,
    plan,
    arrivals,
    change,
    movePlace: (index, offsetMs, to, joins) => {
      const place = placeUnder(around, base, offsetMs, to);
      change({ places: plan.places.map((other, own) => (own === index ? place : other)) }, joins);
    },
    placeAt: (offsetMs) => {
      const away = (ms: number) => Math.max(0, ms - offsetMs, offsetMs - ms - plan.restMs);
      return arrivals.reduce((best, ms, index) => (away(ms) < away(arrivals[best]!) ? index : best), 0);
    },
  };
}

/** The group with a tether that a layer is, or is a part of. */
function tiedGroupAround(layers: readonly Layer[], layer: Layer): GroupLayer | null {
  const parents = parentsOf(layers);
  for (let at: Layer | undefined = layer; at; at = parents.get(at.id)) if (at.kind === 'group' && at.tether) return at;
  return null;
}
