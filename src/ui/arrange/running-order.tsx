'use client';

import { NO_MOVES } from '../../core/motion/plan-moves';
import { DndContext, DragOverlay } from '@dnd-kit/core';
import { defaultRangeExtractor, useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useImperativeHandle, useMemo, useRef, useState, type Ref } from 'react';
import type { SlideId } from '../../core/show/ids';
import { softnessOfSlide } from '../../core/motion/softness';
import { mainLayerOf, type Slide } from '../../core/show/show';
import { lookOf } from '../../core/show/copied-look';
import { clipSplit } from '../../core/show/split-clip';
import { caughtSeam } from '../../core/timing/caught-seam';
import { movedSeam } from '../../core/timing/moved-seam';
import { slideIndexAt, slideSpans } from '../../core/timing/slide-span';
import { nanoid } from 'nanoid';
import { toast } from 'sonner';
import { useStore } from 'zustand';
import { useCommands } from '../commands/use-commands';
import { prints, slidesByAsset } from '../gather/sheet-view';
import { clockTenths } from '../kit/clock';
import { selectionAfterClick, selectionAfterStep } from '../kit/selection';
import { usePrepared, useShow, useShowStore } from '../show/show-provider';
import { useMusic } from '../show/use-music';
import { useShowMusic } from '../show/use-show-music';
import { useKeptMoment } from '../show/kept-moment';
import { copiedLook } from './copied-look-store';
import { LookDialog } from './look-dialog';
import { OrderBar } from './order-bar';
import { carriedWith, placeOfDrop, rowAt } from './order-drop';
import { momentToPx, ORDER_PAD_PX, rowPlaces, type Scale } from './row-heights';
import type { SeamDrag } from './seam-handle';
import { useNotesBySlide } from '../guests/guests-provider';
import { useSnagsBySlide } from '../snags/snags-provider';
import { SlideRow } from './slide-row';
import { Tray, TRAY_DRAG } from './tray';
import { useOrderActions } from './use-order-actions';
import { useOrderClipboard } from './use-order-clipboard';
import { useOrderDrag } from './use-order-drag';
import { usePictureUrl } from '../show/file-url';

const LENGTH_STEP_MS = 500;
const WORDS_UP_MS = 1000;

export interface RunningOrderHands {
  /** Moves the playhead without drawing the rows again. */
  showMoment(momentMs: number): void;
}

interface RunningOrderProps {
  readonly ref: Ref<RunningOrderHands>;
  readonly scale: Scale;
  /** A slide was chosen; the viewer goes to it. */
  readonly onGo: (momentMs: number) => void;
  /** A slide is to be worked on with the bench opened wide. */
  readonly onOpen: (slide: SlideId) => void;
  readonly onPlay: (fromMs: number, untilMs: number) => void;
}

/** The slides read downwards in time. Only rows in sight are in the page. */
export function RunningOrder({ ref, scale, onGo, onPlay, onOpen }: RunningOrderProps) {
  const pictureUrl = usePictureUrl();
  const store = useShowStore();
  const prepared = usePrepared();
  const snags = useSnagsBySlide();

  const { show, moves, facts } = prepared;
  const notes = useNotesBySlide(show.slides);
  const music = useMusic();
  const heardMusic = useShowMusic();
  const entries = useShow((state) => state.entries);
  const selection = useShow((state) => state.selection);
  const anchor = useShow((state) => state.anchor);
  const [typing, setTyping] = useState<SlideId | null>(null);
  const [seam, setSeam] = useState<SeamDrag | null>(null);
  const kept = useKeptMoment();
  const [trayOpen, setTrayOpen] = useState(false);
  const look = useStore(copiedLook, (state) => state.look);
  /** The slides that a copied look is being given to. */
  const [giving, setGiving] = useState<readonly SlideId[] | null>(null);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const focus = useRef<SlideId | null>(null);
  /** What a hand holds: its row stays in the page. */
  const heldRef = useRef<string | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const playhead = useRef<HTMLDivElement>(null);

  // While a seam is dragged the order shows what would be; the show changes when it is let go.
  const slides = useMemo(() => {
    if (!seam || !show.slides[seam.index]) return show.slides;
    const lengths = new Map(
      movedSeam(show.slides, seam.index, seam.byMs, seam.way).map((entry) => [entry.slideId, entry.lengthMs]),
    );
    return show.slides.map((slide) => (lengths.has(slide.id) ? { ...slide, lengthMs: lengths.get(slide.id)! } : slide));
  }, [show.slides, seam]);
  const spans = useMemo(
    () => (slides === show.slides ? prepared.spans : slideSpans(slides)),
    [slides, show.slides, prepared.spans],
  );
  const places = useMemo(() => rowPlaces(spans, scale), [spans, scale]);
  const order = useMemo(() => slides.map((slide) => slide.id), [slides]);
  // A new one makes the rows measure again, which they must when their places change and only then.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const keyOf = useCallback((index: number) => order[index]!, [order, places]);
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: slides.length,
    getScrollElement: () => scroller.current,
    estimateSize: (index) => places.heights[index] ?? 0,
    getItemKey: keyOf,
    overscan: 4,
    paddingStart: ORDER_PAD_PX,
    paddingEnd: 80,
    // A row that is dragged stays in the page, however far the order is scrolled under it.
    rangeExtractor: (range) => {
      const row = order.indexOf(heldRef.current as SlideId);
      return row < 0
        ? defaultRangeExtractor(range)
        : [...new Set([...defaultRangeExtractor(range), row])].sort((a, b) => a - b);
    },
  });
  const latest = useRef({ spans, places, order });
  useEffect(() => {
    latest.current = { spans, places, order };
  });
  const go = useCallback(
    (index: number) => {
      const span = latest.current.spans[index];
      // A moment at which the picture has arrived and its words are up.
      if (span) onGo(span.startMs + Math.min((span.endMs - span.startMs) / 2, span.transitionMs / 2 + WORDS_UP_MS));
    },
    [onGo],
  );
  const reveal = useCallback(
    (id: SlideId) => {
      const index = latest.current.order.indexOf(id);
      if (index < 0) return;
      rows.scrollToIndex(index);
      go(index);
    },
    [go, rows],
  );
  const actions = useOrderActions(focus, reveal);

  const everyPrint = useMemo(() => prints(entries, 'taken', show.clocks), [entries, show.clocks]);
  const unused = useMemo(() => {
    const used = slidesByAsset(show.slides);
    return everyPrint.filter((entry) => !used.has(entry.assetId) && show.marks?.[entry.assetId] !== 'leave-out');
  }, [everyPrint, show.slides, show.marks]);

  // Changing the scale keeps the row in the middle where it is.
  const centre = useRef(0);
  useEffect(() => {
    const at = Math.min(centre.current, order.length - 1);
    if (at > 0) rows.scrollToIndex(at, { align: 'center' });
    // Only when the scale changes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [scale]);
  // Coming from Gather with slides just laid in: they are in sight.
  useEffect(() => {
    const at = latest.current.order.indexOf(store.getState().anchor ?? ('' as SlideId));
    if (at > 0) rows.scrollToIndex(at, { align: 'center' });
    // Only at the beginning.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);

  useImperativeHandle(
    ref,
    () => ({
      showMoment(momentMs) {
        const { spans: now, places: at } = latest.current;
        const index = slideIndexAt(now, momentMs);
        if (!playhead.current || index === null) return;
        playhead.current.style.transform = `translateY(${momentToPx(now, at, index, momentMs)}px)`;
        playhead.current.firstElementChild!.textContent = clockTenths(momentMs);
      },
    }),
    [],
  );

  const take = useCallback(
    (selected: { ids: readonly SlideId[]; anchor: SlideId | null }, focused: SlideId | null, see: boolean) => {
      store.getState().select(selected.ids, selected.anchor);
      focus.current = focused;
      if (see && focused) go(latest.current.order.indexOf(focused));
    },
    [store, go],
  );

  const click = useCallback(
    (slide: Slide, keys: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => {
      const { selection: before, anchor: from } = store.getState();
      take(selectionAfterClick(latest.current.order, before, from, slide.id, keys), slide.id, true);
      scroller.current?.focus({ preventScroll: true });
    },
    [store, take],
  );

  const type = useCallback(
    (slide: Slide | null) => {
      setTyping(slide?.id ?? null);
      if (slide) take({ ids: [slide.id], anchor: slide.id }, slide.id, true);
      else scroller.current?.focus({ preventScroll: true });
    },
    [take],
  );

  /** For the slide, or for all chosen ones when it is one of them. */
  const setLength = useCallback(
    (slide: Slide, lengthMs: number) => {
      const chosen = actions.chosen();
      actions.setLength(lengthMs, chosen.includes(slide.id) && chosen.length > 1 ? chosen : [slide.id]);
    },
    [actions],
  );
  /** A seam catches on beats. */
  const caught = useCallback(
    (drag: SeamDrag): SeamDrag => ({
      ...drag,
      ...caughtSeam(heardMusic, prepared.spans[drag.index]!.endMs, drag.byMs),
    }),
    [heardMusic, prepared.spans],
  );
  const seamDrag = useCallback((drag: SeamDrag | null) => setSeam(drag && caught(drag)), [caught]);
  const seamDone = useCallback(
    (drag: SeamDrag) => {
      setSeam(null);
      const { byMs, way, index } = caught(drag);
      if (byMs !== 0) actions.moveSeam(byMs, way, index);
    },
    [actions, caught],
  );

  const step = (by: number, stretch: boolean) => {
    const next = selectionAfterStep(order, anchor, focus.current, by, stretch);
    if (!next) return;
    take(next, next.focus, !stretch);
    rows.scrollToIndex(order.indexOf(next.focus));
  };
  const openSeam = (id: SlideId) => {
    rows.scrollToIndex(order.indexOf(id));
    // The row may come into the page with this scrolling.
    requestAnimationFrame(() =>
      scroller.current?.querySelector<HTMLElement>(`[data-slide="${id}"] [data-part=seam]`)?.click(),
    );
  };
  const down = (event?: KeyboardEvent) => (event?.key === 'ArrowUp' ? -1 : 1);
  const splitAt = (id: SlideId) => {
    const index = show.slides.findIndex((slide) => slide.id === id);
    const edit = clipSplit(
      show,
      show.slides[index]!,
      kept.getState().momentMs - prepared.spans[index]!.startMs,
      prepared.facts,
      () => nanoid(10),
    );
    if (edit) store.getState().edit(edit);
    else
      toast(
        'Nothing was split: choose a slide with a clip that does not come again, and put the viewer where the second part is to begin.',
      );
  };
  useCommands({
    'slide-step': (event) => step(down(event), false),
    'slide-stretch': (event) => step(down(event), true),
    'slide-ends': (event) => step(event?.key === 'Home' ? -order.length : order.length, event?.shiftKey ?? false),
    'all-slides': () => take({ ids: order, anchor: order[0] ?? null }, focus.current, false),
    'no-slides': () => take({ ids: [], anchor: null }, null, false),
    'move-up': () => actions.moveBy(-1),
    'move-down': () => actions.moveBy(1),
    'move-to-start': () => actions.moveToEnd('start'),
    'move-to-end': () => actions.moveToEnd('end'),
    duplicate: actions.duplicate,
    blank: actions.blank,
    remove: () => actions.remove(),
    part: actions.part,
    join: () => actions.join(actions.chosen()),
    title: anchor ? () => setTyping(anchor) : undefined,
    transition: anchor && anchor !== order[0] ? () => openSeam(anchor) : undefined,
    shorter: () => actions.changeLength(-LENGTH_STEP_MS),
    longer: () => actions.changeLength(LENGTH_STEP_MS),
    'seam-earlier': () => actions.moveSeam(-LENGTH_STEP_MS, 'roll', undefined, 'seam'),
    'seam-later': () => actions.moveSeam(LENGTH_STEP_MS, 'roll', undefined, 'seam'),
    cut: () => void document.execCommand('cut'),
    copy: () => void document.execCommand('copy'),
    captions: actions.writeCaptions,
    waits: actions.turnWaits,
    split: anchor ? () => splitAt(anchor) : undefined,
    'copy-look': anchor
      ? () => {
          copiedLook.setState({ look: lookOf(show.slides.find((slide) => slide.id === anchor)!) });
          toast('The look of this slide was copied. Choose others and press Shift Y to give it to them.');
        }
      : undefined,
    'give-look': look && actions.chosen().length > 0 ? () => setGiving(actions.chosen()) : undefined,
    tray: () => setTrayOpen(!trayOpen),
  });
  useOrderClipboard(actions);

  const nameOfHeld = (id: string) => {
    const entry = unused.find((one) => TRAY_DRAG + one.id === id);
    const index = order.indexOf(id as SlideId);
    return entry?.fileName ?? (index < 0 ? 'a slide' : `slide ${index + 1}`);
  };
  const drag = useOrderDrag({
    order,
    places,
    scroller,
    heldRef,
    nameOf: nameOfHeld,
    carriedBy: (id) =>
      id.startsWith(TRAY_DRAG)
        ? carriedWith(
            id,
            [...picked].map((entry) => TRAY_DRAG + entry),
          )
        : carriedWith<string>(id, selection.has(id as SlideId) ? actions.chosen() : []),
    onDropSlides(ids, where) {
      if (where.side === 'beside') actions.join([where.id, ...ids]);
      else
        actions.moveTo(
          order.filter((id) => ids.includes(id)),
          placeOfDrop(order, where, ids),
        );
    },
    onDropPrints(ids, where) {
      const brought = unused.filter((entry) => ids.includes(TRAY_DRAG + entry.id));
      if (where.side === 'beside') actions.putBeside(brought, where.id);
      else actions.layIn(brought, placeOfDrop(order, where, []));
      setPicked(new Set());
    },
  });
  const { dragging, caret, fromTray } = drag;
  const draggedSlide = slides.find((slide) => slide.id === dragging[0]);
  const draggedAsset = fromTray
    ? unused.find((entry) => TRAY_DRAG + entry.id === dragging[0])?.assetId
    : draggedSlide && mainLayerOf(draggedSlide)?.assetId;
  const caretNumber = order.indexOf(anchor ?? ('' as SlideId)) + 1 || null;
  const pickedEntries = () => unused.filter((entry) => picked.has(entry.id));

  return (
    <DndContext
      {...drag.handlers}
      accessibility={{
        screenReaderInstructions: { draggable: 'Drag to change the order, or press Alt with the arrow keys.' },
        announcements: drag.announcements,
      }}
    >
      <div
        ref={scroller}
        role="grid"
        aria-label="Running order"
        aria-rowcount={slides.length}
        aria-multiselectable="true"
        tabIndex={0}
        data-part="running-order"
        className="relative min-h-0 flex-1 overflow-y-auto outline-offset-[-2px] scroll-thin"
        onScroll={(event) => {
          centre.current = rowAt(places, event.currentTarget.scrollTop + event.currentTarget.clientHeight / 2);
        }}
      >
        <div role="rowgroup" style={{ height: places.totalPx + 80 }} className="relative">
          {rows.getVirtualItems().map((row) => {
            const slide = slides[row.index];
            const span = spans[row.index];
            if (!slide || !span) return null;
            return (
              <SlideRow
                key={slide.id}
                slide={slide}
                span={span}
                topPx={places.tops[row.index]!}
                heightPx={places.heights[row.index]!}
                facts={facts}
                moves={moves.get(slide.id) ?? NO_MOVES}
                music={music}
                beats={heardMusic.beats}
                snags={snags.get(slide.id)}
                notes={notes.get(slide.id)}
                enlargement={softnessOfSlide(slide, show.frame, facts, moves.get(slide.id) ?? NO_MOVES, span)}
                selected={selection.has(slide.id)}
                leading={slide.id === anchor}
                typing={slide.id === typing}
                dragged={dragging.includes(slide.id)}
                caret={caret?.id === slide.id ? caret.side : null}
                seam={seam?.index === row.index ? seam : null}
                onClick={click}
                onType={type}
                onLength={setLength}
                onGo={onGo}
                onOpen={onOpen}
                onPlay={onPlay}
                onSeamDrag={seamDrag}
                onSeamDone={seamDone}
              />
            );
          })}
          <div
            ref={playhead}
            aria-hidden="true"
            style={{ transform: `translateY(${ORDER_PAD_PX}px)` }}
            className="pointer-events-none absolute top-0 left-1 z-20 flex h-0 w-[154px] flex-row-reverse items-center"
          >
            <span className="tabular rounded-[4px] bg-red px-1 text-xs font-semibold text-white">0:00.0</span>
            <span className="h-[2px] flex-1 bg-red" />
          </div>
        </div>
      </div>
      {trayOpen && (
        <Tray
          entries={unused}
          chosen={picked}
          onChoose={setPicked}
          caretNumber={caretNumber}
          onLayIn={() => {
            actions.layIn(pickedEntries(), anchor ?? order.at(-1) ?? null);
            setPicked(new Set());
          }}
          onBeside={
            anchor
              ? () => {
                  actions.putBeside(pickedEntries(), anchor);
                  setPicked(new Set());
                }
              : null
          }
        />
      )}
      <OrderBar actions={actions} trayOpen={trayOpen} trayCount={unused.length} onTray={() => setTrayOpen(!trayOpen)} />
      {giving && look && <LookDialog look={look} slideIds={giving} onClose={() => setGiving(null)} />}
      <DragOverlay dropAnimation={null}>
        {draggedAsset && (
          <span className="relative block w-[150px] rotate-2 bg-print p-1 shadow-raised">
            {/* eslint-disable-next-line @next/next/no-img-element */}
            <img src={pictureUrl(draggedAsset, 320)} alt="" className="h-20 w-full object-cover" />
            {dragging.length > 1 && (
              <span className="tabular absolute -top-2 -right-2 grid size-6 place-items-center rounded-full bg-red text-xs font-semibold text-white">
                {dragging.length}
              </span>
            )}
          </span>
        )}
      </DragOverlay>
    </DndContext>
  );
}
