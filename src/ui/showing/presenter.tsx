'use client';

import { Moon, Pause, Play, Repeat, SkipBack, SkipForward, Tv } from 'lucide-react';
import Link from 'next/link';
import { useEffect, useMemo, useRef, useState } from 'react';
import { toast } from 'sonner';
import { Toasts } from '../kit/toasts';
import { sentencesOf } from '../../core/captions/sentences';
import { prepareShow } from '../../core/frame/plan-frame';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import { wordsOf, type Show, type Slide } from '../../core/show/show';
import { BEFORE, toldOf } from '../../core/showing/showing';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { clock } from '../kit/clock';
import { Coming } from './coming';
import { MomentStill } from './moment-still';
import { HallRemote } from './hall-remote';
import { commandOfKey } from './showing-keys';
import { SlideShelf } from './slide-shelf';
import { shownShow } from './use-projection';
import { useShowing } from './use-showing';

interface PresenterProps {
  readonly show: Show;
  readonly facts: readonly (readonly [AssetId, AssetFacts])[];
}

/** What whoever runs the evening sees: what is on, what comes next, what is to be said, and the time. */
export function Presenter({ show, facts: known }: PresenterProps) {
  const prepared = useMemo(() => prepareShow(show, new Map(known)), [show, known]);
  const shown = useMemo(() => shownShow(prepared), [prepared]);
  const { news, send, open } = useShowing(show.id);
  const state = news?.state ?? BEFORE;
  const { slide: index, goneMs, leftMs } = toldOf(shown, state);
  const typed = useTypedNumber(show.slides.length, (slide) => send({ do: 'go', slide: slide - 1 }));
  const hands = useRef(send);
  useEffect(() => {
    hands.current = send;
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.defaultPrevented || (event.target as HTMLElement).closest('input, button, a, [role=radio]')) return;
      const command = commandOfKey(event);
      if (!command) return;
      event.preventDefault();
      hands.current(command);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
  const now = show.slides[index];
  const openProjector = () =>
    void open().then((opened) => {
      if (!opened) toast('The browser did not open the window. Allow this page to open windows, and press again.');
    });

  return (
    <main
      data-part="presenter"
      data-phase={state.phase}
      data-slide={index + 1}
      className="flex h-dvh min-w-[980px] flex-col bg-surround text-lamp"
    >
      <header className="flex h-14 shrink-0 items-center gap-4 border-b border-white/10 px-5">
        <Link href={`/shows/${show.id}/arrange`} className="text-lamp-soft hover:text-lamp">
          Back to work
        </Link>
        <h1 className="truncate font-display text-lg font-semibold">{show.title}</h1>
        <p role="status" data-part="showing-said" className="min-w-0 truncate text-lamp-soft">
          {saidOf(news)}
        </p>
        <Clock />
        <Button
          look={news ? 'dark' : 'main'}
          className={news ? 'border-white/25' : undefined}
          onClick={openProjector}
          data-part="open-projector"
        >
          <Tv size={15} /> {news ? 'Projector is open' : 'Open the projector'}
        </Button>
      </header>
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1.55fr)_minmax(0,1fr)] gap-5 p-5 pb-3">
        <section aria-label="Now" className="flex min-h-0 flex-col">
          <div className="relative w-full max-w-[calc((100dvh-330px)*1.78)]">
            {now && <MomentStill prepared={prepared} index={index} label={`Now: slide ${index + 1}`} />}
            {state.black && (
              <p className="absolute inset-0 grid place-items-center bg-black/85 font-display text-[28px] font-semibold">
                black
              </p>
            )}
            <p className="absolute top-3 left-3 rounded-md bg-black/75 px-2.5 py-1 font-medium">
              {PHASES[state.phase]} <span className="tabular">{index + 1}</span> of{' '}
              <span className="tabular">{show.slides.length}</span>
            </p>
          </div>
          {now && <Script slide={now} />}
        </section>
        <section aria-label="Next" className="flex min-h-0 flex-col gap-3">
          <div className="flex items-baseline gap-5">
            <p>
              <span className="text-lamp-soft">gone </span>
              <b className="tabular font-display text-[28px]" data-part="gone">
                {clock(goneMs)}
              </b>
            </p>
            <p>
              <span className="text-lamp-soft">left </span>
              <b className="tabular font-display text-[28px]" data-part="left">
                {clock(leftMs)}
              </b>
            </p>
          </div>
          <Coming prepared={prepared} state={state} />
          <HallRemote show={show.id} />
        </section>
      </div>
      <SlideShelf show={show} at={index} onGo={(slide) => send({ do: 'go', slide })} />
      <footer className="flex h-16 shrink-0 items-center gap-2 bg-black px-5">
        <Button look="dark" square aria-label="Back" onClick={() => send({ do: 'back' })} disabled={!news}>
          <SkipBack size={17} fill="currentColor" />
        </Button>
        <Button
          look="main"
          className="h-10 px-5 text-base"
          onClick={() => send({ do: 'next' })}
          disabled={!news}
          data-part="next"
        >
          {state.phase === 'before' ? (
            <Play size={16} fill="currentColor" />
          ) : (
            <SkipForward size={16} fill="currentColor" />
          )}
          {state.phase === 'before' ? 'Begin' : 'Next'}
        </Button>
        <Button
          look="dark"
          onClick={() => send({ do: 'hold' })}
          disabled={!news}
          aria-pressed={state.phase === 'held'}
          data-part="hold"
          className="aria-pressed:bg-white/20"
        >
          {state.phase === 'held' ? <Play size={15} /> : <Pause size={15} />}{' '}
          {state.phase === 'held' ? 'Go on' : 'Hold'}
        </Button>
        <Button
          look="dark"
          onClick={() => send({ do: 'black' })}
          disabled={!news}
          aria-pressed={state.black}
          data-part="black"
          className="aria-pressed:bg-white/20"
        >
          <Moon size={15} /> Black
        </Button>
        <Button
          look="dark"
          onClick={() => send({ do: 'test' })}
          disabled={!news}
          aria-pressed={state.test}
          data-part="test"
          className="aria-pressed:bg-white/20"
        >
          Test screen
        </Button>
        <span className="mx-2 h-6 border-l border-white/20" />
        <Choice
          dark
          label="How it goes on"
          value={state.byHand ? 'hand' : 'self'}
          onChange={(how) => send({ do: 'by-hand', on: how === 'hand' })}
          options={[
            { value: 'self', label: 'by itself' },
            { value: 'hand', label: 'by hand' },
          ]}
        />
        <Button
          look="dark"
          onClick={() => send({ do: 'loop', on: !state.loops })}
          disabled={!news}
          aria-pressed={state.loops}
          data-part="loop"
          className="aria-pressed:bg-white/20"
        >
          <Repeat size={15} /> Again and again
        </Button>
        <form
          className="ml-auto flex items-center gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            typed.go();
          }}
        >
          <label className="flex items-center gap-2 text-lamp-soft">
            to slide
            <input
              inputMode="numeric"
              value={typed.text}
              onChange={(event) => typed.set(event.target.value)}
              data-part="go-to"
              className="tabular h-8 w-16 rounded-md border border-white/25 bg-transparent px-2 text-lamp"
            />
          </label>
          <Button look="dark" type="submit" disabled={!news}>
            Go
          </Button>
        </form>
      </footer>
      <Toasts />
    </main>
  );
}

const PHASES = {
  before: 'not begun ·',
  running: 'on ·',
  waiting: 'waits for you ·',
  held: 'held ·',
  ended: 'over ·',
} as const;

function saidOf(news: ReturnType<typeof useShowing>['news']): string {
  if (!news) return 'No projector is open.';
  const { rehearsed, mayHear, framesPerSecond } = news;
  const all = rehearsed !== null && rehearsed.done === rehearsed.of && rehearsed.sounds;
  const ready = !rehearsed
    ? 'Preparing …'
    : all
      ? 'Everything is fetched: it goes on without the server.'
      : `Fetching: ${rehearsed.done} of ${rehearsed.of} slides${rehearsed.sounds ? ', all sounds' : ''}.`;
  const sound = mayHear ? '' : ' Click once in the projector’s window, so that it may sound.';
  return `${ready}${sound}${framesPerSecond === null ? '' : ` ${Math.round(framesPerSecond)} frames a second.`}`;
}

/** What is to be said: the script, sentence by sentence; without one the words on the slide. */
function Script({ slide }: { slide: Slide }) {
  const words = wordsOf(slide);
  const sentences = slide.script ? sentencesOf(slide.script) : [];
  return (
    <div
      data-part="showing-script"
      className="mt-4 min-h-0 flex-1 overflow-y-auto font-display text-[22px] leading-9 scroll-thin"
    >
      {sentences.length > 0 ? (
        sentences.map((sentence, at) => <p key={at}>{sentence}</p>)
      ) : (
        <p className="text-lamp-soft">
          {words ? [words.title, words.subtitle].filter(Boolean).join(' · ') : 'Nothing to be said here.'}
        </p>
      )}
    </div>
  );
}

function Clock() {
  const [time, setTime] = useState<string | null>(null);
  useEffect(() => {
    const tick = () => setTime(new Date().toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' }));
    tick();
    const timer = setInterval(tick, 5000);
    return () => clearInterval(timer);
  }, []);
  return (
    <time data-part="clock" className="tabular ml-auto font-display text-[20px]">
      {time}
    </time>
  );
}

function useTypedNumber(count: number, go: (slide: number) => void) {
  const [text, set] = useState('');
  return {
    text,
    set,
    go: () => {
      const slide = Number(text);
      if (Number.isInteger(slide) && slide > 0 && slide <= count) go(slide);
      else toast(`Type the number of a slide, 1 to ${count}.`);
      set('');
    },
  };
}
