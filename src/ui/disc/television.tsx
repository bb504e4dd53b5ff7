'use client';

import {
  ChevronDown,
  ChevronLeft,
  ChevronRight,
  ChevronUp,
  Menu,
  SkipBack,
  SkipForward,
  StepForward,
} from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { STANDARDS } from '../../core/disc/disc-standard';
import { highlightPicture } from '../../core/disc/highlight';
import { begun, pressed, type PlayedDisc, type PlayerPlace, type RemoteKey } from '../../core/disc/remote';
import type { DiscSeen } from '../../server/disc/seen-disc';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { useDrawn } from './use-drawn';

const KEYS: Readonly<Record<string, RemoteKey>> = {
  ArrowUp: 'up',
  ArrowDown: 'down',
  ArrowLeft: 'left',
  ArrowRight: 'right',
  Enter: 'press',
  Escape: 'menu',
  PageDown: 'next',
  PageUp: 'previous',
  End: 'ends',
};
/** So long a pressed button is seen to be. */
const PRESSED_MS = 180;
/** A chapter's frame in which what comes in is there. */
const THERE_MS = 1500;

/** The disc as a television shows it, with the remote of a player, before anything of it is made. */
export function Television({ seen }: { seen: DiscSeen }) {
  const { plan, pages, films, colours } = seen;
  const disc = useMemo<PlayedDisc>(() => ({ plan, pages, films }), [plan, pages, films]);
  const [place, setPlace] = useState<PlayerPlace | null>(null);
  const [flash, setFlash] = useState(false);
  const [moves, setMoves] = useState(false);
  const [older, setOlder] = useState(false);
  const here = place && isThere(disc, place) ? place : null;
  const isEmpty = pages.length === 0;
  const now: PlayerPlace | null = isEmpty ? null : (here ?? begun(disc));
  const press = (key: RemoteKey) => {
    if (!now || flash) return;
    if (key !== 'press' || now.at !== 'menu') return setPlace(pressed(disc, now, key));
    setFlash(true);
    setTimeout(() => {
      setFlash(false);
      setPlace(pressed(disc, now, key));
    }, PRESSED_MS);
  };
  const letterboxed = older && plan.shape === '16:9';
  const aspect = plan.shape === '4:3' || letterboxed ? 4 / 3 : 16 / 9;
  return (
    <section
      aria-label="As a television shows it"
      className="flex min-w-0 flex-1 flex-col bg-surround text-lamp"
      data-part="television"
    >
      <div
        role="group"
        aria-label="The television: arrow keys, Enter, Escape for the menu"
        tabIndex={0}
        className="grid min-h-0 flex-1 place-items-center p-6 outline-offset-[-4px]"
        data-part="television-screen"
        data-place={now ? nameOf(now) : ''}
        onKeyDown={(event) => {
          const key = KEYS[event.key];
          if (!key || event.target !== event.currentTarget) return;
          event.preventDefault();
          press(key);
        }}
      >
        {now === null ? (
          <p className="max-w-sm text-center text-base text-lamp-soft">
            {seen.faults[0] ?? 'Put a show on the disc, and its menu is seen here.'}
          </p>
        ) : (
          <div
            className="relative w-full max-w-[860px] overflow-hidden rounded-[14px] bg-[#000] shadow-[0_0_0_10px_#0d0c0b,0_18px_60px_rgb(0_0_0/0.6)]"
            style={{ aspectRatio: aspect }}
          >
            {now.at === 'menu' ? (
              <MenuSeen key={now.page} seen={seen} page={now.page} moves={moves} letterboxed={letterboxed} />
            ) : (
              <FilmSeen seen={seen} place={now} letterboxed={letterboxed} />
            )}
            {now.at === 'menu' && (
              <Lit
                seen={seen}
                page={now.page}
                button={now.button}
                colour={flash ? colours.pressed : colours.chosen}
                letterboxed={letterboxed}
              />
            )}
          </div>
        )}
      </div>
      <p role="status" className="px-6 pb-1 text-center text-lamp-soft" data-part="television-says">
        {now && said(seen, now)}
      </p>
      <div
        className="flex flex-wrap items-center justify-center gap-x-5 gap-y-2 border-t border-white/10 px-6 py-3"
        aria-label="The remote"
        role="group"
      >
        <span className="flex items-center gap-1">
          <Key label="Left" onPress={() => press('left')} icon={<ChevronLeft size={16} />} />
          <span className="flex flex-col gap-1">
            <Key label="Up" onPress={() => press('up')} icon={<ChevronUp size={16} />} low />
            <Key label="Down" onPress={() => press('down')} icon={<ChevronDown size={16} />} low />
          </span>
          <Key label="Right" onPress={() => press('right')} icon={<ChevronRight size={16} />} />
          <Button look="dark" className="border-white/20" onClick={() => press('press')} data-part="remote-press">
            Press
          </Button>
        </span>
        <span className="flex items-center gap-1">
          <Key label="Menu" onPress={() => press('menu')} icon={<Menu size={15} />} />
          <Key label="Chapter before" onPress={() => press('previous')} icon={<SkipBack size={15} />} />
          <Key label="Next chapter" onPress={() => press('next')} icon={<SkipForward size={15} />} />
          <Key label="To the end of the film" onPress={() => press('ends')} icon={<StepForward size={15} />} />
        </span>
        <span className="flex items-center gap-2">
          <Choice
            dark
            label="The page"
            value={moves ? 'moves' : 'stands'}
            options={[
              { value: 'stands', label: 'stands' },
              { value: 'moves', label: 'moves, with music' },
            ]}
            onChange={(value) => setMoves(value === 'moves')}
          />
          {plan.shape === '16:9' && (
            <Choice
              dark
              label="Which television"
              value={older ? 'older' : 'wide'}
              options={[
                { value: 'wide', label: 'wide' },
                { value: 'older', label: 'older, 4:3' },
              ]}
              onChange={(value) => setOlder(value === 'older')}
            />
          )}
        </span>
      </div>
    </section>
  );
}

function isThere({ pages, films }: PlayedDisc, place: PlayerPlace): boolean {
  return place.at === 'menu'
    ? place.button < (pages[place.page]?.buttons.length ?? 0)
    : place.chapter < (films[place.film]?.chapters.length ?? 0);
}

const nameOf = (place: PlayerPlace) =>
  place.at === 'menu'
    ? `page ${place.page + 1}, button ${place.button + 1}`
    : `film ${place.film + 1}, chapter ${place.chapter + 1}`;

function said({ pages, films }: DiscSeen, place: PlayerPlace): string {
  if (place.at === 'menu') {
    const page = pages[place.page]!;
    return `${page.title}, page ${place.page + 1} of ${pages.length}: ${page.buttons[place.button]!.label}`;
  }
  const film = films[place.film]!;
  const chapter = film.chapters[place.chapter]!;
  return film.chapters.length === 1
    ? `${film.title} plays`
    : `${film.title} plays, chapter ${place.chapter + 1} of ${film.chapters.length}: ${chapter.title}`;
}

/** Wide pictures on an older television have bars above and below. */
const inBars = (letterboxed: boolean) =>
  letterboxed ? 'absolute inset-x-0 top-[12.5%] h-[75%] w-full' : 'absolute inset-0 size-full';

interface MenuSeenProps {
  readonly seen: DiscSeen;
  readonly page: number;
  readonly moves: boolean;
  readonly letterboxed: boolean;
}

function MenuSeen({ seen, page, moves, letterboxed }: MenuSeenProps) {
  const path = `/api/v1/discs/${seen.id}/pages/${page + 1}`;
  const { url, problem } = useDrawn(path, seen.stamp);
  const [plays, setPlays] = useState(false);
  return (
    <>
      {url && (
        // Drawn anew with every change.
        // eslint-disable-next-line @next/next/no-img-element
        <img
          src={url}
          alt={`The page “${seen.pages[page]!.title}”`}
          className={inBars(letterboxed)}
          data-part="menu-page"
        />
      )}
      {moves && (
        <video
          key={`${path} ${seen.stamp}`}
          src={`${path}/moving`}
          autoPlay
          loop
          aria-label={`The page “${seen.pages[page]!.title}”, moving`}
          onPlaying={() => setPlays(true)}
          className={inBars(letterboxed)}
          data-part="menu-moving"
        />
      )}
      {problem ? (
        <p role="alert" className="absolute inset-0 grid place-items-center p-8 text-center">
          {problem}
        </p>
      ) : (
        ((!url && !moves) || (moves && !plays)) && (
          <p role="status" className="absolute right-3 bottom-3 rounded-md bg-black/70 px-2 py-1 text-sm">
            It is drawn …
          </p>
        )
      )}
    </>
  );
}

function FilmSeen({
  seen,
  place,
  letterboxed,
}: {
  seen: DiscSeen;
  place: Extract<PlayerPlace, { at: 'film' }>;
  letterboxed: boolean;
}) {
  const film = seen.films[place.film]!;
  const chapter = film.chapters[place.chapter]!;
  const until = film.chapters[place.chapter + 1]?.startMs ?? film.lengthMs;
  const atMs = Math.round(chapter.startMs + Math.min(THERE_MS, (until - chapter.startMs) / 2));
  const { url } = useDrawn(`/api/v1/shows/${film.showId}/still?at=${atMs}&shape=${seen.plan.shape}`, seen.stamp);
  return (
    <>
      {url && (
        // Drawn for this moment.
        // eslint-disable-next-line @next/next/no-img-element
        <img src={url} alt={`${film.title}, ${chapter.title}`} className={inBars(letterboxed)} data-part="film-still" />
      )}
      <p className="absolute top-4 left-5 rounded-md bg-black/60 px-2.5 py-1 font-display">▸ {chapter.title}</p>
    </>
  );
}

interface LitProps {
  readonly seen: DiscSeen;
  readonly page: number;
  readonly button: number;
  readonly colour: string;
  readonly letterboxed: boolean;
}

/** What is lit, by the same points as on the disc. */
function Lit({ seen, page, button, colour, letterboxed }: LitProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { heightPx, widthPx } = STANDARDS[seen.plan.standard];
  const of = seen.pages[page]!;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const { rgba } = highlightPicture(of, heightPx, letterboxed, colour, button);
    const pixels = context.createImageData(widthPx, heightPx);
    pixels.data.set(rgba);
    context.putImageData(pixels, 0, 0);
  }, [of, heightPx, widthPx, letterboxed, colour, button]);
  return (
    <canvas
      ref={canvas}
      width={widthPx}
      height={heightPx}
      aria-hidden="true"
      className="pointer-events-none absolute inset-0 size-full"
      data-part="lit"
    />
  );
}

function Key({
  label,
  icon,
  low = false,
  onPress,
}: {
  label: string;
  icon: React.ReactNode;
  low?: boolean;
  onPress: () => void;
}) {
  return (
    <Button
      look="dark"
      square
      aria-label={label}
      className={low ? 'h-6 border-white/20' : 'border-white/20'}
      onClick={onPress}
    >
      {icon}
    </Button>
  );
}
