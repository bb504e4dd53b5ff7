'use client';

import { Pause, Play, SkipForward } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useEffect, useMemo, useRef, useState } from 'react';
import { prepareShow } from '../../core/frame/plan-frame';
import { besideMoment, differencesOf } from '../../core/show/differences';
import type { Show } from '../../core/show/show';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { clockTenths } from '../kit/clock';
import { FullWindow } from '../kit/full-window';
import { usePrepared } from '../show/show-provider';
import { MomentSlider } from './moment-slider';
import { useViewer, type ViewerHands } from './use-viewer';

/** By then what comes and goes on a slide is mostly there. */
const MOST_IS_THERE = 0.6;

/** Two versions of a show side by side, in a window over the page. */
export function BesideRoom({ before, name, onClose }: { before: Show; name: string; onClose: () => void }) {
  return (
    <FullWindow
      part="beside-room"
      closeName="Back to the versions"
      onClose={onClose}
      className="flex flex-col bg-surround text-lamp"
    >
      <Sides before={before} name={name} />
    </FullWindow>
  );
}

/** Played together: slide by slide, or by the clock; one of them is heard. */
function Sides({ before, name }: { before: Show; name: string }) {
  const now = usePrepared();
  const then = useMemo(() => prepareShow(before, now.facts), [before, now.facts]);
  const [left, right] = [useSide(then.show, then), useSide(now.show, now)];
  const [by, setBy] = useState<'slide' | 'moment'>('slide');
  const [heard, setHeard] = useState<'then' | 'now'>('now');
  const differences = useMemo(() => differencesOf(then.show, now.show), [then.show, now.show]);
  const { momentMs, playing } = right.hands;
  const besideMs = (atMs: number) =>
    by === 'slide' ? besideMoment(atMs, now.spans, then.spans) : Math.min(atMs, Math.max(0, then.lengthMs - 1));

  const seek = (atMs: number) => {
    right.hands.seek(atMs);
    left.hands.seek(besideMs(atMs));
  };
  const toggle = () => {
    if (playing || left.hands.playing) {
      right.hands.pause();
      left.hands.pause();
      return;
    }
    const from = momentMs >= now.lengthMs - 60 ? 0 : momentMs;
    right.hands.play(from, undefined, 1, heard !== 'now');
    left.hands.play(besideMs(from), undefined, 1, heard !== 'then');
  };
  // Slides that last otherwise are brought together again at each beginning.
  const index = now.spans.findIndex((span) => momentMs >= span.startMs && momentMs < span.endMs);
  const lastIndex = useRef(index);
  useEffect(() => {
    const changed = lastIndex.current !== index;
    lastIndex.current = index;
    if (!changed || !playing || by !== 'slide' || index < 0) return;
    left.hands.play(besideMoment(momentMs, now.spans, then.spans), undefined, 1, heard !== 'then');
  }, [index, playing, by, momentMs, now.spans, then.spans, left.hands, heard]);

  const differing = new Set([...differences.added, ...differences.changed]);
  const nextDifference = () => {
    const ahead = [...now.spans.slice(index + 1), ...now.spans.slice(0, index + 1)];
    const next = ahead.find((span) => differing.has(span.slideId));
    if (next) seek(next.startMs + MOST_IS_THERE * (next.endMs - next.startMs));
  };

  return (
    <>
      <header className="flex h-14 shrink-0 items-center gap-5 px-5">
        <Dialog.Title className="font-display text-lg font-semibold">Side by side</Dialog.Title>
        <p data-part="differences" className="text-lamp-soft">
          {saidOf(differences)}
        </p>
      </header>
      <div className="grid min-h-0 flex-1 grid-cols-2 gap-4 px-5">
        {(
          [
            ['then', name, left, then],
            ['now', 'as it is now', right, now],
          ] as const
        ).map(([side, title, { place }, { show, lengthMs }]) => (
          <section key={side} aria-label={title} className="flex min-h-0 flex-col justify-center gap-2">
            <div
              ref={place}
              data-part={`side-${side}`}
              className="relative w-full overflow-hidden bg-black"
              style={{ aspectRatio: show.frame.widthPx / show.frame.heightPx }}
            />
            <p className="flex justify-between gap-4">
              <b className="truncate">{title}</b>
              <span className="tabular text-lamp-soft">{clockTenths(lengthMs)}</span>
            </p>
          </section>
        ))}
      </div>
      <div className="flex h-16 shrink-0 items-center gap-3 bg-black px-5">
        <Button look="dark" square aria-label={playing ? 'Pause' : 'Play both'} onClick={toggle} data-part="play-both">
          {playing ? <Pause size={17} fill="currentColor" /> : <Play size={17} fill="currentColor" />}
        </Button>
        <output className="tabular w-14" data-part="moment">
          {clockTenths(momentMs)}
        </output>
        <MomentSlider momentMs={momentMs} lengthMs={now.lengthMs} stepMs={20} onSeek={seek} />
        <Button look="dark" onClick={nextDifference} disabled={differing.size === 0} data-part="next-difference">
          <SkipForward size={15} /> Next difference
        </Button>
        <Choice
          dark
          label="What goes together"
          value={by}
          onChange={setBy}
          options={[
            { value: 'slide', label: 'slide by slide' },
            { value: 'moment', label: 'by the clock' },
          ]}
        />
        <Choice
          dark
          label="Which is heard"
          value={heard}
          onChange={setHeard}
          options={[
            { value: 'then', label: 'hear left' },
            { value: 'now', label: 'hear right' },
          ]}
        />
      </div>
    </>
  );
}

function useSide(show: Show, { facts }: { readonly facts: ReturnType<typeof prepareShow>['facts'] }) {
  const place = useRef<HTMLDivElement>(null);
  const hands: ViewerHands = useViewer(place, show, facts);
  return { place, hands };
}

function saidOf({ added, removed, changed, moved, music }: ReturnType<typeof differencesOf>): string {
  const count = (n: number, what: string) => (n === 0 ? [] : [`${n} ${what}`]);
  const said = [
    ...count(changed.length, changed.length === 1 ? 'slide differs' : 'slides differ'),
    ...count(added.length, added.length === 1 ? 'is new' : 'are new'),
    ...count(removed.length, removed.length === 1 ? 'is gone' : 'are gone'),
    ...(moved ? ['the order differs'] : []),
    ...(music ? ['the music differs'] : []),
  ];
  return said.length === 0 ? 'Nothing differs.' : `${said.join(' · ')}.`;
}
