'use client';

import { seenInShape } from '../../core/builds/in-shape';
import { momentOfFrame } from '../../core/timing/frames';
import { Captions, ImageDown, Maximize, Pause, Play, Repeat, SkipBack, SkipForward } from 'lucide-react';
import { useEffect, useImperativeHandle, useMemo, useRef, useState, type ReactNode, type Ref } from 'react';
import { captionLanguages, captionsOfShow } from '../../core/captions/show-captions';
import { prepareShow } from '../../core/frame/plan-frame';
import { shapeName, type ShapeName } from '../../core/show/shape';
import type { Show } from '../../core/show/show';
import { unlit } from '../../core/show/unlit';
import { slideIndexAt } from '../../core/timing/slide-span';
import { Button } from '../kit/button';
import { clockTenths } from '../kit/clock';
import { Pick } from '../kit/pick';
import { useKept } from '../kit/use-kept';
import { usePrepared, useShow } from '../show/show-provider';
import { useKeptMoment } from '../show/kept-moment';
import { useTypedWords, withoutTyped } from '../words/typed-words';
import { useBeforeLight } from './before-light';
import { MomentSlider } from './moment-slider';
import { PartSlider } from './part-slider';
import { useFollowed } from './use-followed';
import { REACHES, SPEEDS, useReach } from './use-reach';
import { useViewer, type ViewerHands } from './use-viewer';

/** A frame or three: it was not stopped on the way. */
const PLAYED_OUT_MS = 60;

/** Those films are asked for in most. */
const SHAPES: readonly ShapeName[] = ['16:9', '9:16', '1:1', '4:5', '4:3'];

interface ViewerProps {
  readonly ref?: Ref<ViewerHands>;
  /** Told the moment shown, so that other views can follow. */
  readonly onMoment?: (momentMs: number) => void;
  readonly autoPlay?: boolean;
  /** Another show than the one that is open, such as a version of it. */
  readonly show?: Show;
  /** Having played to here it stands there. */
  readonly rest?: { readonly afterMs: number; readonly atMs: number } | undefined;
  /** What lies over the frame while it stands still and is seen in its own shape. */
  readonly over?: (stands: { readonly index: number; readonly momentMs: number; readonly scale: number }) => ReactNode;
}

/** Where the show is watched: the frame in a dark surround, with the hands to play, step and scrub. */
export function Viewer({ ref, onMoment, autoPlay = false, show: other, rest, over }: ViewerProps) {
  const place = useRef<HTMLDivElement>(null);
  const root = useRef<HTMLElement>(null);
  const open = usePrepared();
  const own = shapeName(open.show.frame);
  const [shape, setShape] = useState<ShapeName>(own);
  const beforeLight = useBeforeLight();
  const typed = useTypedWords();
  const { show, facts, spans, lengthMs } = useMemo(() => {
    const whole = other ?? (shape === own ? open.show : seenInShape(open.show, open.facts, shape));
    const shown = typed ? withoutTyped(whole, typed) : whole;
    if (beforeLight) return prepareShow(unlit(shown), open.facts);
    return shown === open.show ? open : prepareShow(shown, open.facts);
  }, [other, open, own, shape, beforeLight, typed]);
  const entries = useShow((state) => state.entries);
  const kept = useKeptMoment();
  // Another show has moments of its own.
  const [beginMs] = useState(() => (other ? 0 : kept.getState().momentMs));
  const hands = useViewer(place, show, facts, beginMs);
  const { playing, momentMs, starting, preparing, unreadable, wordsScale, play, pause, seek } = hands;
  const started = useRef(false);
  useImperativeHandle(ref, () => hands, [hands]);
  useEffect(() => onMoment?.(momentMs), [onMoment, momentMs]);
  useEffect(() => {
    if (!autoPlay || starting || started.current) return;
    started.current = true;
    play(beginMs >= lengthMs - 1 ? 0 : beginMs);
  }, [autoPlay, starting, play, beginMs, lengthMs]);
  useFollowed(other ? null : kept, hands);
  const played = useRef(false);
  useEffect(() => {
    const ended = played.current && !playing;
    played.current = playing;
    if (ended && rest && Math.abs(momentMs - rest.afterMs) < PLAYED_OUT_MS) seek(rest.atMs);
  }, [playing, momentMs, rest, seek]);

  const [captioned, setCaptioned] = useKept(
    'tanager-captioned',
    false,
    (value): value is boolean => typeof value === 'boolean',
  );
  const languages = useMemo(() => captionLanguages(show), [show]);
  const captions = useMemo(
    () => (captioned && !show.captionLook && languages[0] ? captionsOfShow(show, facts, languages[0]) : []),
    [captioned, show, facts, languages],
  );
  const caption = captions.find(({ startMs, endMs }) => startMs <= momentMs && momentMs < endMs) ?? null;
  const index = slideIndexAt(spans, momentMs);
  const reaching = useReach(hands, spans, index, lengthMs);
  const { toggle } = reaching;
  const frameMs = momentOfFrame(1, show.frame.rate);
  const go = (by: number) => {
    if (index === null) return;
    const back = by < 0 && momentMs - spans[index]!.startMs > 800 ? 0 : by;
    seek(spans[Math.min(spans.length - 1, Math.max(0, index + back))]!.startMs);
  };
  const names = useMemo(() => new Map(entries.map((entry) => [entry.assetId, entry.fileName])), [entries]);
  const aspect = show.frame.widthPx / show.frame.heightPx;

  return (
    <section
      ref={root}
      aria-label="Viewer"
      data-part="viewer"
      data-playing={playing}
      data-moment={Math.round(momentMs)}
      data-shape={shapeName(show.frame)}
      tabIndex={0}
      onKeyDown={(event) => {
        if (
          event.target instanceof HTMLElement &&
          event.target.closest('button, [role=slider], [role=radio]') &&
          event.key !== 'f'
        )
          return;
        if (event.key === ' ') {
          event.preventDefault();
          toggle();
        }
        if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') {
          event.preventDefault();
          const step = event.shiftKey ? 1000 : frameMs;
          if (playing) pause();
          seek(momentMs + (event.key === 'ArrowRight' ? step : -step));
        }
        if (event.key === 'f') void root.current?.requestFullscreen();
      }}
      className="flex h-full min-h-0 flex-col bg-surround text-lamp"
    >
      <div className="@container-size relative grid min-h-0 flex-1 place-items-center p-3">
        <div
          className="relative overflow-hidden bg-black"
          style={{ aspectRatio: aspect, width: `min(100cqw - 24px, (100cqh - 24px) * ${aspect})` }}
        >
          <div ref={place} className="absolute inset-0" />
          {over &&
            !playing &&
            !starting &&
            index !== null &&
            shape === own &&
            over({ index, momentMs, scale: wordsScale })}
        </div>
        {caption && (
          <p
            data-part="caption"
            className="pointer-events-none absolute bottom-[9cqh] max-w-[80cqw] rounded-md bg-black/75 px-3 py-1 text-center text-base leading-snug whitespace-pre-line text-white"
          >
            {caption.text}
          </p>
        )}
        {show.slides.length === 0 && (
          <p className="absolute px-6 text-center text-base text-lamp-soft">
            Nothing to watch yet. Lay some pictures into the order.
          </p>
        )}
        {starting && show.slides.length > 0 && (
          <p role="status" className="absolute text-lamp-soft">
            Preparing …
          </p>
        )}
        {preparing && show.slides.length > 0 && (
          <p
            role="status"
            data-part="preparing"
            className="pointer-events-none absolute inset-0 grid place-items-center bg-surround text-lamp-soft"
          >
            Preparing {clockTenths(momentMs)} …
          </p>
        )}
        {beforeLight && (
          <p
            role="status"
            data-part="before-light"
            className="pointer-events-none absolute top-4 rounded-md bg-black/80 px-2 py-0.5 text-lamp"
          >
            before its light
          </p>
        )}
        {wordsScale < 0.995 && !playing && (
          <p
            role="status"
            data-part="words-scale"
            className="absolute right-3 bottom-1.5 rounded-md bg-black/80 px-2 py-0.5 text-xs text-lamp"
          >
            words drawn at <span className="tabular">{Math.round(100 * wordsScale)} %</span> of their size, so that they
            fit
          </p>
        )}
        {unreadable.size > 0 && (
          <p role="alert" className="absolute inset-x-6 bottom-4 rounded-md bg-black/80 px-3 py-2 text-center">
            {[...unreadable].slice(0, 1).map(([id, message]) => `${names.get(id) ?? 'A file'}: ${message}`)}
            {unreadable.size > 1 && ` (and ${unreadable.size - 1} more)`}
          </p>
        )}
      </div>
      <div className="flex h-6 shrink-0 items-center gap-3 bg-black px-4 pt-1.5">
        <output className="tabular w-14" data-part="moment">
          {clockTenths(momentMs)}
        </output>
        <div className="relative flex min-w-0 flex-1 items-center">
          <MomentSlider momentMs={momentMs} lengthMs={lengthMs} stepMs={frameMs} onSeek={seek} />
          {reaching.reach === 'part' && (
            <PartSlider part={reaching.part} lengthMs={lengthMs} stepMs={frameMs} onPart={reaching.setPart} />
          )}
        </div>
        <span className="tabular w-14 text-right text-lamp-soft">{clockTenths(lengthMs)}</span>
      </div>
      <div className="flex h-10 shrink-0 items-center gap-1 bg-black px-3">
        <Button look="dark" square aria-label="Start of the slide, or the one before" onClick={() => go(-1)}>
          <SkipBack size={15} fill="currentColor" />
        </Button>
        <Button
          look="dark"
          square
          aria-label={playing ? 'Pause' : 'Play'}
          onClick={toggle}
          disabled={show.slides.length === 0}
        >
          {playing ? <Pause size={17} fill="currentColor" /> : <Play size={17} fill="currentColor" />}
        </Button>
        <Button look="dark" square aria-label="Next slide" onClick={() => go(1)}>
          <SkipForward size={15} fill="currentColor" />
        </Button>
        <span className="flex-1" />
        <Pick
          dark
          label="What Play plays"
          value={reaching.reach}
          groups={[{ name: null, options: REACHES }]}
          onChange={reaching.setReach}
        />
        <Pick
          dark
          label="How fast it plays"
          value={reaching.speed}
          groups={[{ name: null, options: SPEEDS }]}
          onChange={reaching.setSpeed}
        />
        <Button
          look="dark"
          square
          aria-label="Play it over and over"
          aria-pressed={reaching.loops}
          className={reaching.loops ? 'bg-white/20' : undefined}
          onClick={() => reaching.setLoops(!reaching.loops)}
          data-part="loop-play"
        >
          <Repeat size={15} />
        </Button>
        {!other && (
          <Pick
            dark
            label="Shape it is seen in"
            value={shape}
            groups={[
              {
                name: null,
                options: [own, ...SHAPES.filter((name) => name !== own)].map((value) => ({ value, label: value })),
              },
            ]}
            onChange={setShape}
          />
        )}
        {languages.length > 0 && !show.captionLook && (
          <Button
            look="dark"
            square
            aria-label={captioned ? 'Without captions' : 'With captions'}
            aria-pressed={captioned}
            className={captioned ? 'bg-white/20' : undefined}
            onClick={() => setCaptioned(!captioned)}
          >
            <Captions size={16} />
          </Button>
        )}
        {!other && show.slides.length > 0 && (
          <a
            href={`/api/v1/shows/${show.id}/still?at=${Math.round(momentMs)}&shape=${shape}`}
            download
            aria-label="Take this frame home as a picture"
            title="Take this frame home as a picture"
            data-part="still"
            className="inline-grid size-8 shrink-0 place-items-center rounded-md hover:bg-white/10"
          >
            <ImageDown size={15} />
          </a>
        )}
        <Button look="dark" square aria-label="Full screen" onClick={() => void root.current?.requestFullscreen()}>
          <Maximize size={15} />
        </Button>
      </div>
    </section>
  );
}
