'use client';

import { clsx } from 'clsx';
import { useEffect, useMemo, useRef, useState, type PointerEvent } from 'react';
import { nanoid } from 'nanoid';
import { columnKeys, columnState, withColumnParked } from '../../core/layers/column-keys';
import { columnsOf, type Column } from '../../core/layers/columns';
import type { Layer } from '../../core/show/layer';
import { SHORTEST_SLIDE_MS } from '../../core/show/limits';
import { Pick } from '../kit/pick';
import { KeyColumn } from './key-column';
import { KeyFoot } from './key-foot';
import { COLUMN_PX } from './key-scale';
import { useKeyHere } from './use-key-here';
import { useChosenLayer, useOpenSlide } from './use-slide';
import { useWide, useWideStore } from './wide-store';

/** Columns that are there before anything is keyed. */
const USUAL = new Set(['place', 'size', 'turn', 'opacity']);
const TOP_PX = 10;
const BOTTOM_PX = 16;
const CLOCK_PX = 44;

/** The keys of the chosen layer in columns, one a channel, with time running down. */
export function KeysPanel() {
  const layer = useChosenLayer();
  const { nameOf } = useOpenSlide();
  const count = useWide((state) => state.chosen.size);
  return (
    <section aria-label="Keys" data-part="keys" className="flex h-full min-h-0 flex-col">
      <h2 className="flex h-11 shrink-0 items-baseline gap-2 truncate px-4 pt-2.5 text-base">
        Keys <span className="truncate font-sans text-sm font-normal text-soft">{layer ? nameOf(layer) : ''}</span>
      </h2>
      {layer ? (
        <Columns key={layer.id} layer={layer} />
      ) : (
        <p className="px-4 text-soft">
          {count > 1
            ? 'Several layers are chosen. Choose one to see its keys.'
            : 'Choose a layer, on the stage or in the pile, to see how it moves.'}
        </p>
      )}
    </section>
  );
}

function Columns({ layer }: { layer: Layer }) {
  const store = useWideStore();
  const { seenMs, slide, edit, nameOf } = useOpenSlide();
  const offsetMs = useWide((state) => state.offsetMs);
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const [height, setHeight] = useState(300);
  const [stretch, setStretch] = useState<{ seenMs: number; lengthMs: number; y: number; joins: string } | null>(null);
  const body = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const holder = body.current;
    if (!holder) return;
    const watch = new ResizeObserver(() => setHeight(holder.clientHeight));
    watch.observe(holder);
    return () => watch.disconnect();
  }, []);
  const all = useMemo(() => columnsOf(layer), [layer]);
  const shown = all.filter(
    (column) => USUAL.has(column.id) || opened.has(column.id) || columnState(layer, column) !== 'still',
  );
  // While the slide's length is pulled the scale stays, so that what moves is seen to move.
  const scale = (height - TOP_PX - BOTTOM_PX) / (stretch?.seenMs ?? seenMs);
  const yOf = (ms: number) => TOP_PX + ms * scale;
  const msAt = (clientY: number) => {
    const box = body.current!.getBoundingClientRect();
    return Math.min(seenMs - 1, Math.max(0, (clientY - box.top - TOP_PX) / scale));
  };
  const keyHere = useKeyHere();
  const scrub = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0 || (event.target as Element).closest('button')) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    store.getState().seek(msAt(event.clientY));
  };
  const ticks = ticksOf(seenMs, scale);
  const pull = (event: PointerEvent<HTMLButtonElement>) => {
    if (!stretch) return;
    const lengthMs = Math.max(
      SHORTEST_SLIDE_MS,
      Math.round((stretch.lengthMs + (event.clientY - stretch.y) / scale) / 50) * 50,
    );
    if (lengthMs !== slide.lengthMs)
      edit({ kind: 'set-lengths', lengths: [{ slideId: slide.id, lengthMs }] }, stretch.joins);
  };
  return (
    <>
      <div className="min-h-0 flex-1 overflow-x-auto overflow-y-hidden scroll-thin">
        <div className="flex h-full min-w-max flex-col">
          <div className="flex h-9 shrink-0 items-end" style={{ paddingLeft: CLOCK_PX }}>
            {shown.map((column) => (
              <ColumnHead
                key={column.id}
                layer={layer}
                column={column}
                onKey={() => keyHere(layer, [column], offsetMs)}
              />
            ))}
          </div>
          <div
            ref={body}
            className="relative min-h-0 flex-1 touch-none select-none"
            data-part="keys-body"
            onPointerDown={scrub}
            onPointerMove={(event) => {
              if (event.currentTarget.hasPointerCapture(event.pointerId)) store.getState().seek(msAt(event.clientY));
            }}
          >
            {ticks.map((ms) => (
              <div
                key={ms}
                className="pointer-events-none absolute inset-x-0 border-t border-rule/70"
                style={{ top: yOf(ms) }}
              >
                <span className="tabular absolute -top-[9px] left-2 bg-paper pr-1 text-xs text-soft">
                  {(ms / 1000).toFixed(1)}
                </span>
              </div>
            ))}
            {shown.map((column, at) => (
              <KeyColumn
                key={column.id}
                layer={layer}
                column={column}
                leftPx={CLOCK_PX + at * COLUMN_PX}
                yOf={yOf}
                msAt={msAt}
                ghosts={stretch ? columnKeys(layer, column, stretch.seenMs).map(({ ms }) => ms) : []}
              />
            ))}
            <div
              className="pointer-events-none absolute inset-x-0 z-10 h-[2px] bg-red"
              style={{ top: yOf(offsetMs) - 1 }}
              data-part="keys-playhead"
            >
              <span className="tabular absolute -top-[9px] left-0.5 rounded-[4px] bg-red px-1 text-xs font-semibold text-white">
                {(offsetMs / 1000).toFixed(1)}
              </span>
            </div>
            <button
              type="button"
              aria-label="The slide’s end: drag to change its length, arrow keys by a tenth of a second"
              title="Drag: how long the slide lasts. Keys go where they are tied."
              data-part="length-handle"
              className="absolute inset-x-0 z-10 flex h-3 cursor-ns-resize items-center justify-center border-t-2 border-ink/60"
              style={{ top: Math.min(height - 13, yOf(seenMs)) }}
              onPointerDown={(event) => {
                event.stopPropagation();
                event.currentTarget.setPointerCapture(event.pointerId);
                setStretch({ seenMs, lengthMs: slide.lengthMs, y: event.clientY, joins: `length ${nanoid(6)}` });
              }}
              onPointerMove={pull}
              onPointerUp={() => setStretch(null)}
              onPointerCancel={() => setStretch(null)}
              onKeyDown={(event) => {
                const by = event.key === 'ArrowDown' ? 100 : event.key === 'ArrowUp' ? -100 : 0;
                if (by === 0) return;
                event.preventDefault();
                event.stopPropagation();
                const lengthMs = Math.max(SHORTEST_SLIDE_MS, slide.lengthMs + by);
                edit({ kind: 'set-lengths', lengths: [{ slideId: slide.id, lengthMs }] }, `length keys ${slide.id}`);
              }}
            >
              <span className="h-[3px] w-8 rounded-full bg-ink/60" />
            </button>
          </div>
        </div>
      </div>
      <div className="flex shrink-0 flex-wrap items-center gap-2 border-t border-rule px-3 py-2">
        <Pick
          label="Key another channel"
          value="more"
          groups={[
            {
              name: null,
              options: [
                { value: 'more', label: 'another channel …' },
                ...all.filter((column) => !shown.includes(column)).map(({ id, name }) => ({ value: id, label: name })),
              ],
            },
          ]}
          onChange={(id) => {
            if (id !== 'more') setOpened(new Set([...opened, id]));
          }}
        />
        <span className="tabular ml-auto text-soft" title={`How long ${nameOf(layer)} is seen with its slide`}>
          seen {(seenMs / 1000).toFixed(1)} s
        </span>
      </div>
      <KeyFoot layer={layer} columns={all} />
    </>
  );
}

function ColumnHead({ layer, column, onKey }: { layer: Layer; column: Column; onKey: () => void }) {
  const store = useWideStore();
  const { seenMs, put } = useOpenSlide();
  const state = columnState(layer, column);
  return (
    <div className="flex flex-col items-center" style={{ width: COLUMN_PX }}>
      {state !== 'still' && (
        <button
          type="button"
          aria-pressed={state === 'moving'}
          aria-label={
            state === 'moving' ? `${column.name}: stand still, keep the keys` : `${column.name}: go by its keys again`
          }
          title={state === 'moving' ? 'Stand still as it is now; its keys are kept' : 'Go by its keys again'}
          data-part="park"
          data-column={column.id}
          onClick={() => {
            const { offsetMs } = store.getState();
            const parked = state === 'moving';
            put(
              parked ? `let ${column.name} stand still` : `let ${column.name} go by its keys`,
              withColumnParked(layer, column, parked, offsetMs, seenMs),
            );
          }}
          className={clsx(
            'h-3 w-6 rounded-full border',
            state === 'moving' ? 'border-slate bg-slate' : 'border-soft bg-transparent',
          )}
        />
      )}
      <button
        type="button"
        data-part="key-here"
        data-column={column.id}
        aria-label={`${column.name}: a key here`}
        title="Puts a key where the red line is"
        onClick={onKey}
        className="max-w-full truncate rounded-sm px-1 text-xs hover:bg-rule/60"
      >
        {column.name}
      </button>
    </div>
  );
}

/** Times that are written beside the columns: so many that they can be read. */
function ticksOf(seenMs: number, scale: number): number[] {
  const step = [100, 200, 500, 1000, 2000, 5000, 10_000, 30_000, 60_000].find((ms) => ms * scale >= 34) ?? 300_000;
  return Array.from({ length: Math.floor(seenMs / step) + 1 }, (_, index) => index * step);
}
