'use client';

import { clsx } from 'clsx';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import { toldOf } from '../../core/showing/showing';
import { openChannel, type ShowingChannel, type ShowingNews } from './channel';
import { commandOfKey } from './showing-keys';
import { TestScreen } from './test-screen';
import { useHall } from './use-hall';
import { useProjection } from './use-projection';

/** What is told so often is enough for a clock in tenths. */
const TELL_EVERY_MS = 200;

interface ProjectorProps {
  readonly show: Show;
  readonly facts: readonly (readonly [AssetId, AssetFacts])[];
}

/** What the hall sees: the show and nothing else. It fetches everything beforehand and goes on by itself when the presenter’s window or the server is gone. */
export function Projector({ show, facts: known }: ProjectorProps) {
  const facts = useMemo(() => new Map(known), [known]);
  const place = useRef<HTMLDivElement>(null);
  const { shown, hands, state, run, again } = useProjection(place, show, facts);
  useHall(show.id, show.slides.length, state, toldOf(shown, state), run);
  const { starting, rehearse, rehearsed, framesPerSecond } = hands;
  const [mayHear, setMayHear] = useState(false);
  const [fullScreen, setFullScreen] = useState(false);
  const channel = useRef<ShowingChannel | null>(null);
  const latest = useRef({ run, news: null as ShowingNews | null });
  useEffect(() => {
    latest.current = { run, news: { state, rehearsed, framesPerSecond, fullScreen, mayHear } };
  });

  useEffect(() => {
    const opened = openChannel(show.id, {
      command: (command) => latest.current.run(command),
      hello: () => latest.current.news && opened.tell(latest.current.news),
    });
    channel.current = opened;
    const timer = setInterval(() => latest.current.news && opened.tell(latest.current.news), TELL_EVERY_MS);
    const leave = () => opened.leave();
    window.addEventListener('pagehide', leave);
    return () => {
      clearInterval(timer);
      window.removeEventListener('pagehide', leave);
      opened.leave();
      opened.close();
    };
  }, [show.id]);
  // What matters is told at once.
  useEffect(() => {
    if (latest.current.news) channel.current?.tell(latest.current.news);
  }, [
    state.phase,
    state.black,
    state.byHand,
    state.loops,
    state.test,
    rehearsed?.done,
    rehearsed?.sounds,
    mayHear,
    fullScreen,
  ]);

  useEffect(() => {
    if (!starting) rehearse();
  }, [starting, rehearse]);

  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    const hold = () => {
      if (document.visibilityState === 'visible')
        void navigator.wakeLock?.request('screen').then(
          (held) => {
            lock = held;
          },
          // Without it the machine may fall asleep, as it would with any page.
          () => {},
        );
    };
    hold();
    document.addEventListener('visibilitychange', hold);
    const full = () => setFullScreen(document.fullscreenElement !== null);
    document.addEventListener('fullscreenchange', full);
    return () => {
      document.removeEventListener('visibilitychange', hold);
      document.removeEventListener('fullscreenchange', full);
      void lock?.release();
    };
  }, []);

  useEffect(() => {
    let typed = '';
    const press = (event: KeyboardEvent) => {
      if (event.key === 'f' || event.key === 'F') {
        if (document.fullscreenElement) void document.exitFullscreen();
        else void document.documentElement.requestFullscreen();
        return;
      }
      if (/^\d$/.test(event.key)) {
        typed = (typed + event.key).slice(-5);
        return;
      }
      if (event.key === 'Enter' && typed !== '') {
        latest.current.run({ do: 'go', slide: Number(typed) - 1 });
        typed = '';
        return;
      }
      const command = commandOfKey(event);
      if (!command) return;
      event.preventDefault();
      typed = '';
      latest.current.run(command);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);

  const aspect = show.frame.widthPx / show.frame.heightPx;
  const before = state.phase === 'before' && !state.test;
  const click = () => {
    if (!mayHear) {
      setMayHear(true);
      // The first click in a window is what lets it sound; what plays already is begun anew with its sound.
      if (state.phase !== 'before') return again();
      if (!document.fullscreenElement) void document.documentElement.requestFullscreen().catch(() => {});
      return;
    }
    run({ do: 'next' });
  };
  const ready = rehearsed !== null && rehearsed.done === rehearsed.of && rehearsed.sounds;

  return (
    <main
      aria-label="Projector"
      data-part="projector"
      data-phase={state.phase}
      data-moment={Math.round(state.momentMs)}
      data-ready={ready}
      data-black={state.black}
      data-fps={framesPerSecond === null ? '' : framesPerSecond.toFixed(1)}
      onClick={click}
      className={clsx('fixed inset-0 grid place-items-center bg-black text-lamp', !before && 'cursor-none')}
    >
      <div
        ref={place}
        className="relative overflow-hidden bg-black"
        style={{ aspectRatio: aspect, width: `min(100vw, 100vh * ${aspect})` }}
      />
      {(before || state.black || state.phase === 'ended') && (
        <div className="absolute inset-0 bg-black" data-part="dark" />
      )}
      {before && (
        <div className="absolute inset-0 grid place-items-center p-8 text-center">
          <div>
            <p className="font-display text-[28px] font-semibold">{show.title}</p>
            <p className="mt-3 text-base text-lamp-soft" role="status" data-part="readiness">
              {rehearsed === null
                ? 'Preparing …'
                : ready
                  ? 'Everything is here; the show goes on even without the server.'
                  : `Fetching: ${rehearsed.done} of ${rehearsed.of} slides${rehearsed.sounds ? ', all sounds' : ''} …`}
            </p>
            <p className="mt-8 text-base">
              {mayHear
                ? 'A click, a key or the presenter starts it.'
                : 'Click once: then this window may sound and fill the screen.'}
            </p>
          </div>
        </div>
      )}
      {state.test && <TestScreen />}
    </main>
  );
}
