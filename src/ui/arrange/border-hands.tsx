'use client';

import { nanoid } from 'nanoid';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { PreparedShow } from '../../core/frame/plan-frame';
import { factsInUse } from '../../core/motion/crop';
import { picturesOf, type Window } from '../../core/show/layout';
import type { Slide } from '../../core/show/show';
import { bordersOf, putIntoWindows, windowsOn, withBorderAt, type Border } from '../../core/show/windows';
import { useShow } from '../show/show-provider';

/** A border that comes so near to a half or a third of the frame, in pixels of the screen, is laid there. */
const CATCHES_PX = 6;
const CATCHES_AT = [1 / 3, 1 / 2, 2 / 3];
const STEP = 0.01;
const COARSE_STEP = 0.05;

/** Hands on the borders between the windows of a slide's pictures, over the viewer. */
export function BorderHands({ prepared, index }: { readonly prepared: PreparedShow; readonly index: number }) {
  const slide = prepared.show.slides[index]!;
  const windows = windowsOn(slide);
  if (!windows) return null;
  return (
    <div className="pointer-events-none absolute inset-0" data-part="border-hands">
      {bordersOf(windows).map((border) => (
        <BorderHand
          key={`${border.along} ${border.before.join()} ${border.after.join()}`}
          border={border}
          windows={windows}
          slide={slide}
          prepared={prepared}
        />
      ))}
    </div>
  );
}

interface BorderHandProps {
  readonly border: Border;
  readonly windows: readonly Window[];
  readonly slide: Slide;
  readonly prepared: PreparedShow;
}

function BorderHand({ border, windows, slide, prepared }: BorderHandProps) {
  const edit = useShow((state) => state.edit);
  const held = useRef<(Pick<BorderHandProps, 'border' | 'windows' | 'slide'> & { joins: string }) | null>(null);
  const { along, at, gap, from, to } = border;
  const upright = along === 'x';
  const put = (of: Omit<BorderHandProps, 'prepared'>, wanted: number, joins: string) => {
    const sizes = picturesOf(of.slide).map((layer) => {
      const known = factsInUse(layer, prepared.facts.get(layer.assetId));
      return known && known.kind !== 'sound' ? known : null;
    });
    const moved = putIntoWindows(of.slide, withBorderAt(of.windows, of.border, wanted), sizes, 'move a border');
    if (moved) edit(moved, joins);
  };
  const move = (event: PointerEvent<HTMLElement>) => {
    const now = held.current;
    const frame = event.currentTarget.parentElement?.getBoundingClientRect();
    if (!now || !frame) return;
    const [place, long] = upright
      ? [(event.clientX - frame.left) / frame.width, frame.width]
      : [(event.clientY - frame.top) / frame.height, frame.height];
    const near = event.altKey ? undefined : CATCHES_AT.find((line) => Math.abs(line - place) * long <= CATCHES_PX);
    put(now, near ?? place, now.joins);
  };
  const press = (event: KeyboardEvent<HTMLElement>) => {
    const way = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -1, ArrowDown: 1 }[event.key];
    if (way === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    put({ border, windows, slide }, at + way * (event.shiftKey ? COARSE_STEP : STEP), `border by keys ${slide.id}`);
  };
  const end = () => {
    held.current = null;
  };
  return (
    <div
      role="separator"
      tabIndex={0}
      aria-orientation={upright ? 'vertical' : 'horizontal'}
      aria-label={
        upright ? 'Border between left and right: arrows move it' : 'Border between above and below: arrows move it'
      }
      aria-valuenow={Math.round(100 * at)}
      aria-valuemin={0}
      aria-valuemax={100}
      title="Drag the border"
      data-part="border-hand"
      data-along={along}
      className={`group pointer-events-auto absolute grid touch-none place-items-center outline-none ${upright ? 'cursor-col-resize' : 'cursor-row-resize'}`}
      style={
        upright
          ? {
              left: `calc(${100 * (at - gap / 2)}% - 5px)`,
              width: `calc(${100 * gap}% + 10px)`,
              top: `${100 * from}%`,
              height: `${100 * (to - from)}%`,
            }
          : {
              top: `calc(${100 * (at - gap / 2)}% - 5px)`,
              height: `calc(${100 * gap}% + 10px)`,
              left: `${100 * from}%`,
              width: `${100 * (to - from)}%`,
            }
      }
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = { border, windows, slide, joins: `border ${nanoid(6)}` };
      }}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={end}
      onKeyDown={press}
    >
      <span
        aria-hidden="true"
        className={`rounded-full bg-lamp opacity-0 shadow-raised group-hover:opacity-90 group-focus-visible:bg-red group-focus-visible:opacity-100 ${upright ? 'h-10 w-[3px]' : 'h-[3px] w-10'}`}
      />
    </div>
  );
}
