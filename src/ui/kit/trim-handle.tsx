'use client';

import { useState, type KeyboardEvent, type PointerEvent, type RefObject } from 'react';

interface TrimHandleProps {
  readonly label: string;
  readonly part: string;
  readonly ms: number;
  /** Of the whole strip. */
  readonly lengthMs: number;
  /** As it is read out. */
  readonly text: string;
  readonly strip: RefObject<HTMLElement | null>;
  /** Of the line and its grip. */
  readonly colour: 'red' | 'saffron';
  readonly onFocus?: () => void;
  readonly onBlur?: () => void;
  /** @param free nothing is to catch it @param held while the hand has not let go */
  readonly onDrag: (ms: number, held: boolean, free: boolean) => void;
  /** By a key; true when it meant something here. */
  readonly onKey: (event: KeyboardEvent) => boolean;
}

const COLOURS = { red: 'bg-red', saffron: 'bg-saffron-deep' } as const;

/** An end of the part that is used, on a strip of the whole: dragged, or moved by keys. */
export function TrimHandle(props: TrimHandleProps) {
  const { label, part, ms, lengthMs, text, strip, colour, onFocus, onBlur, onDrag, onKey } = props;
  const [held, setHeld] = useState(false);
  const msAt = (event: PointerEvent) => {
    const box = strip.current!.getBoundingClientRect();
    return ((event.clientX - box.left) / box.width) * lengthMs;
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={Math.round(lengthMs)}
      aria-valuenow={Math.round(ms)}
      aria-valuetext={text}
      data-part={part}
      className="absolute inset-y-0 z-10 w-4 -translate-x-1/2 cursor-ew-resize touch-none outline-offset-2"
      style={{ left: `${(100 * Math.min(lengthMs, ms)) / lengthMs}%` }}
      onFocus={onFocus}
      onBlur={onBlur}
      onPointerDown={(event) => {
        event.preventDefault();
        event.currentTarget.setPointerCapture(event.pointerId);
        event.currentTarget.focus();
        setHeld(true);
      }}
      onPointerMove={(event) => {
        if (held) onDrag(msAt(event), true, event.altKey);
      }}
      onPointerUp={(event) => {
        if (!held) return;
        setHeld(false);
        onDrag(msAt(event), false, event.altKey);
      }}
      onKeyDown={(event) => {
        if (!onKey(event)) return;
        event.preventDefault();
        event.stopPropagation();
      }}
    >
      <span className={`absolute inset-y-0 left-1/2 w-[3px] -translate-x-1/2 ${COLOURS[colour]}`} />
      <span
        className={`absolute top-1/2 left-1/2 h-6 w-2.5 -translate-1/2 rounded-sm border border-white ${COLOURS[colour]}`}
      />
    </div>
  );
}
