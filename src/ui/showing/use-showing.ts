'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { ShowId } from '../../core/show/ids';
import type { ShowingCommand } from '../../core/showing/showing';
import { openChannel, type ShowingChannel, type ShowingNews } from './channel';

/** Without a word from it for so long, the projector is gone. */
const LOST_AFTER_MS = 2500;

interface ScreenDetails {
  readonly screens: readonly {
    readonly isPrimary: boolean;
    readonly availLeft: number;
    readonly availTop: number;
    readonly availWidth: number;
    readonly availHeight: number;
  }[];
}

/** The presenter's hands on the projector’s window. */
export function useShowing(show: ShowId): {
  /** Null without a projector. */
  readonly news: ShowingNews | null;
  send(command: ShowingCommand): void;
  /** Opens the projector's window, on another screen where the browser knows of one. @returns false when the browser would not */
  open(): Promise<boolean>;
} {
  const [news, setNews] = useState<ShowingNews | null>(null);
  const channel = useRef<ShowingChannel | null>(null);
  useEffect(() => {
    let lost: ReturnType<typeof setTimeout> | null = null;
    const opened = openChannel(show, {
      news: (next) => {
        setNews(next);
        if (lost) clearTimeout(lost);
        lost = next ? setTimeout(() => setNews(null), LOST_AFTER_MS) : null;
      },
    });
    channel.current = opened;
    opened.greet();
    return () => {
      if (lost) clearTimeout(lost);
      opened.close();
    };
  }, [show]);
  const send = useCallback((command: ShowingCommand) => channel.current?.send(command), []);
  const open = useCallback(async () => {
    const at = await otherScreen();
    const place = at
      ? `left=${at.availLeft},top=${at.availTop},width=${at.availWidth},height=${at.availHeight}`
      : 'width=1280,height=720';
    return window.open(`/showing/${show}/projector`, `tanager-projector-${show}`, `popup,${place}`) !== null;
  }, [show]);
  return { news, send, open };
}

/** A second screen, where the browser can tell and may. */
async function otherScreen(): Promise<ScreenDetails['screens'][number] | null> {
  const asking = window as Window & { getScreenDetails?: () => Promise<ScreenDetails> };
  if (!asking.getScreenDetails) return null;
  const details = await Promise.race([
    asking.getScreenDetails().catch(() => null),
    // A person who does not answer the browser's question has a plain window.
    new Promise<null>((resolve) => setTimeout(() => resolve(null), 4000)),
  ]);
  return details?.screens.find((screen) => !screen.isPrimary) ?? null;
}
