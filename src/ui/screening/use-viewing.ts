'use client';

import { useEffect, type RefObject } from 'react';
import { nanoid } from 'nanoid';
import { mergedStretches, type Stretch } from '../../core/screening/watched';

/** How often what played is told while it plays. */
const TELL_MS = 10_000;

/** Tells what of a film was played: stretches of it under an id that is made up for this page and kept nowhere. */
export function useViewing(video: RefObject<HTMLVideoElement | null>, token: string, on: boolean): void {
  useEffect(() => {
    const player = video.current;
    if (!player || !on) return;
    const id = nanoid(20);
    let stretches: Stretch[] = [];
    let [from, last, told] = [null as number | null, 0, ''];
    const now = () => 1000 * player.currentTime;
    const close = () => {
      if (from !== null && last > from) stretches = mergedStretches([...stretches, [from, last]], 1e9);
      from = null;
    };
    const step = () => {
      if (player.paused || player.seeking) return;
      const at = now();
      // A jump: what lies between was not seen.
      if (from === null || at < last || at - last > 2000 * player.playbackRate) {
        close();
        from = at;
      }
      last = at;
    };
    const tell = () => {
      const all = mergedStretches(from === null ? stretches : [...stretches, [from, last]], 1e9);
      const body = JSON.stringify({ id, stretches: all });
      if (all.length === 0 || body === told) return;
      told = body;
      navigator.sendBeacon(`/api/v1/screenings/${token}/watched`, new Blob([body], { type: 'application/json' }));
    };
    const pause = () => {
      if (from !== null && !player.seeking) last = Math.max(last, now());
      close();
      tell();
    };
    const hide = () => {
      if (document.visibilityState === 'hidden') tell();
    };
    const listening: [string, () => void][] = [
      ['timeupdate', step],
      ['playing', step],
      ['seeking', close],
      ['pause', pause],
      ['ended', pause],
    ];
    for (const [name, hear] of listening) player.addEventListener(name, hear);
    const timer = setInterval(tell, TELL_MS);
    document.addEventListener('visibilitychange', hide);
    window.addEventListener('pagehide', tell);
    return () => {
      for (const [name, hear] of listening) player.removeEventListener(name, hear);
      clearInterval(timer);
      document.removeEventListener('visibilitychange', hide);
      window.removeEventListener('pagehide', tell);
      tell();
    };
  }, [video, token, on]);
}
