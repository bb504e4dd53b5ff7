'use client';

import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import { useStore } from 'zustand';
import type { PreparedShow } from '../../core/frame/plan-frame';
import type { Show } from '../../core/show/show';
import { musicLengthMs } from '../../core/sound/sound-spans';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { purposeTitle } from '../../core/film/purposes/purposes';
import type { EndedFilm, ShowEvent } from '../../server/events';
import { callServer, KNOWN, SIGNED_IN } from './call-server';
import { createKeptMoment, KeptMomentContext } from './kept-moment';
import { followSheet, type WholeSheet } from './follow-sheet';
import { preparedOnce } from './prepared-once';
import { createShowStore, type ShowState, type ShowStore } from './show-store';
import { useBandFollows } from './use-band-follows';
import { UploadsProvider } from './uploads-provider';
import { Toasts } from '../kit/toasts';

const ShowContext = createContext<ShowStore | null>(null);

const REFUSED_RETRY_MS = 5000;

interface ShowProviderProps {
  readonly show: Show;
  readonly revision: number;
  /** What is wrong with what is stored of it; null when nothing is. */
  readonly damage: string | null;
  readonly entries: readonly SheetEntry[];
  readonly children: ReactNode;
}

/** Holds one open show: its document, its contact sheet, its undo steps; keeps it saved and in step with other tabs. */
export function ShowProvider({ show, revision, damage, entries, children }: ShowProviderProps) {
  const [store] = useState(() =>
    createShowStore({
      show,
      revision,
      damage,
      entries,
      storage: typeof window === 'undefined' ? null : window.localStorage,
      session: typeof window === 'undefined' ? null : window.sessionStorage,
      tell: (sentence) => void toast(sentence),
    }),
  );

  useBandFollows(store);
  const [moment] = useState(createKeptMoment);

  useEffect(() => store.getState().takeUpUnsent(), [store]);

  /** Counts how often the stream of events was begun: one that was refused does not try again by itself. */
  const [turn, setTurn] = useState(0);

  useEffect(() => {
    const anew = () => setTurn((before) => before + 1);
    const events = new EventSource(`/api/v1/shows/${show.id}/events`);
    let known = turn > 0;
    const sheet = followSheet({
      ask: () => callServer<WholeSheet>('GET', `/api/v1/shows/${show.id}/sheet`),
      whole: ({ entries: all, folder }) => store.getState().setEntries(all, folder),
      changed: (some, folder) => store.getState().mergeEntries(some, folder),
    });
    events.onopen = () => {
      window.dispatchEvent(new Event(KNOWN));
      // After a lost connection something may have been missed.
      if (known || store.getState().saving === 'offline') {
        store.getState().pull();
        sheet.askAnew();
      }
      known = true;
    };
    // While it tries again by itself it is not closed; a browser that is leaving the page says so too late to matter.
    let again: ReturnType<typeof setTimeout> | null = null;
    events.onerror = () => {
      store.getState().lost();
      if (events.readyState !== EventSource.CLOSED) return;
      // Refused: by something between here and the server, which passes, or since it is not known any more who one is, which asking brings to light.
      void callServer('GET', '/api/v1/account').catch(() => {});
      again ??= setTimeout(anew, REFUSED_RETRY_MS);
    };
    events.onmessage = (message: MessageEvent<string>) => {
      const event = JSON.parse(message.data) as ShowEvent;
      if (event.kind === 'edits') store.getState().pull();
      if (event.kind === 'sheet' || (event.kind === 'hello' && !isStillRight(store.getState().entries, event)))
        sheet.askAnew();
      if (event.kind === 'entry') sheet.hear({ entry: event.entry });
      if (event.kind === 'folder') sheet.hear({ folder: event.folder });
      if (event.kind === 'proofs') window.dispatchEvent(new Event('tanager-proofs'));
      if (event.kind === 'publications') window.dispatchEvent(new Event('tanager-publications'));
      if (event.kind === 'notes') window.dispatchEvent(new Event('tanager-notes'));
      if (event.kind === 'films') {
        window.dispatchEvent(new Event('tanager-films'));
        if (event.ended) sayEnded(event.ended);
      }
    };
    const leave = () => store.getState().flushNow();
    const back = () => store.getState().pull();
    window.addEventListener('pagehide', leave);
    window.addEventListener('online', back);
    window.addEventListener(SIGNED_IN, anew);
    return () => {
      if (again) clearTimeout(again);
      window.removeEventListener(SIGNED_IN, anew);
      window.removeEventListener('pagehide', leave);
      window.removeEventListener('online', back);
      events.close();
      sheet.close();
    };
  }, [show.id, store, turn]);

  return (
    <ShowContext value={store}>
      <KeptMomentContext value={moment}>
        <UploadsProvider showId={show.id}>{children}</UploadsProvider>
      </KeptMomentContext>
      <Toasts offset={{ bottom: 88 }} />
    </ShowContext>
  );
}

/** A film has ended: said on the page, and by the browser when the page is not looked at and it may. */
function sayEnded({ purpose, ready }: EndedFilm): void {
  const name = purposeTitle(purpose);
  const said = ready ? `The film is ready: ${name}.` : `The film was not made: ${name}. Send says why.`;
  toast(said);
  if (document.hidden && 'Notification' in window && Notification.permission === 'granted') new Notification(said);
}

/** Whether nothing came or was looked at since the page was made. */
function isStillRight(
  entries: readonly SheetEntry[],
  { entryCount, waitingCount }: { entryCount: number; waitingCount: number },
): boolean {
  return entries.length === entryCount && entries.filter((entry) => entry.state === 'arrived').length === waitingCount;
}

export function useShowStore(): ShowStore {
  const store = useContext(ShowContext);
  if (!store) throw new Error('useShowStore needs a ShowProvider above it');
  return store;
}

export function useShow<Value>(pick: (state: ShowState) => Value): Value {
  return useStore(useShowStore(), pick);
}

/** The show with its spans and moves, worked out once for each change, whoever asks. */
export function usePrepared(): PreparedShow {
  const show = useShow((state) => state.show);
  const facts = useShow((state) => state.facts);
  return useMemo(() => preparedOnce(show, facts), [show, facts]);
}

export function useMusicLengthMs(): number {
  const show = useShow((state) => state.show);
  const facts = useShow((state) => state.facts);
  return useMemo(() => musicLengthMs(show, facts), [show, facts]);
}
