'use client';

import { Clapperboard, Pause, Play } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { Button } from '../kit/button';
import { hearPlaying } from '../viewer/playing-now';
import type { ViewerHands } from '../viewer/use-viewer';

/** Something to listen to that is not under the show. */
export interface Listened {
  readonly id: string;
  readonly url: string;
  /** As a person calls it. */
  readonly name: string;
}

export interface Listening {
  /** What is heard, and whether the show runs over it. */
  readonly heard: { readonly id: string; readonly shown: boolean } | null;
  /** Plays it by itself, or stops it. */
  listen(what: Listened): void;
  /** Plays it while the show runs without its own sound, from where the viewer stands; or stops both. */
  watch(what: Listened): void;
  stop(): void;
}

/** One thing is listened to at a time; whoever stops the viewer stops what is heard with it. */
export function useListening(viewer: RefObject<ViewerHands | null>): Listening {
  const player = useRef<HTMLAudioElement | null>(null);
  const [heard, setHeard] = useState<Listening['heard']>(null);
  const latest = useRef(heard);
  const set = useCallback((next: Listening['heard']) => {
    latest.current = next;
    setHeard(next);
  }, []);
  const stop = useCallback(() => {
    player.current?.pause();
    const was = latest.current;
    set(null);
    if (was?.shown && viewer.current?.playing) viewer.current.pause();
  }, [set, viewer]);
  useEffect(() => {
    const unheard = hearPlaying((plays) => {
      if (plays || !latest.current?.shown) return;
      player.current?.pause();
      set(null);
    });
    return () => {
      unheard();
      player.current?.pause();
    };
  }, [set]);
  const begin = useCallback(
    async ({ id, url }: Listened, shown: boolean) => {
      stop();
      const audio = (player.current ??= new Audio());
      audio.onended = stop;
      audio.src = url;
      set({ id, shown });
      try {
        const atMs = viewer.current?.momentMs ?? 0;
        if (shown) await lengthKnown(audio);
        // Under the show it would have begun with it. One that is over by then begins anew, with the show.
        const fromMs = atMs / 1000 < audio.duration - 1 ? atMs : 0;
        if (shown) audio.currentTime = fromMs / 1000;
        await audio.play();
        if (latest.current?.id !== id || latest.current.shown !== shown) return;
        if (shown) viewer.current?.play(fromMs, undefined, 1, true);
      } catch {
        if (latest.current?.id === id) set(null);
      }
    },
    [set, stop, viewer],
  );
  return useMemo(() => {
    const toggle = (what: Listened, shown: boolean) => {
      const same = latest.current?.id === what.id && latest.current.shown === shown;
      if (same) stop();
      else void begin(what, shown);
    };
    return { heard, stop, listen: (what) => toggle(what, false), watch: (what) => toggle(what, true) };
  }, [heard, stop, begin]);
}

/** Also when it cannot be had: playing it then says so. */
function lengthKnown(audio: HTMLAudioElement): Promise<void> {
  return new Promise((resolve) => {
    audio.onloadedmetadata = audio.onerror = () => resolve();
  });
}

/** Hears something by itself, or with the show running over it. */
export function ListenButtons({ what, listening }: { readonly what: Listened; readonly listening: Listening }) {
  const { heard } = listening;
  const alone = heard?.id === what.id && !heard.shown;
  const shown = heard?.id === what.id && heard.shown;
  return (
    <span className="flex shrink-0">
      <Button
        look="quiet"
        square
        className="size-7"
        aria-label={alone ? `Stop ${what.name}` : `Listen to ${what.name}`}
        onClick={() => listening.listen(what)}
      >
        {alone ? <Pause size={14} /> : <Play size={14} />}
      </Button>
      <Button
        look="quiet"
        square
        className="size-7"
        aria-label={shown ? `Stop the show over ${what.name}` : `Watch the show over ${what.name}`}
        aria-pressed={shown}
        onClick={() => listening.watch(what)}
      >
        <Clapperboard size={14} />
      </Button>
    </span>
  );
}
