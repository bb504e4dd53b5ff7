'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { clsx } from 'clsx';
import { useEffect, useImperativeHandle, useMemo, useRef, useState, type Ref } from 'react';
import { takesOf } from '../../core/sound/sound-spans';
import type { PreparedShow } from '../../core/frame/plan-frame';
import { mainLayerOf, wordsOf } from '../../core/show/show';
import { slideIndexAt } from '../../core/timing/slide-span';
import { momentToPx, ORDER_PAD_PX, rowPlaces } from '../arrange/row-heights';
import { SoundStrip } from '../arrange/sound-strip';
import { clockTenths } from '../kit/clock';
import { useShow } from '../show/show-provider';
import { useMusic } from '../show/use-music';
import { usePictureUrl } from '../show/file-url';

export interface SoundColumnHands {
  showMoment(momentMs: number): void;
}

interface SoundColumnProps {
  readonly ref: Ref<SoundColumnHands>;
  readonly prepared: PreparedShow;
  readonly onGo: (momentMs: number) => void;
}

const SIDE_PX = 82;

/** The running order turned to sound: the same slides in true scale, the waveform wide. */
export function SoundColumn({ ref, prepared, onGo }: SoundColumnProps) {
  const pictureUrl = usePictureUrl();
  const { show, spans, facts } = prepared;
  const music = useMusic();
  const select = useShow((state) => state.select);
  const anchor = useShow((state) => state.anchor);
  const scroller = useRef<HTMLDivElement>(null);
  const playhead = useRef<HTMLDivElement>(null);
  const [widthPx, setWidthPx] = useState(360);
  const places = useMemo(() => rowPlaces(spans, 'true'), [spans]);
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: show.slides.length,
    getScrollElement: () => scroller.current,
    estimateSize: (index) => places.heights[index] ?? 0,
    overscan: 4,
    paddingStart: ORDER_PAD_PX,
    paddingEnd: 60,
  });
  useEffect(() => rows.measure(), [places, rows]);
  useEffect(() => {
    const watcher = new ResizeObserver(([entry]) =>
      setWidthPx(Math.max(120, Math.round(entry!.contentRect.width - SIDE_PX - 190))),
    );
    watcher.observe(scroller.current!);
    return () => watcher.disconnect();
  }, []);
  useImperativeHandle(
    ref,
    () => ({
      showMoment(momentMs) {
        const index = slideIndexAt(spans, momentMs);
        if (!playhead.current || index === null) return;
        playhead.current.style.transform = `translateY(${momentToPx(spans, places, index, momentMs)}px)`;
        playhead.current.firstElementChild!.textContent = clockTenths(momentMs);
      },
    }),
    [spans, places],
  );

  return (
    <div ref={scroller} data-part="sound-column" className="relative min-h-0 flex-1 overflow-y-auto scroll-thin">
      {show.slides.length === 0 && (
        <p className="p-8 text-center text-base text-soft">
          The sound of the show is drawn here once there are slides in the order.
        </p>
      )}
      <div style={{ height: places.totalPx + 60 }} className="relative">
        {rows.getVirtualItems().map((row) => {
          const slide = show.slides[row.index];
          const span = spans[row.index];
          if (!slide || !span) return null;
          const heightPx = places.heights[row.index]!;
          const layer = mainLayerOf(slide);
          const printHeight = Math.min(58, heightPx - 12);
          return (
            <div
              key={slide.id}
              onClick={(event) => {
                select([slide.id], slide.id);
                const box = event.currentTarget.getBoundingClientRect();
                onGo(span.startMs + ((event.clientY - box.top) / heightPx) * (span.endMs - span.startMs));
              }}
              style={{ transform: `translateY(${places.tops[row.index]}px)`, height: heightPx }}
              className={clsx(
                'absolute inset-x-0 flex gap-2 border-t border-rule pl-3',
                slide.id === anchor && 'bg-card',
              )}
            >
              <span className="tabular w-[60px] shrink-0 pt-1.5">{clockTenths(span.startMs)}</span>
              <SoundStrip
                music={music}
                startMs={span.startMs}
                endMs={span.endMs}
                widthPx={widthPx}
                heightPx={heightPx}
                takes={takesOf(slide, facts)}
              />
              <button type="button" className="my-1.5 flex min-w-0 flex-1 items-start gap-2 text-left">
                {layer && printHeight > 16 ? (
                  // The print is already as small as it is shown.
                  // eslint-disable-next-line @next/next/no-img-element
                  <img
                    src={pictureUrl(layer.assetId, 320)}
                    alt=""
                    className="shrink-0 bg-print object-cover p-[2px] shadow-print"
                    style={{ height: printHeight, width: printHeight * 1.5 }}
                  />
                ) : null}
                <span className="min-w-0">
                  <span className="sr-only">choose slide</span>
                  <span className="tabular">
                    {row.index + 1}
                    <span aria-hidden="true" className="text-[9px]">
                      ▸
                    </span>
                  </span>
                  <span className="block truncate text-soft">{wordsOf(slide)?.title}</span>
                </span>
              </button>
            </div>
          );
        })}
        <div
          ref={playhead}
          aria-hidden="true"
          className="pointer-events-none absolute top-0 left-1 z-20 flex h-0 items-center"
          style={{ width: widthPx + SIDE_PX, transform: `translateY(${ORDER_PAD_PX}px)` }}
        >
          <span className="tabular rounded-[4px] bg-red px-1 text-xs font-semibold text-white">0:00.0</span>
          <span className="h-[2px] flex-1 bg-red" />
        </div>
      </div>
    </div>
  );
}
