'use client';

import { useRef, useState } from 'react';
import type { CueId } from '../../core/show/ids';
import type { LevelPoint } from '../../core/show/placed-sound';
import type { MixPart } from '../../core/sound/mix-plan';
import type { SoundSpan } from '../../core/sound/sound-spans';
import { TICKS_PX } from './wave-tile';

/** Decibels at the left and the right edge of the strip. */
const LEAST_DB = -40;
const MOST_DB = 12;
/** A part has given way to the next after so long. */
const JOIN_MS = 40;

interface LevelLineProps {
  readonly span: SoundSpan;
  /** What is heard of it, with its fades and where it goes down. */
  readonly parts: readonly MixPart[];
  readonly widthPx: number;
  readonly pxOf: (momentMs: number) => number;
  readonly momentOf: (px: number) => number;
  readonly onChange: (id: CueId, levels: readonly LevelPoint[] | null, joins: string) => void;
}

/** How loud a song is along its way, as a thin line over the waveform; points are dragged, a click on the line makes one, Delete takes it away. */
export function LevelLine({ span, parts, widthPx, pxOf, momentOf, onChange }: LevelLineProps) {
  const { sound, startMs, endMs } = span;
  const box = useRef<SVGSVGElement>(null);
  const [dragged, setDragged] = useState<number | null>(null);
  const inner = widthPx - TICKS_PX - 12;
  const xOf = (db: number) =>
    TICKS_PX + 6 + (inner * (Math.max(LEAST_DB, Math.min(MOST_DB, db)) - LEAST_DB)) / (MOST_DB - LEAST_DB);
  const dbOf = (x: number) => LEAST_DB + ((x - TICKS_PX - 6) / inner) * (MOST_DB - LEAST_DB);
  const levels = sound.levels ?? [];
  const momentOfPoint = (point: LevelPoint) =>
    point.from === 'start' ? startMs + point.offsetMs : endMs - point.offsetMs;
  // Where it begins again, or is joined, one part gives way to the next: no change of its level.
  const joins = parts.slice(1).map((part) => part.startMs);
  const line = parts
    .flatMap((part) => part.gains)
    .filter(({ atMs }) => !joins.some((joinMs) => atMs >= joinMs - 1 && atMs <= joinMs + JOIN_MS))
    .map(({ atMs, gain }) => `${xOf(gain > 0 ? 20 * Math.log10(gain) : LEAST_DB).toFixed(1)},${pxOf(atMs).toFixed(1)}`)
    .join(' ');
  const put = (index: number, momentMs: number, db: number) => {
    const within = Math.max(startMs, Math.min(endMs, momentMs));
    // Tied to whichever end is nearer, so that it stays there when the length changes.
    const from = within - startMs <= endMs - within ? 'start' : 'end';
    const point: LevelPoint = {
      from,
      offsetMs: Math.round(from === 'start' ? within - startMs : endMs - within),
      gainDb: Math.round(Math.max(-60, Math.min(20, db - sound.gainDb)) * 10) / 10,
    };
    onChange(sound.id, [...levels.slice(0, index), point, ...levels.slice(index + 1)], `level ${sound.id} ${index}`);
  };
  const without = (index: number) => {
    const left = levels.filter((_, at) => at !== index);
    onChange(sound.id, left.length > 0 ? left : null, `without ${sound.id}`);
  };
  const placeOf = (event: { clientX: number; clientY: number }) => {
    const { left, top } = box.current!.getBoundingClientRect();
    return { db: dbOf(event.clientX - left), momentMs: momentOf(event.clientY - top) };
  };
  return (
    <svg
      ref={box}
      data-part="level-line"
      className="absolute top-0 left-0 z-10 overflow-visible"
      width={widthPx}
      height={pxOf(endMs)}
      pointerEvents="none"
    >
      {joins.map((joinMs) => (
        <line
          key={joinMs}
          x1={TICKS_PX}
          x2={widthPx}
          y1={pxOf(joinMs)}
          y2={pxOf(joinMs)}
          stroke="var(--color-saffron-deep)"
          strokeWidth={1.5}
          strokeDasharray="2 4"
        />
      ))}
      <polyline points={line} fill="none" stroke="var(--color-ink)" strokeWidth={1.5} />
      <polyline
        points={line}
        fill="none"
        stroke="transparent"
        strokeWidth={14}
        pointerEvents="stroke"
        className="cursor-copy"
        // Else the strip below would take hold of the pointer.
        onPointerDown={(event) => event.stopPropagation()}
        onClick={(event) => {
          event.stopPropagation();
          const { momentMs } = placeOf(event);
          put(levels.length, momentMs, dbOf(event.clientX - box.current!.getBoundingClientRect().left));
        }}
      >
        <title>Click to make a point</title>
      </polyline>
      {levels.map((point, index) => {
        const db = point.gainDb + sound.gainDb;
        return (
          <circle
            key={index}
            cx={xOf(db)}
            cy={pxOf(momentOfPoint(point))}
            r={dragged === index ? 7 : 5}
            fill="var(--color-card)"
            stroke="var(--color-ink)"
            strokeWidth={1.5}
            pointerEvents="all"
            tabIndex={0}
            role="slider"
            aria-label={`Level point ${index + 1}`}
            aria-valuenow={point.gainDb}
            aria-valuetext={`${point.gainDb.toFixed(1)} dB`}
            className="cursor-move touch-none"
            onPointerDown={(event) => {
              event.stopPropagation();
              event.preventDefault();
              event.currentTarget.focus();
              event.currentTarget.setPointerCapture(event.pointerId);
              setDragged(index);
            }}
            onPointerMove={(event) => {
              if (dragged !== index) return;
              const { db: to, momentMs } = placeOf(event);
              put(index, momentMs, to);
            }}
            onPointerUp={() => setDragged(null)}
            onClick={(event) => event.stopPropagation()}
            onDoubleClick={() => without(index)}
            onKeyDown={(event) => {
              const by = { ArrowLeft: [-0.5, 0], ArrowRight: [0.5, 0], ArrowUp: [0, -250], ArrowDown: [0, 250] }[
                event.key
              ];
              if (event.key === 'Delete' || event.key === 'Backspace') without(index);
              else if (by) put(index, momentOfPoint(point) + by[1]!, db + by[0]!);
              else return;
              event.preventDefault();
              event.stopPropagation();
            }}
          >
            <title>{point.gainDb.toFixed(1)} dB; double-click takes it away</title>
          </circle>
        );
      })}
    </svg>
  );
}
