'use client';

import { DndContext, DragOverlay, PointerSensor, useSensor, useSensors, type DragMoveEvent } from '@dnd-kit/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { nanoid } from 'nanoid';
import { useCallback, useEffect, useImperativeHandle, useMemo, useRef, useState, type Ref } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { blankSlide, copyOfSlide } from '../../core/show/new-slide';
import type { SlideId } from '../../core/show/ids';
import { mainLayerOf, SHORTEST_SLIDE_MS, type Slide } from '../../core/show/show';
import { slideIndexAt } from '../../core/timing/slide-span';
import { clockTenths } from '../kit/clock';
import { selectionAfterClick, selectionAfterStep } from '../kit/selection';
import { useTypedKey } from '../kit/use-typed-key';
import { usePrepared, useShow, useShowStore } from '../show/show-provider';
import { useMusic } from '../show/use-music';
import { momentToPx, ORDER_PAD_PX, rowPlaces, type Scale } from './row-heights';
import { SlideRow } from './slide-row';

const INK = '#211d19';
const LENGTH_STEP_MS = 500;
const WORDS_UP_MS = 1000;

export interface RunningOrderHands {
  /** Moves the playhead without drawing the rows again. */
  showMoment(momentMs: number): void;
  type(): void;
}

interface RunningOrderProps {
  readonly ref: Ref<RunningOrderHands>;
  readonly scale: Scale;
  /** A slide was chosen; the viewer goes to it. */
  readonly onGo: (momentMs: number) => void;
}

/** The slides read downwards in time. Only rows in sight are in the page. */
export function RunningOrder({ ref, scale, onGo }: RunningOrderProps) {
  const store = useShowStore();
  const prepared = usePrepared();
  const { show, spans, moves, facts } = prepared;
  const music = useMusic();
  const selection = useShow((state) => state.selection);
  const anchor = useShow((state) => state.anchor);
  const [typing, setTyping] = useState<SlideId | null>(null);
  const [dragging, setDragging] = useState<readonly SlideId[]>([]);
  const [caret, setCaret] = useState<{ id: SlideId; side: 'before' | 'after' } | null>(null);
  const focus = useRef<SlideId | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const playhead = useRef<HTMLDivElement>(null);
  const places = useMemo(() => rowPlaces(spans, scale), [spans, scale]);
  const order = useMemo(() => show.slides.map((slide) => slide.id), [show.slides]);
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({ count: show.slides.length, getScrollElement: () => scroller.current, estimateSize: (index) => places.heights[index] ?? 0, getItemKey: (index) => order[index]!, overscan: 4, paddingStart: ORDER_PAD_PX, paddingEnd: 80 });
  const latest = useRef({ spans, places, order, show });
  useEffect(() => { latest.current = { spans, places, order, show }; });

  // Changing the scale keeps the row in the middle where it is.
  const centre = useRef(0);
  useEffect(() => {
    rows.measure();
    const at = Math.min(centre.current, order.length - 1);
    if (at > 0) rows.scrollToIndex(at, { align: 'center' });
    // Only when the scale changes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [scale]);
  useEffect(() => rows.measure(), [places, rows]);

  useImperativeHandle(ref, () => ({
    showMoment(momentMs) {
      const { spans: now, places: at } = latest.current;
      const index = slideIndexAt(now, momentMs);
      if (!playhead.current || index === null) return;
      playhead.current.style.transform = `translateY(${momentToPx(now, at, index, momentMs)}px)`;
      playhead.current.firstElementChild!.textContent = clockTenths(momentMs);
    },
    type: () => { if (anchor) setTyping(anchor); },
  }), [anchor]);

  const take = useCallback((selected: { ids: readonly SlideId[]; anchor: SlideId | null }, focused: SlideId | null, go: boolean) => {
    store.getState().select(selected.ids, selected.anchor);
    focus.current = focused;
    const index = latest.current.order.indexOf(focused ?? ('' as SlideId));
    if (index < 0) return;
    const span = latest.current.spans[index]!;
    // A moment at which the picture has arrived and its words are up.
    if (go) onGo(span.startMs + Math.min((span.endMs - span.startMs) / 2, span.transitionMs / 2 + WORDS_UP_MS));
  }, [store, onGo]);

  const click = useCallback((slide: Slide, keys: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => {
    const { selection: before, anchor: from } = store.getState();
    take(selectionAfterClick(latest.current.order, before, from, slide.id, keys), slide.id, true);
    scroller.current?.focus({ preventScroll: true });
  }, [store, take]);

  const type = useCallback((slide: Slide | null) => {
    setTyping(slide?.id ?? null);
    if (slide) take({ ids: [slide.id], anchor: slide.id }, slide.id, true);
    else scroller.current?.focus({ preventScroll: true });
  }, [take]);

  /** For the slide, or for all chosen ones when it is one of them. */
  const setLength = useCallback((slide: Slide, lengthMs: number) => {
    const { selection: chosen, edit } = store.getState();
    const ids = chosen.has(slide.id) && chosen.size > 1 ? [...chosen] : [slide.id];
    edit({ kind: 'set-lengths', lengths: ids.map((slideId) => ({ slideId, lengthMs })) });
  }, [store]);

  const chosen = () => latest.current.order.filter((id) => store.getState().selection.has(id));
  const moveTo = (ids: readonly SlideId[], afterId: SlideId | null) => {
    if (ids.length > 0) store.getState().edit({ kind: 'move-slides', runs: [{ slideIds: ids, afterId }] });
  };
  const moveBy = (step: -1 | 1) => {
    const ids = chosen();
    const rest = order.filter((id) => !ids.includes(id));
    if (ids.length === 0 || rest.length === 0) return;
    const before = order.slice(0, order.indexOf(step < 0 ? ids[0]! : ids.at(-1)!)).filter((id) => !ids.includes(id)).length;
    const at = Math.min(rest.length, Math.max(0, before + step));
    moveTo(ids, at === 0 ? null : rest[at - 1]!);
  };
  const step = (by: number, stretch: boolean) => {
    const next = selectionAfterStep(order, anchor, focus.current, by, stretch);
    if (!next) return;
    take(next, next.focus, !stretch);
    rows.scrollToIndex(order.indexOf(next.focus));
  };
  const changeLength = (by: number) => {
    const ids = new Set(chosen());
    const lengths = show.slides.filter((slide) => ids.has(slide.id)).map((slide) => ({ slideId: slide.id, lengthMs: Math.max(SHORTEST_SLIDE_MS, slide.lengthMs + by) }));
    if (lengths.length > 0) store.getState().edit({ kind: 'set-lengths', lengths }, `lengths ${[...ids].join()}`);
  };
  const remove = () => {
    const ids = chosen();
    if (ids.length === 0) return;
    const after = order.slice(order.indexOf(ids.at(-1)!) + 1).find((id) => !ids.includes(id)) ?? order.filter((id) => !ids.includes(id)).at(-1) ?? null;
    store.getState().edit({ kind: 'remove-slides', slideIds: ids });
    take({ ids: after ? [after] : [], anchor: after }, after, false);
  };
  const add = (slides: readonly Slide[]) => {
    store.getState().edit({ kind: 'add-slides', runs: [{ afterId: chosen().at(-1) ?? order.at(-1) ?? null, slides }] });
    store.getState().select(slides.map((slide) => slide.id), slides[0]!.id);
    focus.current = slides.at(-1)!.id;
  };
  useHotkeys('up, shift+up, down, shift+down', (event) => { if (inViewer(event)) return; event.preventDefault(); step(event.key === 'ArrowDown' ? 1 : -1, event.shiftKey); });
  useHotkeys('alt+up, alt+down', (event) => { event.preventDefault(); moveBy(event.key === 'ArrowDown' ? 1 : -1); });
  useHotkeys('alt+home, alt+end', (event) => { event.preventDefault(); moveTo(chosen(), event.key === 'Home' ? null : order.filter((id) => !selection.has(id)).at(-1) ?? null); });
  useHotkeys('mod+a', (event) => { event.preventDefault(); take({ ids: order, anchor: order[0] ?? null }, focus.current, false); });
  useHotkeys('escape', () => take({ ids: [], anchor: null }, null, false));
  useHotkeys('delete, backspace', (event) => { event.preventDefault(); remove(); });
  useHotkeys('mod+d', (event) => { event.preventDefault(); const slides = show.slides.filter((slide) => selection.has(slide.id)); if (slides.length > 0) add(slides.map((slide) => copyOfSlide(slide, () => nanoid(10)))); });
  useHotkeys('b', () => add([blankSlide(show.defaultLengthMs, INK, () => nanoid(10))]));
  useHotkeys('t', (event) => { event.preventDefault(); if (anchor) setTyping(anchor); });
  useTypedKey(['-', '−', '+', '='], (sign) => changeLength(sign === '+' || sign === '=' ? LENGTH_STEP_MS : -LENGTH_STEP_MS));

  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const whereOver = (event: DragMoveEvent): { id: SlideId; side: 'before' | 'after' } | null => {
    const { over, active } = event;
    const dragged = active.rect.current.translated;
    if (!over || !dragged) return null;
    const middle = dragged.top + dragged.height / 2;
    return { id: over.id as SlideId, side: middle < over.rect.top + over.rect.height / 2 ? 'before' : 'after' };
  };
  const drop = () => {
    const ids = dragging;
    setDragging([]);
    setCaret(null);
    if (!caret || ids.includes(caret.id)) return;
    const rest = order.filter((id) => !ids.includes(id));
    const at = rest.indexOf(caret.id) + (caret.side === 'after' ? 1 : 0);
    moveTo(ids, at === 0 ? null : rest[at - 1]!);
  };
  const draggedSlide = show.slides.find((slide) => slide.id === dragging[0]);
  const draggedLayer = draggedSlide && mainLayerOf(draggedSlide);

  return (
    <DndContext
      sensors={sensors}
      onDragStart={({ active }) => setDragging(selection.has(active.id as SlideId) ? chosen() : [active.id as SlideId])}
      onDragMove={(event) => setCaret(whereOver(event))}
      onDragEnd={drop}
      onDragCancel={() => { setDragging([]); setCaret(null); }}
      accessibility={{ screenReaderInstructions: { draggable: 'Drag to change the order, or press Alt with the arrow keys.' } }}
    >
      <div
        ref={scroller}
        role="grid"
        aria-label="Running order"
        aria-rowcount={show.slides.length}
        aria-multiselectable="true"
        tabIndex={0}
        data-part="running-order"
        className="relative min-h-0 flex-1 overflow-y-auto outline-offset-[-2px] scroll-thin"
        onScroll={(event) => {
          const middle = event.currentTarget.scrollTop + event.currentTarget.clientHeight / 2;
          const index = places.tops.findIndex((top, at) => top + places.heights[at]! > middle);
          if (index >= 0) centre.current = index;
        }}
      >
        <div role="rowgroup" style={{ height: places.totalPx + 80 }} className="relative">
          {rows.getVirtualItems().map((row) => {
            const slide = show.slides[row.index];
            const span = spans[row.index];
            if (!slide || !span) return null;
            const layer = mainLayerOf(slide);
            const narration = slide.narration ? facts.get(slide.narration.assetId) : undefined;
            return (
              <SlideRow
                key={slide.id}
                slide={slide}
                span={span}
                topPx={places.tops[row.index]!}
                heightPx={places.heights[row.index]!}
                facts={layer ? facts.get(layer.assetId) : undefined}
                move={layer ? moves.get(layer.id) : undefined}
                narrationMs={narration?.kind === 'sound' ? narration.lengthMs : null}
                music={music}
                selected={selection.has(slide.id)}
                leading={slide.id === anchor}
                typing={slide.id === typing}
                dragged={dragging.includes(slide.id)}
                caret={caret?.id === slide.id ? caret.side : null}
                onClick={click}
                onType={type}
                onLength={setLength}
                onGo={onGo}
              />
            );
          })}
          <div ref={playhead} aria-hidden="true" style={{ transform: `translateY(${ORDER_PAD_PX}px)` }} className="pointer-events-none absolute top-0 left-1 z-20 flex h-0 w-[150px] items-center">
            <span className="tabular rounded-[4px] bg-red px-1 text-xs font-semibold text-white">0:00.0</span>
            <span className="h-[2px] flex-1 bg-red" />
          </div>
        </div>
      </div>
      <DragOverlay dropAnimation={null}>
        {draggedLayer && (
          <span className="relative block w-[170px] rotate-2 bg-white p-1 shadow-raised">
            {/* eslint-disable-next-line @next/next/no-img-element */}
            <img src={`/api/pictures/${draggedLayer.assetId}?width=320`} alt="" className="h-24 w-full object-cover" />
            {dragging.length > 1 && <span className="tabular absolute -top-2 -right-2 grid size-6 place-items-center rounded-full bg-red text-xs font-semibold text-white">{dragging.length}</span>}
          </span>
        )}
      </DragOverlay>
    </DndContext>
  );
}

function inViewer(event: KeyboardEvent): boolean {
  return event.target instanceof Element && event.target.closest('[data-part=viewer], [role=tabpanel], [role=slider]') !== null;
}
