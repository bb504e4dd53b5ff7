'use client';

import { PointerSensor, useSensor, useSensors, type Announcements, type DndContextProps } from '@dnd-kit/core';
import { useCallback, useEffect, useRef, useState, type RefObject } from 'react';
import type { SlideId } from '../../core/show/ids';
import { dropAt, type OrderDrop } from './order-drop';
import type { RowPlaces } from './row-heights';
import { TRAY_DRAG } from './tray';
import { useEdgeScroll } from './use-edge-scroll';

interface OrderDragOptions {
  readonly order: readonly SlideId[];
  readonly places: RowPlaces;
  readonly scroller: RefObject<HTMLDivElement | null>;
  /** Is told what was taken first, for as long as it is held. */
  readonly heldRef: RefObject<string | null>;
  /** What people call a slide, or a print of the tray. */
  nameOf(id: string): string;
  /** What goes along when a slide or a print of the tray is taken. */
  carriedBy(id: string): readonly string[];
  onDropSlides(ids: readonly SlideId[], where: OrderDrop): void;
  onDropPrints(ids: readonly string[], where: OrderDrop): void;
}

interface OrderDrag {
  /** Ids of slides, or of the tray's prints behind `TRAY_DRAG`, that a hand holds; the one it took first. */
  readonly dragging: readonly string[];
  readonly fromTray: boolean;
  /** Where what is held would come to stand. */
  readonly caret: OrderDrop | null;
  /** What a screen reader says of it. */
  readonly announcements: Announcements;
  readonly handlers: Pick<
    DndContextProps,
    'sensors' | 'autoScroll' | 'onDragStart' | 'onDragMove' | 'onDragEnd' | 'onDragCancel'
  >;
}

/** Dragging slides within the order and prints into it. Where they would stand is worked out from where rows lie, since only those in sight are in the page. */
export function useOrderDrag(options: OrderDragOptions): OrderDrag {
  const { order, places, scroller, heldRef } = options;
  const [dragging, setDragging] = useState<readonly string[]>([]);
  const [caret, setCaret] = useState<OrderDrop | null>(null);
  const pointer = useRef({ x: 0, y: 0 });
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  useEffect(() => {
    const follow = (event: PointerEvent) => {
      pointer.current = { x: event.clientX, y: event.clientY };
    };
    window.addEventListener('pointermove', follow, true);
    return () => window.removeEventListener('pointermove', follow, true);
  }, []);
  const fromTray = dragging[0]?.startsWith(TRAY_DRAG) ?? false;

  const whereNow = (): OrderDrop | null => {
    const box = scroller.current!.getBoundingClientRect();
    const { x, y } = pointer.current;
    const inside = x > box.left && x < box.right && y > box.top - 40 && y < box.bottom + (fromTray ? 0 : 40);
    const where = inside
      ? dropAt(order, places, x - box.left, y - box.top + scroller.current!.scrollTop, fromTray)
      : null;
    return where?.side === 'beside' && dragging.includes(where.id) ? null : where;
  };
  const follow = () => {
    const next = whereNow();
    setCaret((before) => (before?.id === next?.id && before?.side === next?.side ? before : next));
  };
  const latestFollow = useRef(follow);
  useEffect(() => {
    latestFollow.current = follow;
  });
  useEdgeScroll(
    dragging.length > 0,
    scroller,
    pointer,
    useCallback(() => latestFollow.current(), []),
  );
  const letGo = () => {
    heldRef.current = null;
    setDragging([]);
    setCaret(null);
  };
  return {
    dragging,
    fromTray,
    caret,
    announcements: {
      onDragStart: ({ active }) => `Took ${options.nameOf(String(active.id))}.`,
      onDragMove: () => undefined,
      onDragOver: () => undefined,
      onDragEnd: ({ active }) => {
        const where = whereNow();
        const name = options.nameOf(String(active.id));
        return where ? `Put ${name} ${where.side} ${options.nameOf(where.id)}.` : `${name} stays where it was.`;
      },
      onDragCancel: ({ active }) => `${options.nameOf(String(active.id))} stays where it was.`,
    },
    handlers: {
      sensors,
      autoScroll: false,
      onDragStart({ active }) {
        const carried = options.carriedBy(String(active.id));
        heldRef.current = carried[0] ?? null;
        setDragging(carried);
      },
      onDragMove: follow,
      onDragEnd() {
        // Where the hand is now: a quick one has let go before its caret was drawn.
        const where = whereNow();
        letGo();
        if (!where) return;
        if (fromTray) options.onDropPrints(dragging, where);
        else options.onDropSlides(dragging as readonly SlideId[], where);
      },
      onDragCancel: letGo,
    },
  };
}
