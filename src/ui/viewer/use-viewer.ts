'use client';

import { useCallback, useEffect, useRef, useState, type RefObject } from 'react';
import type { FactsById } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import { showLengthMs } from '../../core/timing/slide-span';
import { tellPlaying } from './playing-now';
import { changeOf } from './show-change';
import { createSoundPlayer, type SoundPlayer } from './sound-player';
import type { FromWorker, ToWorker } from './worker-messages';

export interface ViewerHands {
  readonly playing: boolean;
  readonly momentMs: number;
  /** Until the drawing worker has drawn its first frame. */
  readonly starting: boolean;
  /** What is seen is not yet the moment that is named. */
  readonly preparing: boolean;
  readonly unreadable: ReadonlyMap<AssetId, string>;
  /** By how much words that are seen are smaller than was asked, so that they fit. */
  readonly wordsScale: number;
  /** Plays from a moment (or from where it stands) to the end of the show or to `untilMs`; slower than 1, or where that is wanted, without sound. */
  play(fromMs?: number, untilMs?: number, speed?: number, silent?: boolean): void;
  pause(): void;
  seek(momentMs: number): void;
  /** Fetches everything the show needs, so that it goes on when the server does not. */
  rehearse(): void;
  /** How much of that is done; null when it was not asked for. */
  readonly rehearsed: { readonly done: number; readonly of: number; readonly sounds: boolean } | null;
  /** Frames a second that were drawn lately; null when it does not play. */
  readonly framesPerSecond: number | null;
}

/** Larger frames cost more than they show on a canvas this size; full screens are scaled up from it. */
const LARGEST_WIDTH_PX = 1280;

const START_AGAIN_MS = 2000;
/** So long the frame before may stand for the one that is wanted; while playing, a frame that comes late is seen as a short stop. */
const LATE_MS = 100;
const LATE_PLAYING_MS = 350;

const clockNow = () => performance.timeOrigin + performance.now();

/** Wires a canvas to a drawing worker and a sound player. The canvas is put into `place` by the hook, since a canvas can be handed to a worker only once. */
export function useViewer(
  place: RefObject<HTMLDivElement | null>,
  show: Show,
  facts: FactsById,
  beginMs = 0,
  /** What was fetched is kept for when the server is gone. */
  keeps = false,
): ViewerHands {
  const worker = useRef<Worker | null>(null);
  const sound = useRef<SoundPlayer | null>(null);
  const run = useRef<{ fromMs: number; atMs: number; untilMs: number; speed: number; silent: boolean } | null>(null);
  const latest = useRef({ show, facts });
  /** What the worker has; it is told only what changed. */
  const sent = useRef<{ show: Show; facts: FactsById } | null>(null);
  const [playing, setPlaying] = useState(false);
  const [momentMs, setMomentMs] = useState(beginMs);
  const [starting, setStarting] = useState(true);
  const [preparing, setPreparing] = useState(false);
  const [wordsScale, setWordsScale] = useState(1);
  const [rehearsed, setRehearsed] = useState<ViewerHands['rehearsed']>(null);
  const [framesPerSecond, setFramesPerSecond] = useState<number | null>(null);
  const late = useRef<ReturnType<typeof setTimeout> | null>(null);
  const [attempt, setAttempt] = useState(0);
  const [unreadable, setUnreadable] = useState<ReadonlyMap<AssetId, string>>(new Map());
  const moment = useRef(beginMs);
  // A worker loses what is sent before its modules are loaded, so messages wait until it says that it is ready.
  const waiting = useRef<[ToWorker, Transferable[]][] | null>([]);
  const post = useCallback((message: ToWorker, transfer: Transferable[] = []) => {
    if (waiting.current) waiting.current.push([message, transfer]);
    else worker.current?.postMessage(message, transfer);
  }, []);
  const frameAspect = show.frame.widthPx / show.frame.heightPx;
  const showId = show.id;

  useEffect(() => {
    const holder = place.current;
    if (!holder) return;
    const canvas = document.createElement('canvas');
    canvas.className = 'block h-full w-full';
    canvas.setAttribute('aria-hidden', 'true');
    holder.append(canvas);
    const started = new Worker(`/drawing/worker.js?show=${showId}${keeps ? '&keep' : ''}`, { type: 'module' });
    worker.current = started;
    waiting.current = [];
    sound.current = createSoundPlayer(showId);
    started.onmessage = (event: MessageEvent<FromWorker>) => {
      if (event.data.kind === 'ready') {
        const queued = waiting.current ?? [];
        waiting.current = null;
        for (const [message, transfer] of queued) started.postMessage(message, transfer);
      }
      if (event.data.kind === 'drawn') {
        setStarting(false);
        setPreparing(false);
        if (late.current) clearTimeout(late.current);
        late.current = null;
      }
      if (event.data.kind === 'waiting')
        late.current ??= setTimeout(() => setPreparing(true), run.current ? LATE_PLAYING_MS : LATE_MS);
      if (event.data.kind === 'rehearsed') {
        const { done, of } = event.data;
        setRehearsed((before) => ({ done, of, sounds: before?.sounds ?? false }));
      }
      if (event.data.kind === 'drew') setFramesPerSecond((1000 * event.data.frames) / event.data.overMs);
      if (event.data.kind === 'words-scale') setWordsScale(event.data.scale);
      if (event.data.kind === 'problem') {
        const { assetId, message } = event.data;
        setUnreadable((before) => new Map([...before, [assetId, message]]));
      }
    };
    // The server went away while the worker was being fetched: it is started anew until it comes.
    let again: ReturnType<typeof setTimeout> | null = null;
    started.onerror = () => {
      if (waiting.current) again ??= setTimeout(() => setAttempt((before) => before + 1), START_AGAIN_MS);
    };
    const offscreen = canvas.transferControlToOffscreen();
    post({ kind: 'canvas', canvas: offscreen }, [offscreen]);
    post({ kind: 'show', ...latest.current });
    sent.current = latest.current;
    post({ kind: 'still', momentMs: moment.current });
    const resize = new ResizeObserver(() => {
      const widthPx = Math.max(
        160,
        Math.min(LARGEST_WIDTH_PX, 16 * Math.round((holder.clientWidth * Math.min(2, devicePixelRatio)) / 16)),
      );
      post({ kind: 'size', widthPx, heightPx: 2 * Math.round(widthPx / frameAspect / 2) });
    });
    resize.observe(holder);
    return () => {
      if (again) clearTimeout(again);
      if (late.current) clearTimeout(late.current);
      late.current = null;
      resize.disconnect();
      started.terminate();
      sound.current?.close();
      canvas.remove();
      worker.current = null;
    };
  }, [place, post, frameAspect, attempt, showId, keeps]);

  const pause = useCallback(() => {
    run.current = null;
    sound.current?.stop();
    setPlaying(false);
    post({ kind: 'still', momentMs: moment.current });
  }, [post]);

  const rehearse = useCallback(() => {
    const { show: current, facts: known } = latest.current;
    setRehearsed({ done: 0, of: current.slides.length, sounds: false });
    post({ kind: 'rehearse' });
    void sound.current
      ?.load(current, known)
      .then(() => setRehearsed((before) => before && { ...before, sounds: true }));
  }, [post]);

  const seek = useCallback(
    (toMs: number) => {
      const held = Math.min(Math.max(0, toMs), Math.max(0, showLengthMs(latest.current.show) - 1));
      moment.current = held;
      setMomentMs(held);
      if (run.current) play(held, run.current.untilMs, run.current.speed, run.current.silent);
      else post({ kind: 'still', momentMs: held });
      // `play` is stable: it only reads refs.
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [post],
  );

  const play = useCallback(
    (fromMs?: number, untilMs?: number, speed = 1, silent = false) => {
      const { show: current, facts: known } = latest.current;
      const endMs = showLengthMs(current);
      if (endMs === 0) return;
      const start = fromMs ?? (moment.current >= endMs - 50 ? 0 : moment.current);
      const until = Math.min(untilMs ?? endMs, endMs);
      moment.current = start;
      setMomentMs(start);
      run.current = { fromMs: start, atMs: Infinity, untilMs: until, speed, silent };
      const mine = run.current;
      setPlaying(true);
      // Slowed down it would sound like nothing that is in the show.
      const sounds = speed === 1 && !silent;
      if (!sounds) sound.current!.stop();
      // Sound that fails keeps no picture from playing.
      const begun = sounds ? sound.current!.play(current, known, start).catch(clockNow) : Promise.resolve(clockNow());
      void begun.then((atMs) => {
        if (run.current !== mine) return;
        run.current = { fromMs: start, atMs, untilMs: until, speed, silent };
        post({ kind: 'play', momentMs: start, atMs, endMs: until - 1, speed });
      });
    },
    [post],
  );

  useEffect(() => {
    latest.current = { show, facts };
    const before = sent.current;
    if (before && (before.show !== show || before.facts !== facts)) {
      post({
        kind: 'change',
        change: changeOf(before.show, show),
        facts:
          before.facts === facts
            ? new Map()
            : new Map([...facts].filter(([id, known]) => before.facts.get(id) !== known)),
      });
      sent.current = latest.current;
    }
    if (run.current && run.current.atMs !== Infinity)
      play(moment.current, Math.min(run.current.untilMs, showLengthMs(show)), run.current.speed, run.current.silent);
    else {
      const held = Math.min(moment.current, Math.max(0, showLengthMs(show) - 1));
      moment.current = held;
      setMomentMs(held);
      post({ kind: 'still', momentMs: held });
    }
  }, [show, facts, post, play]);

  useEffect(() => {
    if (!playing) return;
    const mine = {};
    tellPlaying(mine, true);
    return () => tellPlaying(mine, false);
  }, [playing]);

  useEffect(() => {
    if (!playing) return;
    let asked = requestAnimationFrame(function follow() {
      asked = requestAnimationFrame(follow);
      const current = run.current;
      if (!current || current.atMs === Infinity) return;
      const at = current.fromMs + current.speed * Math.max(0, clockNow() - current.atMs);
      moment.current = Math.min(at, current.untilMs - 1);
      setMomentMs(moment.current);
      if (at >= current.untilMs) pause();
    });
    return () => cancelAnimationFrame(asked);
  }, [playing, pause]);

  return {
    playing,
    momentMs,
    starting,
    preparing: preparing && !starting,
    wordsScale,
    unreadable,
    play,
    pause,
    seek,
    rehearse,
    rehearsed,
    framesPerSecond: playing ? framesPerSecond : null,
  };
}
