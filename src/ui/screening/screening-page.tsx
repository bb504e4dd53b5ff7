'use client';

import { clsx } from 'clsx';
import { useRef } from 'react';
import { clock } from '../kit/clock';
import { FilmPlayer } from './film-player';
import { GuestBook } from './guest-book';
import type { Shown } from '../../core/screening/shown-film';

/** A film, its chapters and its guest book. */
export function ScreeningPage({ shown }: { shown: Shown }) {
  const video = useRef<HTMLVideoElement>(null);
  const { title, chapters, films, settings, token, lengthMs } = shown;
  const { widthPx, heightPx } = films[0]!;
  const go = (ms: number) => {
    video.current!.currentTime = ms / 1000;
    void video.current!.play().catch(() => {});
  };
  const see = (ms: number) => {
    video.current!.currentTime = ms / 1000;
    video.current!.scrollIntoView({ block: 'nearest' });
  };
  const upright = heightPx > widthPx;
  return (
    <div
      className={clsx(
        'mx-auto grid w-full flex-1 gap-x-10 gap-y-8 py-4 sm:px-8 sm:py-6',
        settings.guestBook
          ? upright
            ? 'max-w-[1000px] lg:grid-cols-[minmax(0,5fr)_minmax(0,4fr)]'
            : 'max-w-[1500px] lg:grid-cols-[minmax(0,1fr)_340px]'
          : 'max-w-[1280px]',
      )}
    >
      <div className="min-w-0">
        <div
          className="mx-auto"
          style={{ maxWidth: `max(300px, calc((100dvh - ${upright ? 150 : 260}px) * ${widthPx / heightPx}))` }}
        >
          <FilmPlayer shown={shown} video={video} />
          <div className="px-4 sm:px-0">
            <h1
              className="mt-4 font-(family-name:--titles) text-xl [overflow-wrap:anywhere]"
              style={{ fontWeight: 'var(--titles-weight)', letterSpacing: 'var(--titles-spacing)' }}
            >
              {title}
            </h1>
            <p className="tabular mt-1 text-(--soft)">{clock(lengthMs)}</p>
            {chapters.length > 0 && (
              <nav aria-label="Chapters" className="mt-4 flex flex-wrap gap-2" data-part="chapters">
                {chapters.map((chapter) => (
                  <button
                    key={chapter.startMs}
                    type="button"
                    onClick={() => go(chapter.startMs)}
                    className="flex max-w-full items-baseline gap-2 rounded-md border border-(--rule) px-3 py-1.5 text-left hover:border-(--soft)"
                  >
                    <span className="tabular text-(--soft)">{clock(chapter.startMs)}</span>
                    <span className="min-w-0 [overflow-wrap:anywhere]">{chapter.title}</span>
                  </button>
                ))}
              </nav>
            )}
          </div>
        </div>
      </div>
      {settings.guestBook && (
        <aside className="px-4 sm:px-0">
          <noscript>
            <p className="text-(--soft)">The guest book needs scripts; the film does not.</p>
          </noscript>
          <GuestBook token={token} video={video} onGo={see} />
        </aside>
      )}
    </div>
  );
}
