'use client';

import { nanoid } from 'nanoid';
import { useEffect, useRef } from 'react';
import { toast } from 'sonner';
import type { SlideId } from '../../core/show/ids';
import { copyOfSlide } from '../../core/show/new-slide';
import type { Slide } from '../../core/show/show';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { callServer } from '../show/call-server';
import { useShowStore } from '../show/show-provider';
import { putSlides, slidesOn } from './order-clipboard';
import { sayFault } from '../show/say-fault';

interface OrderClipboardHands {
  /** The chosen slides in their order. */
  readonly chosen: () => readonly SlideId[];
  readonly remove: (name: string) => void;
  readonly add: (slides: readonly Slide[]) => void;
}

/** Cut, copy and paste of slides by the browser's own clipboard, so that they go from one show to another. Works wherever no field has the hand. */
export function useOrderClipboard(hands: OrderClipboardHands): void {
  const store = useShowStore();
  const latest = useRef(hands);
  useEffect(() => {
    latest.current = hands;
  });
  useEffect(() => {
    const copy = (event: ClipboardEvent) => {
      const ids = latest.current.chosen();
      if (ids.length === 0 || inField(event) || !event.clipboardData || (getSelection()?.toString() ?? '') !== '')
        return;
      const { show } = store.getState();
      putSlides(event.clipboardData, {
        showId: show.id,
        slides: show.slides.filter((slide) => ids.includes(slide.id)),
      });
      event.preventDefault();
      if (event.type === 'cut') latest.current.remove(`cut ${ids.length === 1 ? 'a slide' : `${ids.length} slides`}`);
      else toast(`${ids.length === 1 ? 'One slide is' : `${ids.length} slides are`} on the clipboard.`);
    };
    const paste = (event: ClipboardEvent) => {
      const copied = inField(event) || !event.clipboardData ? null : slidesOn(event.clipboardData);
      if (!copied) return;
      event.preventDefault();
      void put(copied).catch((error: unknown) => sayFault(error));
    };
    const put = async ({ showId, slides, ownWork }: NonNullable<ReturnType<typeof slidesOn>>) => {
      const { show, setEntries } = store.getState();
      if (showId !== show.id || !ownWork) {
        const lent = await callServer<{ entries: SheetEntry[] }>('POST', `/api/v1/shows/${show.id}/loans`, {
          from: showId,
          slides,
        });
        setEntries(lent.entries);
      }
      latest.current.add(slides.map((slide) => copyOfSlide(slide, () => nanoid(10))));
    };
    document.addEventListener('copy', copy);
    document.addEventListener('cut', copy);
    document.addEventListener('paste', paste);
    return () => {
      document.removeEventListener('copy', copy);
      document.removeEventListener('cut', copy);
      document.removeEventListener('paste', paste);
    };
  }, [store]);
}

function inField(event: Event): boolean {
  return (
    event.target instanceof Element &&
    event.target.closest('input, textarea, select, [contenteditable=true], [role=dialog]') !== null
  );
}
