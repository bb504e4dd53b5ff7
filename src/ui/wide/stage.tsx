'use client';

import { Pause, Play, SkipBack } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Show } from '../../core/show/show';
import { momentOfFrame } from '../../core/timing/frames';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { useViewer } from '../viewer/use-viewer';
import { LoupeStrip } from './loupe-strip';
import { SpaceMap } from './space-map';
import { StageHands } from './stage-hands';
import { useOpenSlide } from './use-slide';
import { TOOLS, useWide, useWideStore } from './wide-store';

const TOOL_NAMES = { place: 'place', tilt: 'tilt', crop: 'crop' } as const;

/** The slide by itself, with hands on the chosen layers, and what plays it. */
export function Stage({ show, onFold }: { show: Show; onFold: () => void }) {
  const store = useWideStore();
  const { prepared, index, slide, seenMs, nameOf } = useOpenSlide();
  const offsetMs = useWide((state) => state.offsetMs);
  const tool = useWide((state) => state.tool);
  const asking = useWide((state) => state.asking);
  const maskSeen = useWide((state) => state.maskSeen);
  const place = useRef<HTMLDivElement>(null);
  const [beginMs] = useState(() => store.getState().offsetMs);
  const hands = useViewer(place, show, prepared.facts, beginMs);
  const { playing, momentMs, starting, preparing, play, pause, seek } = hands;
  const aspect = show.frame.widthPx / show.frame.heightPx;
  const frameMs = momentOfFrame(1, show.frame.rate);
  useEffect(() => store.getState().set({ offsetMs: momentMs, playing }), [store, momentMs, playing]);
  const toggle = useMemo(
    () => () => {
      if (playing) pause();
      else play(store.getState().offsetMs >= seenMs - frameMs ? 0 : undefined);
    },
    [playing, pause, play, store, seenMs, frameMs],
  );
  useEffect(() => {
    store.getState().set({
      seek: (ms) => {
        if (playing) pause();
        seek(Math.min(seenMs - 1, Math.max(0, ms)));
      },
      toggle,
    });
  }, [store, seek, pause, playing, toggle, seenMs]);
  return (
    <section aria-label="Stage" data-part="stage" className="flex h-full min-h-0 flex-col bg-surround text-lamp">
      <div className="flex h-11 shrink-0 items-center gap-3 px-4">
        <Choice
          dark
          label="What the hands do"
          value={tool}
          onChange={(next) => store.getState().set({ tool: next })}
          options={TOOLS.map((value) => ({ value, label: TOOL_NAMES[value] }))}
        />
        {asking ? (
          <p role="status" data-part="asking" className="min-w-0 truncate text-lamp">
            {asking.for === 'leader'
              ? `Click the layer that “${nameOf(asking.layerId)}” is to follow, here or in the pile. Esc: none.`
              : `Click the layers that “${nameOf(asking.layerId)}” is to cut. Esc: done.`}
          </p>
        ) : (
          <p className="min-w-0 truncate text-lamp-soft">
            {maskSeen !== null ? 'only the mask is seen' : 'the slide by itself, from its first moment to its last'}
          </p>
        )}
        {maskSeen !== null && (
          <Button look="dark" className="ml-auto" onClick={() => store.getState().set({ maskSeen: null })}>
            see all again
          </Button>
        )}
      </div>
      <div className="@container-size relative grid min-h-0 flex-1 place-items-center px-6 pb-3">
        <div className="relative" style={{ aspectRatio: aspect, width: `min(100cqw, (100cqh - 8px) * ${aspect})` }}>
          <div ref={place} className="absolute inset-0 overflow-hidden bg-black" />
          {starting && (
            <p role="status" className="absolute inset-0 grid place-items-center text-lamp-soft">
              Preparing …
            </p>
          )}
          {preparing && (
            <p
              role="status"
              data-part="preparing"
              className="pointer-events-none absolute top-2 left-2 rounded-md bg-black/70 px-2"
            >
              drawing …
            </p>
          )}
          {!playing && !starting && <StageHands />}
        </div>
      </div>
      <LoupeStrip />
      <SpaceMap />
      <div className="flex h-11 shrink-0 items-center gap-1 bg-black px-3" data-part="stage-bar">
        <Button look="dark" square aria-label="To the slide’s first moment" onClick={() => store.getState().seek(0)}>
          <SkipBack size={15} fill="currentColor" />
        </Button>
        <Button look="dark" square aria-label={playing ? 'Pause' : 'Play the slide'} onClick={toggle}>
          {playing ? <Pause size={17} fill="currentColor" /> : <Play size={17} fill="currentColor" />}
        </Button>
        <output className="tabular mx-2" data-part="moment" data-offset={Math.round(offsetMs)}>
          {(offsetMs / 1000).toFixed(2)} s <span className="text-lamp-soft">of {(seenMs / 1000).toFixed(1)}</span>
        </output>
        <span className="ml-auto min-w-0 truncate text-lamp-soft">
          slide <span className="tabular">{index + 1}</span>
          {slide.chapter && ` · ${slide.chapter}`}
        </span>
        <Button look="dark" data-part="fold" className="ml-2 border-white/25" onClick={onFold}>
          fold <kbd className="text-lamp-soft">Esc</kbd>
        </Button>
      </div>
    </section>
  );
}
