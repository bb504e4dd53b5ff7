'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { BandWishes } from '../../core/sound/band/band-wishes';
import { BAND_RATE } from '../../core/sound/band/playing/tone';
import { stableText } from '../../core/stable-text';
import type { FromBand, PlannedPiece, ToBand } from './band-messages';

const WORKER = '/drawing/band-worker.js';

/** What a piece would be like: asked of a thread of its own with each change. @returns undefined while it is asked for the first time, null when nobody is left to play */
export function usePlannedPiece(wishes: BandWishes | null): PlannedPiece | null | undefined {
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [piece, setPiece] = useState<PlannedPiece | null | undefined>(undefined);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [],
  );
  const key = wishes && stableText(wishes);
  useEffect(() => {
    if (!key) return;
    if (!worker.current) {
      worker.current = new Worker(WORKER, { type: 'module' });
      worker.current.onmessage = ({ data }: MessageEvent<FromBand>) => {
        if (data.kind === 'planned' && data.id === asked.current) setPiece(data.piece);
      };
    }
    asked.current += 1;
    worker.current.postMessage({
      kind: 'plan',
      id: asked.current,
      wishes: JSON.parse(key) as BandWishes,
    } satisfies ToBand);
  }, [key]);
  return piece;
}

export interface Rehearsal {
  readonly isPlaying: boolean;
  /** How much of the piece was made until now, 0…1. */
  readonly made: number;
  begin(wishes: BandWishes): void;
  stop(): void;
}

/** The band plays at once, in the browser: heard while the rest is still being made. */
export function useRehearsal(): Rehearsal {
  const running = useRef<{ worker: Worker; context: AudioContext } | null>(null);
  const [isPlaying, setPlaying] = useState(false);
  const [made, setMade] = useState(0);
  const stop = useCallback(() => {
    const now = running.current;
    running.current = null;
    now?.worker.terminate();
    void now?.context.close();
    setPlaying(false);
    setMade(0);
  }, []);
  useEffect(() => stop, [stop]);
  const begin = useCallback(
    (wishes: BandWishes) => {
      stop();
      const worker = new Worker(WORKER, { type: 'module' });
      const context = new AudioContext({ sampleRate: BAND_RATE });
      running.current = { worker, context };
      setPlaying(true);
      let nextAt = 0;
      worker.onmessage = ({ data }: MessageEvent<FromBand>) => {
        if (running.current?.worker !== worker) return;
        if (data.kind === 'played') {
          const buffer = context.createBuffer(2, data.left.length, BAND_RATE);
          buffer.copyToChannel(data.left as Float32Array<ArrayBuffer>, 0);
          buffer.copyToChannel(data.right as Float32Array<ArrayBuffer>, 1);
          const source = context.createBufferSource();
          source.buffer = buffer;
          source.connect(context.destination);
          // A moment is kept in hand, so that a busy machine leaves no gaps; one that fell behind goes on from now.
          nextAt = Math.max(nextAt, context.currentTime + 0.12);
          source.start(nextAt);
          nextAt += buffer.duration;
          setMade(data.share);
          if (data.share >= 1) source.onended = stop;
        }
      };
      worker.onerror = stop;
      worker.postMessage({ kind: 'play', wishes } satisfies ToBand);
    },
    [stop],
  );
  return { isPlaying, made, begin, stop };
}
