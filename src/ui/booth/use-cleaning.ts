import { useCallback, useEffect, useRef, useState } from 'react';
import type { AssetId } from '../../core/show/ids';
import type { Cleaning } from '../../core/sound/voice/cleaning';
import type { CleanedFile } from '../../server/recording/recording-service';
import { callServer } from '../show/call-server';
import { useShowStore } from '../show/show-provider';

/** So much of a recording’s length it takes on a plain machine; what it took last is known better. */
let paceHere = 1 / 11;
const TOLD_EVERY_MS = 500;

export interface CleaningHands {
  /** About how long it will still take; null while nothing is cleaned. */
  readonly leftMs: number | null;
  readonly problem: string | null;
  /** Has a recording cleaned; what was being cleaned before is not wanted any more. @returns null when it was stopped or failed, and `problem` says so */
  clean(original: AssetId, lengthMs: number, how: Cleaning): Promise<CleanedFile | null>;
  stop(): void;
}

/** Cleaning is work of the server’s that a person waits for: it says about how long, and can be stopped. Who looks elsewhere meanwhile gets it all the same. */
export function useCleaning(): CleaningHands {
  const store = useShowStore();
  const asked = useRef<AbortController | null>(null);
  const [untilMs, setUntilMs] = useState<number | null>(null);
  const [nowMs, setNowMs] = useState(0);
  const [problem, setProblem] = useState<string | null>(null);

  useEffect(() => {
    if (untilMs === null) return;
    const telling = setInterval(() => setNowMs(performance.now()), TOLD_EVERY_MS);
    return () => clearInterval(telling);
  }, [untilMs]);

  const stop = useCallback(() => {
    asked.current?.abort();
    asked.current = null;
    setUntilMs(null);
  }, []);
  const clean = useCallback(
    async (original: AssetId, lengthMs: number, how: Cleaning) => {
      asked.current?.abort();
      const mine = new AbortController();
      asked.current = mine;
      const begunMs = performance.now();
      setProblem(null);
      setNowMs(begunMs);
      setUntilMs(begunMs + paceHere * lengthMs);
      try {
        const { show, mergeEntries } = store.getState();
        const path = `/api/v1/shows/${show.id}/sounds/${original}/cleaned`;
        const cleaned = await callServer<CleanedFile>('POST', path, { how }, { signal: mine.signal });
        if (mine.signal.aborted) return null;
        paceHere = (performance.now() - begunMs) / Math.max(1000, lengthMs);
        mergeEntries([cleaned.entry]);
        return cleaned;
      } catch (error) {
        if (!mine.signal.aborted) setProblem(error instanceof Error ? error.message : String(error));
        return null;
      } finally {
        if (asked.current === mine) stop();
      }
    },
    [store, stop],
  );
  return { leftMs: untilMs === null ? null : Math.max(0, untilMs - nowMs), problem, clean, stop };
}
