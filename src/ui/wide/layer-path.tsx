'use client';

import { useMemo, useRef } from 'react';
import { nanoid } from 'nanoid';
import { sightOf, type LayerSight, type ScreenPoint } from '../../core/frame/layer-sight';
import { columnKeys, columnState, withValues } from '../../core/layers/column-keys';
import { columnsOf } from '../../core/layers/columns';
import { placedAt } from '../../core/layers/stand';
import { everyLayer } from '../../core/show/layer';
import { PathPlace } from './path-place';
import { useOpenSlide } from './use-slide';
import { useWideStore } from './wide-store';

/** A dotted way is worked out at so many moments. */
const LOOKS = 48;
/** Of a slide with more layers than this only the places are shown. */
const MOST_LAYERS_LOOKED_AT = 60;

/** The way a layer takes over the slide, with its places numbered: a click goes there, a drag moves that place alone. */
export function LayerPath({ sight, at }: { sight: LayerSight; at: (point: ScreenPoint) => { x: number; y: number } }) {
  const store = useWideStore();
  const { around, slide, seenMs, put } = useOpenSlide();
  const { layer } = sight;
  const joins = useRef('');
  const column = columnsOf(layer).find(({ id }) => id === 'place')!;
  const moving = columnState(layer, column) === 'moving';
  const keys = useMemo(() => (moving ? columnKeys(layer, column, seenMs) : []), [moving, layer, column, seenMs]);
  const path = useMemo(() => {
    if (keys.length < 2 || [...everyLayer(slide.layers)].length > MOST_LAYERS_LOOKED_AT) return null;
    const [from, to] = [keys[0]!.ms, keys.at(-1)!.ms];
    return Array.from({ length: LOOKS + 1 }, (_, step) =>
      sightOf(around, layer.id, from + ((to - from) * step) / LOOKS),
    ).flatMap((seen) => (seen ? [seen.centre] : []));
  }, [keys, slide.layers, around, layer.id]);
  const places = useMemo(() => {
    const seen = keys.flatMap((key) => {
      const there = sightOf(around, layer.id, Math.min(key.ms, seenMs - 1));
      return there ? [{ ms: key.ms, point: there.centre }] : [];
    });
    // Two keys at one place are a rest there.
    return seen.filter(
      ({ point }, index) =>
        index === 0 || Math.hypot(point.x - seen[index - 1]!.point.x, point.y - seen[index - 1]!.point.y) > 1e-6,
    );
  }, [keys, around, layer.id, seenMs]);
  if (places.length < 2) return null;
  const now = at(sight.centre);
  /** Whether all keys from one moment to another stand at one place. */
  const samePlace = (from: number, to: number) => !places.some(({ ms }) => ms > from && ms <= to);
  const drag = (ms: number, to: ScreenPoint) => {
    const there = placedAt(around, layer.id, ms, to);
    if (!there) return;
    const resting = keys.filter((key) => key.ms >= ms && samePlace(ms, key.ms));
    const changed = resting.reduce(
      (before, key) => withValues(before, { 'channels/x': there.x, 'channels/y': there.y }, key.ms, seenMs),
      layer,
    );
    put('move a place of the way', changed, joins.current);
  };
  return (
    <g data-part="path">
      {path && (
        <polyline
          points={path
            .map(at)
            .map(({ x, y }) => `${x},${y}`)
            .join(' ')}
          fill="none"
          stroke="#fcfaf5"
          strokeWidth={2}
          strokeDasharray="1 5"
          strokeLinecap="round"
          className="pointer-events-none"
        />
      )}
      {places.map(({ ms, point }, index) => (
        <PathPlace
          key={index}
          number={index + 1}
          ms={ms}
          spot={at(point)}
          underLayer={Math.hypot(at(point).x - now.x, at(point).y - now.y) < 12}
          onGo={() => store.getState().seek(ms)}
          onHold={() => {
            joins.current = `place ${nanoid(6)}`;
          }}
          onDrag={(to) => drag(ms, to)}
        />
      ))}
    </g>
  );
}
