'use client';

import { clsx } from 'clsx';
import { useDeferredValue, useImperativeHandle, useMemo, useRef, useState, type Ref } from 'react';
import type { PreparedShow } from '../../core/frame/plan-frame';
import type { CueId } from '../../core/show/ids';
import { mainLayerOf, wordsOf } from '../../core/show/show';
import { anchorName, endAt, startAt } from '../../core/sound/cue-ends';
import { planMix } from '../../core/sound/plan-mix';
import { beatNear, type ShowMusic } from '../../core/sound/show-beats';
import { soundSpans, type SoundSpan } from '../../core/sound/sound-spans';
import { catchName, caughtSeam } from '../../core/timing/caught-seam';
import { movedSeam } from '../../core/timing/moved-seam';
import { showLengthMs } from '../../core/timing/slide-span';
import { CaptionBlocks, type CaptionBlocksProps } from '../captions/caption-blocks';
import { clock, clockTenths } from '../kit/clock';
import { usePictureUrl } from '../show/file-url';
import { useShow } from '../show/show-provider';
import { useMusic } from '../show/use-music';
import type { PlannedPiece } from './band-messages';
import { CueBracket, LANE_PX } from './cue-bracket';
import { lanesOf } from './lanes';
import { LevelLine } from './level-line';
import { BOTTOM_PX, momentOf, pxOf } from './sound-scale';
import { useSight } from './use-sight';
import { TICKS_PX, TILE_PX, WaveTile } from './wave-tile';

export interface SoundColumnHands {
  showMoment(momentMs: number): void;
}

interface SoundColumnProps {
  readonly ref: Ref<SoundColumnHands>;
  readonly prepared: PreparedShow;
  readonly music: ShowMusic;
  readonly pxPerSecond: number;
  readonly chosen: CueId | null;
  readonly nameOf: (span: SoundSpan) => string;
  readonly onChoose: (id: CueId) => void;
  /** Plays from there, pictures and all. */
  readonly onPlay: (fromMs: number) => void;
  /** A stretch that is played again and again; null for none. */
  readonly loop: { readonly fromMs: number; readonly toMs: number } | null;
  readonly onLoop: (loop: { fromMs: number; toMs: number } | null) => void;
  /** Music that is not made yet: how it would be, drawn beside the slides it would carry. */
  readonly planned: { readonly piece: PlannedPiece; readonly fromMs: number } | null;
  /** Laid on the strip instead of cues' hands. */
  readonly captions?: Omit<CaptionBlocksProps, 'pxOf' | 'momentOf' | 'inSight'>;
}

const CLOCK_PX = 62;
/** Room for two songs that cross over; more at once take more. */
const CUES_PX = 40;
const VOICES_PX = 22;
const VOICE_PX = 12;
const SLIDES_PX = 176;
/** A press that moves less than this is a click. */
const CLICK_PX = 5;
const CATCH_PX = 7;

/** The running order turned to sound: time runs evenly downwards past bars and beats, the waveform, the songs as brackets, voices, and the slides. */
export function SoundColumn({
  ref,
  prepared,
  music,
  pxPerSecond,
  chosen,
  nameOf,
  onChoose,
  onPlay,
  loop,
  onLoop,
  planned,
  captions,
}: SoundColumnProps) {
  const pictureUrl = usePictureUrl();
  const { show, spans, facts } = prepared;
  const wave = useMusic();
  const edit = useShow((state) => state.edit);
  const select = useShow((state) => state.select);
  const anchor = useShow((state) => state.anchor);
  const scroller = useRef<HTMLDivElement>(null);
  const playhead = useRef<HTMLDivElement>(null);
  const { sight, look } = useSight(scroller);
  const [seam, setSeam] = useState<{ index: number; fromPx: number; byMs: number; beat: string | null } | null>(null);
  const [sweep, setSweep] = useState<{ fromPx: number; toPx: number } | null>(null);
  const px = (momentMs: number) => pxOf(momentMs, pxPerSecond);
  const lengthMs = showLengthMs(show);
  const totalPx = px(Math.max(lengthMs, Math.min(music.endMs, lengthMs * 1.5))) + BOTTOM_PX;
  const heard = useMemo(() => soundSpans(show, facts), [show, facts]);
  const shownShow = useDeferredValue(show);
  const mix = useMemo(() => planMix(shownShow, facts), [shownShow, facts]);
  const inSight = (fromMs: number, toMs: number) => px(toMs) >= sight.fromPx && px(fromMs) <= sight.toPx;
  const cues = heard.filter(({ sound }) => sound.kind !== 'voice' && show.cues.includes(sound));
  const lanes = lanesOf(cues);
  const onSlides = heard.filter(({ sound }) => !show.cues.includes(sound));
  const onSlideLanes = lanesOf(onSlides);
  const voicesPx = VOICES_PX + VOICE_PX * Math.max(0, ...onSlideLanes);
  const cuesPx = CUES_PX + LANE_PX * Math.max(0, Math.max(...lanes, 1) - 1);
  const stripPx = Math.max(150, sight.widthPx - CLOCK_PX - cuesPx - voicesPx - SLIDES_PX);
  const chosenSpan = cues.find(({ sound }) => sound.id === chosen) ?? null;
  const near = { spans, showMs: lengthMs, reachMs: (CATCH_PX * 1000) / pxPerSecond };

  useImperativeHandle(
    ref,
    () => ({
      showMoment(momentMs) {
        if (!playhead.current) return;
        playhead.current.style.transform = `translateY(${pxOf(momentMs, pxPerSecond)}px)`;
        playhead.current.firstElementChild!.textContent = clockTenths(momentMs);
      },
    }),
    [pxPerSecond],
  );

  const ownEndOf = (span: SoundSpan): number => {
    const known = facts.get(span.sound.assetId);
    if (span.sound.loops) return Infinity;
    const fileMs = known && known.kind !== 'picture' ? known.lengthMs : 0;
    return span.startMs + Math.min(span.sound.trimEndMs ?? Infinity, fileMs) - span.sound.trimStartMs;
  };
  const placed = (span: SoundSpan, end: 'start' | 'end', atMs: number) => {
    if (end === 'end') return { ends: endAt(atMs, ownEndOf(span), near) };
    const before = cues[cues.indexOf(span) - 1];
    return { starts: startAt(atMs, before?.endMs ?? 0, near) };
  };
  const moveCue = (span: SoundSpan, end: 'start' | 'end', atMs: number) =>
    edit({ kind: 'set-sound', slideId: null, soundId: span.sound.id, properties: placed(span, end, atMs) });
  const stepCue = (span: SoundSpan, end: 'start' | 'end', by: -1 | 1) => {
    const atMs = end === 'start' ? span.startMs : span.endMs;
    const seams = [...spans.map(({ startMs }) => startMs), lengthMs];
    const next = by < 0 ? seams.findLast((moment) => moment < atMs - 1) : seams.find((moment) => moment > atMs + 1);
    if (next !== undefined) moveCue(span, end, next);
  };

  const clockEveryMs = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600].find((seconds) => seconds * pxPerSecond >= 46) ?? 900;
  const firstClock = Math.max(0, Math.floor(momentOf(sight.fromPx, pxPerSecond) / 1000 / clockEveryMs));
  const clocks = Array.from(
    { length: Math.ceil((sight.toPx - sight.fromPx) / (clockEveryMs * pxPerSecond)) + 2 },
    (_, index) => (firstClock + index) * clockEveryMs * 1000,
  ).filter((momentMs) => momentMs <= lengthMs);
  const tiles = Array.from({ length: Math.ceil(totalPx / TILE_PX) }, (_, index) => index).filter(
    (index) => (index + 1) * TILE_PX >= sight.fromPx && index * TILE_PX <= sight.toPx,
  );

  const sweptLoop = (fromPx: number, toPx: number) => {
    const ends = [Math.min(fromPx, toPx), Math.max(fromPx, toPx)].map((end) => {
      const momentMs = momentOf(end, pxPerSecond);
      const bars = music.beats.filter((beat) => beat.begins !== 'beat');
      return beatNear(bars, momentMs, 2500)?.atMs ?? momentMs;
    });
    return ends[1]! - ends[0]! > 300 ? { fromMs: ends[0]!, toMs: Math.min(lengthMs, ends[1]!) } : null;
  };

  return (
    <div
      ref={scroller}
      data-part="sound-column"
      className="relative min-h-0 flex-1 overflow-x-hidden overflow-y-auto scroll-thin"
      onScroll={(event) => look(event.currentTarget)}
    >
      {show.slides.length === 0 && (
        <p className="p-8 text-center text-base text-soft">
          The sound of the show is drawn here once there are slides in the order.
        </p>
      )}
      <div style={{ height: totalPx }} className="relative">
        {clocks.map((momentMs) => (
          <span
            key={momentMs}
            className="tabular absolute left-3 -translate-y-1/2 text-xs text-soft"
            style={{ top: px(momentMs) }}
          >
            {clock(momentMs)}
          </span>
        ))}
        <div
          className="absolute inset-y-0 cursor-pointer touch-none"
          style={{ left: CLOCK_PX, width: stripPx }}
          onPointerDown={(event) => {
            if (event.button !== 0) return;
            const { top } = event.currentTarget.getBoundingClientRect();
            event.currentTarget.setPointerCapture(event.pointerId);
            setSweep({ fromPx: event.clientY - top, toPx: event.clientY - top });
          }}
          onPointerMove={(event) => {
            if (!sweep) return;
            const { top } = event.currentTarget.getBoundingClientRect();
            setSweep({ ...sweep, toPx: event.clientY - top });
          }}
          onPointerUp={() => {
            if (!sweep) return;
            setSweep(null);
            if (Math.abs(sweep.toPx - sweep.fromPx) < CLICK_PX) {
              onLoop(null);
              onPlay(Math.min(lengthMs, momentOf(sweep.fromPx, pxPerSecond)));
            } else onLoop(sweptLoop(sweep.fromPx, sweep.toPx));
          }}
          onPointerCancel={() => setSweep(null)}
        >
          {music.sections
            .filter(({ startMs, endMs }) => inSight(startMs, endMs))
            .map((section, index) => (
              <div
                key={section.startMs}
                className={clsx(
                  'pointer-events-none absolute border-t border-rule',
                  index % 2 === 0 ? 'bg-rule/30' : 'bg-rule/60',
                )}
                style={{
                  top: px(section.startMs),
                  height: px(section.endMs) - px(section.startMs),
                  left: TICKS_PX,
                  right: 0,
                }}
              >
                {px(section.endMs) - px(section.startMs) > 18 && (
                  <span className="absolute top-0.5 left-2 text-xs font-semibold text-saffron-deep">
                    {section.label}
                  </span>
                )}
              </div>
            ))}
          {tiles.map((index) => (
            <WaveTile
              key={index}
              music={wave}
              beats={music.beats}
              accentsMs={music.accentsMs}
              fromMs={momentOf(index * TILE_PX, pxPerSecond) - (index === 0 ? (14 * 1000) / pxPerSecond : 0)}
              toMs={momentOf((index + 1) * TILE_PX, pxPerSecond)}
              topPx={index * TILE_PX}
              widthPx={stripPx}
              heightPx={TILE_PX}
            />
          ))}
          {planned?.piece.sections
            .map((section) => ({
              ...section,
              fromMs: planned.fromMs + section.startMs,
              toMs: planned.fromMs + section.endMs,
            }))
            .filter(({ fromMs, toMs }) => inSight(fromMs, toMs))
            .map(({ fromMs, toMs, label, energy }) => (
              <div
                key={fromMs}
                data-part="planned-section"
                className="pointer-events-none absolute right-0 overflow-hidden rounded-sm border border-saffron-deep/60 bg-card/90"
                style={{ top: px(fromMs) + 1, height: px(toMs) - px(fromMs) - 2, left: TICKS_PX }}
              >
                <div className="h-full bg-saffron/35" style={{ width: `${100 * energy}%` }} />
                {px(toMs) - px(fromMs) > 16 && (
                  <span className="absolute top-0.5 left-2 text-xs font-semibold">{label}</span>
                )}
              </div>
            ))}
          {chosenSpan && !captions && !planned && (
            <LevelLine
              span={chosenSpan}
              parts={mix.parts.filter(
                (part) =>
                  part.assetId === chosenSpan.sound.assetId &&
                  part.startMs >= chosenSpan.startMs - 1 &&
                  part.startMs < chosenSpan.endMs,
              )}
              widthPx={stripPx}
              pxOf={px}
              momentOf={(at) => momentOf(at, pxPerSecond)}
              onChange={(id, levels, joins) =>
                edit({ kind: 'set-sound', slideId: null, soundId: id, properties: { levels } }, joins)
              }
            />
          )}
          {captions && (
            <CaptionBlocks {...captions} pxOf={px} momentOf={(at) => momentOf(at, pxPerSecond)} inSight={inSight} />
          )}
          {(sweep ?? loop) && (
            <div
              className="pointer-events-none absolute right-0 left-0 border-y-2 border-red bg-red/10"
              style={
                sweep
                  ? { top: Math.min(sweep.fromPx, sweep.toPx), height: Math.abs(sweep.toPx - sweep.fromPx) }
                  : { top: px(loop!.fromMs), height: px(loop!.toMs) - px(loop!.fromMs) }
              }
            />
          )}
        </div>
        <div className="absolute top-0" style={{ left: CLOCK_PX + stripPx + 8 }}>
          {cues.map((span, index) => (
            <CueBracket
              key={span.sound.id}
              name={nameOf(span)}
              startPx={px(span.startMs)}
              endPx={px(span.endMs)}
              chosen={span.sound.id === chosen}
              lane={lanes[index]!}
              kind={span.sound.kind === 'song' ? 'song' : 'effect'}
              said={(end, at) => {
                const moved = placed(span, end, momentOf(at, pxPerSecond));
                return anchorName(moved.starts ?? moved.ends!, spans);
              }}
              onChoose={() => onChoose(span.sound.id)}
              onMove={(end, at) => moveCue(span, end, momentOf(at, pxPerSecond))}
              onStep={(end, by) => stepCue(span, end, by)}
            />
          ))}
        </div>
        {onSlides.map(({ sound, startMs, endMs }, index) =>
          !inSight(startMs, endMs) ? null : (
            <span
              key={`${sound.id} ${startMs}`}
              title={sound.kind === 'voice' ? 'a voice' : 'a sound'}
              className={clsx('absolute w-2.5 rounded-full', sound.kind === 'voice' ? 'bg-moss' : 'bg-slate')}
              style={{
                left: CLOCK_PX + stripPx + cuesPx + 6 + VOICE_PX * onSlideLanes[index]!,
                top: px(startMs),
                height: Math.max(6, px(endMs) - px(startMs)),
              }}
            />
          ),
        )}
        {spans
          .filter(({ startMs, endMs }) => inSight(startMs, endMs))
          .map((span) => {
            const slide = show.slides[span.slideIndex]!;
            const layer = mainLayerOf(slide);
            const heightPx = px(span.endMs) - px(span.startMs);
            const printPx = Math.min(46, heightPx - 8);
            const beat = beatNear(music.beats, span.startMs, 120);
            return (
              <div
                key={span.slideId}
                data-part="sound-slide"
                data-slide={slide.id}
                className={clsx('absolute border-t border-rule', slide.id === anchor && 'bg-card')}
                style={{
                  left: CLOCK_PX + stripPx + cuesPx + voicesPx,
                  right: 0,
                  top: px(span.startMs),
                  height: heightPx,
                }}
              >
                <button
                  type="button"
                  className="flex h-full w-full items-start gap-2 overflow-hidden px-2 pt-1 text-left"
                  onClick={() => {
                    select([slide.id], slide.id);
                    onPlay(span.startMs);
                  }}
                >
                  <span className="sr-only">choose slide and listen from there</span>
                  {heightPx < 13 && <span className="sr-only">{span.slideIndex + 1}</span>}
                  {layer && printPx >= 14 ? (
                    // The print is already as small as it is shown.
                    // eslint-disable-next-line @next/next/no-img-element
                    <img
                      src={pictureUrl(layer.assetId, 320)}
                      alt=""
                      className="shrink-0 bg-print object-cover p-[2px] shadow-print"
                      style={{ height: printPx, width: printPx * 1.5 }}
                    />
                  ) : null}
                  {heightPx >= 13 && (
                    <span className="min-w-0 text-xs leading-4">
                      <span className="tabular block">
                        {span.slideIndex + 1}
                        <span aria-hidden="true" className="text-[9px]">
                          ▸
                        </span>
                        {beat && beat.bar > 0 && (
                          <span className="ml-2 text-soft">
                            bar {beat.bar}
                            {beat.beat > 1 ? `·${beat.beat}` : ''}
                          </span>
                        )}
                      </span>
                      {heightPx >= 34 && (
                        <span className="block truncate text-soft">{slide.chapter ?? wordsOf(slide)?.title}</span>
                      )}
                    </span>
                  )}
                </button>
                {span.slideIndex < spans.length - 1 && (
                  <div
                    aria-hidden="true"
                    title="Drag to change how long the slide lasts; it catches on beats"
                    className="group/seam absolute -bottom-[5px] left-0 z-10 h-[10px] w-full cursor-row-resize touch-none"
                    onPointerDown={(event) => {
                      if (event.button !== 0) return;
                      event.currentTarget.setPointerCapture(event.pointerId);
                      setSeam({ index: span.slideIndex, fromPx: event.clientY, byMs: 0, beat: null });
                    }}
                    onPointerMove={(event) => {
                      if (seam?.index !== span.slideIndex) return;
                      const askedMs = ((event.clientY - seam.fromPx) * 1000) / pxPerSecond;
                      const caught = caughtSeam(music, span.endMs, askedMs);
                      setSeam({ ...seam, byMs: caught.byMs, beat: caught.by && catchName(caught.by) });
                    }}
                    onPointerUp={() => {
                      if (seam && seam.byMs !== 0)
                        edit({ kind: 'set-lengths', lengths: movedSeam(show.slides, seam.index, seam.byMs, 'roll') });
                      setSeam(null);
                    }}
                    onPointerCancel={() => setSeam(null)}
                  >
                    <span className="absolute inset-x-1 top-1 h-[2px] rounded-full bg-transparent group-hover/seam:bg-slate" />
                  </div>
                )}
              </div>
            );
          })}
        {seam && (
          <div
            aria-hidden="true"
            className="pointer-events-none absolute right-0 z-30 border-t-2 border-slate"
            style={{ left: CLOCK_PX, top: px(spans[seam.index]!.endMs + seam.byMs) }}
          >
            <span className="tabular absolute top-1 right-2 rounded-md bg-black px-2 py-1 text-xs whitespace-nowrap text-lamp shadow-raised">
              {seam.beat ? (
                <>
                  seam {seam.index + 1} on <b>{seam.beat}</b>
                </>
              ) : (
                `seam ${seam.index + 1} at ${clockTenths(spans[seam.index]!.endMs + seam.byMs)}`
              )}
            </span>
          </div>
        )}
        <div
          ref={playhead}
          aria-hidden="true"
          className="pointer-events-none absolute top-0 left-1 z-20 flex h-0 items-center"
          style={{ right: SLIDES_PX, transform: `translateY(${px(0)}px)` }}
        >
          <span className="tabular rounded-[4px] bg-red px-1 text-xs font-semibold text-white">0:00.0</span>
          <span className="h-[2px] flex-1 bg-red" />
        </div>
      </div>
    </div>
  );
}
