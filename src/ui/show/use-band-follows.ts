'use client';

import { useEffect } from 'react';
import type { PlacedSound } from '../../core/show/placed-sound';
import { bandSpans, wishesFor } from '../../core/sound/band/band-order';
import type { BandWishes } from '../../core/sound/band/band-wishes';
import { stableText } from '../../core/stable-text';
import { ServerRefusal } from './call-server';
import { playedByBand } from '../sound/played-by-band';
import type { ShowState, ShowStore } from './show-store';

/** Hands that work are waited for: the band begins when nobody changed anything for so long. */
const CALM_MS = 2500;
const RETRY_MS = 30_000;

/** A piece that is no longer what the show needs. */
export function pieceToPlayAnew({
  show,
  facts,
}: Pick<ShowState, 'show' | 'facts'>): { sound: PlacedSound; wishes: BandWishes } | null {
  // Where the pictures follow the music, the music stays as it is.
  if (show.pace || !show.cues.some(({ band }) => band)) return null;
  for (const { sound, startMs, endMs } of bandSpans(show, facts)) {
    if (sound.ends.at === 'own-end') continue;
    const wishes = wishesFor(sound.band!, show, startMs, endMs);
    const known = facts.get(sound.assetId);
    const played = known?.kind === 'sound' ? known.band : undefined;
    if (wishes && known && !(played && stableText(played.wishes) === stableText(wishes))) return { sound, wishes };
  }
  return null;
}

/** Has the band play anew what the show has outgrown, a while after the last change; until then the piece there is tailored. It is no step that could be undone: it follows from the show. */
export function useBandFollows(store: ShowStore): void {
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | null = null;
    let playing: AbortController | null = null;
    let closed = false;
    const later = (ms: number) => {
      if (timer) clearTimeout(timer);
      timer = closed ? null : setTimeout(() => void follow(), ms);
    };
    const follow = async () => {
      timer = null;
      const wanted = store.getState().damage === null ? pieceToPlayAnew(store.getState()) : null;
      if (!wanted || closed) return;
      const own = new AbortController();
      playing = own;
      try {
        const entry = await playedByBand(store, wanted.wishes, { signal: own.signal });
        if (playing !== own) return;
        playing = null;
        const now = pieceToPlayAnew(store.getState());
        // Meanwhile it may have become another.
        if (now && now.sound.id === wanted.sound.id && stableText(now.wishes) === stableText(wanted.wishes))
          store.getState().follow({
            kind: 'set-sound',
            slideId: null,
            soundId: wanted.sound.id,
            properties: { assetId: entry.assetId },
          });
        later(CALM_MS);
      } catch (error) {
        if (playing === own) playing = null;
        // It is tailored until the band can be had. Who may only look on is refused, and waits for somebody who may change the show.
        if (!own.signal.aborted && !(error instanceof ServerRefusal)) later(RETRY_MS);
      }
    };
    const changed = (now: ShowState, before: ShowState) => {
      if (now.show === before.show && now.facts === before.facts) return;
      if (now.show !== before.show) {
        playing?.abort();
        playing = null;
      }
      if (!playing) later(CALM_MS);
    };
    later(CALM_MS);
    const unsubscribe = store.subscribe(changed);
    return () => {
      closed = true;
      unsubscribe();
      if (timer) clearTimeout(timer);
      playing?.abort();
    };
  }, [store]);
}
