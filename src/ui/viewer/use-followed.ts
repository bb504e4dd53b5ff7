'use client';

import { useEffect, useRef } from 'react';
import type { StoreApi } from 'zustand';
import type { KeptMoment } from '../show/kept-moment';
import type { ViewerHands } from './use-viewer';

/** Keeps a viewer and the other places where the show is watched at one moment: notes where it stands when it stops, and goes where others have gone. */
export function useFollowed(kept: StoreApi<KeptMoment> | null, hands: ViewerHands): void {
  const me = useRef({});
  const latest = useRef(hands);
  useEffect(() => {
    latest.current = hands;
  });
  const { playing, momentMs } = hands;
  useEffect(() => {
    if (!playing) kept?.getState().leave(momentMs, me.current);
  }, [kept, playing, momentMs]);
  useEffect(() => {
    if (!kept) return;
    const mine = me.current;
    const unsubscribe = kept.subscribe((now, before) => {
      if (now.asked && now.asked !== before.asked) return latest.current.play(now.asked.fromMs, now.asked.untilMs);
      if (now.by !== mine && now.momentMs !== latest.current.momentMs && !latest.current.playing)
        latest.current.seek(now.momentMs);
    });
    return () => {
      unsubscribe();
      // Left while it played.
      kept.getState().leave(latest.current.momentMs, mine);
    };
  }, [kept]);
}
