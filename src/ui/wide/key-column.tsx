'use client';

import { clsx } from 'clsx';
import { nanoid } from 'nanoid';
import { useRef } from 'react';
import { anyValueAt, isKeyed, keysOf } from '../../core/keys/edit-keys';
import { channelAt } from '../../core/layers/channel-paths';
import { columnKeys, columnState, withKeyGone, withKeyShifted, type ColumnKey } from '../../core/layers/column-keys';
import type { Column } from '../../core/layers/columns';
import type { Layer } from '../../core/show/layer';
import { momentOfFrame } from '../../core/timing/frames';
import { COLUMN_PX } from './key-scale';
import { keyChosen } from './key-chosen';
import { useKeyHere } from './use-key-here';
import { useOpenSlide } from './use-slide';
import { useWide, useWideStore } from './wide-store';

const TIED_SIGN = { start: '⊤', end: '⊥', stretch: '↕' } as const;
const TIED_WORDS = { start: 'tied to the start', end: 'tied to the end', stretch: 'stretches with the slide' } as const;
/** How far a way swings to either side of its column. */
const SWING_PX = 13;
const LOOKS = 40;

interface KeyColumnProps {
  readonly layer: Layer;
  readonly column: Column;
  readonly leftPx: number;
  readonly yOf: (ms: number) => number;
  readonly msAt: (clientY: number) => number;
  /** Where its keys stood before the slide’s length was pulled. */
  readonly ghosts: readonly number[];
}

/** One column: a punch for each key, a bar where it rests, the way between two keys as its value goes. */
export function KeyColumn({ layer, column, leftPx, yOf, msAt, ghosts }: KeyColumnProps) {
  const store = useWideStore();
  const { seenMs, prepared, put } = useOpenSlide();
  const keyHere = useKeyHere();
  const chosen = useWide((state) => state.key);
  const held = useRef<{ key: ColumnKey; layer: Layer; at: number; joins: string } | null>(null);
  const keys = columnKeys(layer, column, seenMs);
  const parked = columnState(layer, column) === 'parked';
  const frameMs = momentOfFrame(1, prepared.show.frame.rate);
  const chosenKey = keyChosen(keys, chosen, layer, column);
  const shift = (key: ColumnKey, from: Layer, toMs: number, joins: string) => {
    const moved = withKeyShifted(from, key, toMs, seenMs);
    put('move a key', moved, joins);
    const there = columnKeys(moved, column, seenMs).find(({ keys: own }) =>
      own.some(({ path, index }) => path === key.keys[0]!.path && index === key.keys[0]!.index),
    );
    store.getState().set({ key: { layerId: layer.id, columnId: column.id, ms: there?.ms ?? toMs } });
  };
  return (
    <div
      className="absolute inset-y-0"
      style={{ left: leftPx, width: COLUMN_PX }}
      data-part="key-column"
      data-column={column.id}
      onDoubleClick={(event) => keyHere(layer, [column], msAt(event.clientY))}
    >
      <svg
        aria-hidden="true"
        className={clsx('absolute inset-0 h-full w-full overflow-visible', parked && 'opacity-40')}
      >
        <line x1={COLUMN_PX / 2} x2={COLUMN_PX / 2} y1={yOf(0)} y2={yOf(seenMs)} className="stroke-rule" />
        <Way layer={layer} column={column} keys={keys} yOf={yOf} />
        {ghosts.map((ms, index) => (
          <line
            key={index}
            x1={COLUMN_PX / 2 - 12}
            x2={COLUMN_PX / 2 + 12}
            y1={yOf(ms)}
            y2={yOf(ms)}
            className="stroke-soft"
            strokeDasharray="3 3"
          />
        ))}
      </svg>
      {keys.map((key, index) => {
        const isChosen = key === chosenKey;
        return (
          <button
            key={index}
            type="button"
            data-part="key"
            data-column={column.id}
            data-ms={Math.round(key.ms)}
            data-tied={key.tied}
            aria-pressed={isChosen}
            aria-label={`${column.name} key at ${(key.ms / 1000).toFixed(2)} seconds, ${TIED_WORDS[key.tied]}`}
            title={`${(key.ms / 1000).toFixed(2)} s, ${TIED_WORDS[key.tied]}. Drag or arrow keys: another time. Delete: away.`}
            style={{ top: yOf(key.ms) - 9, left: COLUMN_PX / 2 - 17 }}
            className={clsx('absolute z-20 h-[18px] w-[34px] cursor-ns-resize touch-none', parked && 'opacity-40')}
            onPointerDown={(event) => {
              event.stopPropagation();
              event.currentTarget.setPointerCapture(event.pointerId);
              store.getState().set({ key: { layerId: layer.id, columnId: column.id, ms: key.ms } });
              held.current = { key, layer, at: event.clientY, joins: `key ${nanoid(6)}` };
            }}
            onPointerMove={(event) => {
              const now = held.current;
              if (!now || Math.abs(event.clientY - now.at) < 3) return;
              shift(now.key, now.layer, msAt(event.clientY), now.joins);
            }}
            onPointerUp={(event) => {
              const now = held.current;
              held.current = null;
              if (now && Math.abs(event.clientY - now.at) < 3) store.getState().seek(key.ms);
            }}
            onDoubleClick={(event) => event.stopPropagation()}
            onKeyDown={(event) => {
              const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
              if (by !== 0 && !event.altKey) {
                event.preventDefault();
                event.stopPropagation();
                shift(
                  key,
                  layer,
                  key.ms + by * frameMs * (event.shiftKey ? 10 : 1),
                  `key keys ${layer.id} ${column.id} ${index}`,
                );
              }
              if (event.key === 'Delete' || event.key === 'Backspace') {
                event.preventDefault();
                event.stopPropagation();
                put('remove a key', withKeyGone(layer, key));
              }
            }}
          >
            <svg aria-hidden="true" viewBox="0 0 34 18" className="h-full w-full">
              <path d="M6 9h22" strokeWidth={2.5} className={isChosen ? 'stroke-red' : 'stroke-slate'} />
              <path
                d="M11 9a6 5.5 0 0 0 12 0z"
                strokeWidth={1.5}
                className={isChosen ? 'fill-red stroke-red' : 'fill-paper stroke-slate'}
              />
            </svg>
            <span aria-hidden="true" className="absolute -right-0.5 -top-1 text-[10px] leading-none text-soft">
              {TIED_SIGN[key.tied]}
            </span>
          </button>
        );
      })}
    </div>
  );
}

/** How the first of the column's channels that changes goes: swinging between its least and its most. */
function Way({
  layer,
  column,
  keys,
  yOf,
}: {
  layer: Layer;
  column: Column;
  keys: readonly ColumnKey[];
  yOf: (ms: number) => number;
}) {
  const { seenMs } = useOpenSlide();
  const path =
    column.channels.find(({ path: own }) => varies(layer, own)) ??
    column.channels.find(({ path: own }) => isKeyed(channelAt(layer, own)));
  const channel = path && channelAt(layer, path.path);
  if (!path || !isKeyed(channel) || keys.length < 2) return null;
  const { still: _still, ...moving } = channel;
  const middle = COLUMN_PX / 2;
  const [from, to] = [keys[0]!.ms, keys.at(-1)!.ms];
  const moments = [
    ...new Set([
      ...Array.from({ length: LOOKS + 1 }, (_, step) => from + ((to - from) * step) / LOOKS),
      ...keys.map((key) => key.ms),
    ]),
  ].sort((a, b) => a - b);
  const values = moments.map((ms) => anyValueAt(moving as typeof channel, ms, seenMs));
  if (typeof values[0] === 'string')
    return values
      .slice(1)
      .map((value, index) => (
        <rect
          key={index}
          x={middle - 4}
          width={8}
          y={yOf(moments[index]!)}
          height={Math.max(0.5, yOf(moments[index + 1]!) - yOf(moments[index]!) + 0.5)}
          fill={String(value)}
        />
      ));
  const numbers = values as number[];
  const [least, most] = [Math.min(...numbers), Math.max(...numbers)];
  const x = (value: number) =>
    most > least ? middle + (2 * ((value - least) / (most - least)) - 1) * SWING_PX : middle;
  const rests = keys.slice(1).filter((key, index) => {
    const [a, b] = [keys[index]!.ms, key.ms].map((ms) => Number(anyValueAt(moving as typeof channel, ms, seenMs)));
    const half = Number(anyValueAt(moving as typeof channel, (keys[index]!.ms + key.ms) / 2, seenMs));
    return a === b && half === a;
  });
  return (
    <>
      {rests.map((key) => {
        const before = keys[keys.indexOf(key) - 1]!;
        const at = x(Number(anyValueAt(moving as typeof channel, key.ms, seenMs)));
        return (
          <rect
            key={key.ms}
            x={at - 3}
            width={6}
            y={yOf(before.ms)}
            height={Math.max(0, yOf(key.ms) - yOf(before.ms))}
            className="fill-slate/30"
          />
        );
      })}
      <polyline
        points={numbers.map((value, index) => `${x(value)},${yOf(moments[index]!)}`).join(' ')}
        fill="none"
        className="stroke-slate"
        strokeWidth={2}
      />
    </>
  );
}

function varies(layer: Layer, path: string): boolean {
  const keys = keysOf(channelAt(layer, path));
  return keys.some((key) => JSON.stringify(valueOf(key)) !== JSON.stringify(valueOf(keys[0]!)));
}

const valueOf = (key: object) => ('colour' in key ? key.colour : (key as { value: number }).value);
