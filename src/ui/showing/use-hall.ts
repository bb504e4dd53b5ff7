'use client';

import { useEffect, useRef } from 'react';
import type { ShowId } from '../../core/show/ids';
import type { ShowingCommand, ShowingTold, ShowingState } from '../../core/showing/showing';
import type { RemoteNews } from '../../core/showing/showing-schema';
import { callServer } from '../show/call-server';

const TELL_EVERY_MS = 1000;

/** Joins the projector to remotes in the hall, as long as the server is there and its door open; the projector itself does, so that the presenter's window may be closed. */
export function useHall(
  show: ShowId,
  slideCount: number,
  { phase, black }: ShowingState,
  { slide, goneMs, leftMs }: ShowingTold,
  run: (command: ShowingCommand) => void,
): void {
  const latest = useRef<{ run: typeof run; news: RemoteNews } | null>(null);
  useEffect(() => {
    latest.current = {
      run,
      news: { phase, black, slide: slide + 1, slideCount, goneMs: Math.round(goneMs), leftMs: Math.round(leftMs) },
    };
  });
  const tell = useRef<(() => void) | null>(null);
  useEffect(() => {
    const events = new EventSource(`/api/v1/shows/${show}/hall/events`);
    let timer: ReturnType<typeof setInterval> | null = null;
    let told = '';
    tell.current = () => {
      const now = JSON.stringify(latest.current!.news);
      if (now === told || events.readyState !== EventSource.OPEN) return;
      told = now;
      // A server that went away is told again when it is back.
      void callServer('PATCH', `/api/v1/shows/${show}/hall`, latest.current!.news).catch(() => {
        told = '';
      });
    };
    events.onopen = () => {
      told = '';
      timer ??= setInterval(() => tell.current?.(), TELL_EVERY_MS);
      tell.current?.();
    };
    events.onmessage = ({ data }: MessageEvent<string>) => latest.current?.run(JSON.parse(data) as ShowingCommand);
    return () => {
      events.close();
      if (timer) clearInterval(timer);
      tell.current = null;
    };
  }, [show]);
  useEffect(() => tell.current?.(), [phase, black, slide]);
}
