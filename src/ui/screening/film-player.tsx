'use client';

import { ArrowUpRight, Download, RotateCcw, X } from 'lucide-react';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { filmFor, qualityName, type Shown } from '../../core/screening/shown-film';
import { useViewing } from './use-viewing';

interface FilmPlayerProps {
  readonly shown: Shown;
  readonly video: RefObject<HTMLVideoElement | null>;
  /** In another site’s page there is the film alone. */
  readonly alone?: boolean;
}

/** Times a film has to wait for the line before a lighter one is taken. */
const WAITS = 2;

/** The film itself, with the browser’s own controls: they are known, read aloud, and there without scripts. */
export function FilmPlayer({ shown, video, alone = false }: FilmPlayerProps) {
  const { token, films, settings } = shown;
  const [quality, setQuality] = useState<string>('auto');
  const [filmId, setFilmId] = useState(films[0]!.id);
  const [rests, setRests] = useState<'not' | 'paused' | 'ended'>('not');
  const [lighter, setLighter] = useState(false);
  const resume = useRef<{ at: number; plays: boolean } | null>(null);
  const film = films.find(({ id }) => id === filmId)!;
  useViewing(video, token, settings.counts);

  const change = (id: string) => {
    if (id === filmId) return;
    const player = video.current!;
    resume.current = { at: player.currentTime, plays: !player.paused };
    setFilmId(id);
  };
  const fitting = () => filmFor(films, video.current!.clientWidth * Math.min(2, devicePixelRatio), lineBits()).id;

  // What fits the window and the line is known here only.
  useEffect(() => {
    const player = video.current!;
    const best = filmFor(films, player.clientWidth * Math.min(2, devicePixelRatio), lineBits());
    if (player.currentTime === 0 && player.paused) setFilmId(best.id);
  }, [films, video]);

  useEffect(() => {
    if (quality !== 'auto' || films.length < 2) return;
    const player = video.current!;
    let waits = 0;
    const wait = () => {
      if (player.seeking || player.currentTime < 1) return;
      waits += 1;
      const next = films[films.findIndex(({ id }) => id === filmId) + 1];
      if (waits < WAITS || !next) return;
      resume.current = { at: player.currentTime, plays: true };
      setFilmId(next.id);
      setLighter(true);
    };
    player.addEventListener('waiting', wait);
    return () => player.removeEventListener('waiting', wait);
  }, [quality, films, filmId, video]);

  return (
    <div>
      <div className="relative">
        <video
          ref={video}
          controls
          playsInline
          preload="metadata"
          controlsList={settings.mayTake ? undefined : 'nodownload'}
          src={`/api/v1/screenings/${token}/film?film=${filmId}`}
          poster={`/api/v1/screenings/${token}/picture`}
          aria-label={shown.title}
          className="block w-full bg-black"
          style={{ aspectRatio: `${film.widthPx} / ${film.heightPx}` }}
          data-part="screening"
          data-film={filmId}
          onLoadedMetadata={({ currentTarget: player }) => {
            const kept = resume.current;
            resume.current = null;
            if (!kept) return;
            player.currentTime = kept.at;
            if (kept.plays) void player.play().catch(() => {});
          }}
          onPlay={() => setRests('not')}
          onPause={() => {
            if (!video.current!.ended && video.current!.currentTime > 0.5) setRests('paused');
          }}
          onSeeking={() => setRests((now) => (now === 'ended' ? 'not' : now))}
          onEnded={() => setRests('ended')}
        >
          {shown.languages.map(({ tag, name }, index) => (
            <track
              key={tag}
              kind="captions"
              src={`/api/v1/screenings/${token}/captions/${tag}`}
              srcLang={tag}
              label={name}
              default={index === 0}
            />
          ))}
        </video>
        {rests !== 'not' && settings.call && (
          <div className="pointer-events-none absolute inset-x-0 top-0 flex justify-center p-3 sm:p-6" data-part="call">
            <div className="pointer-events-auto flex max-w-full items-center gap-2 rounded-lg bg-(--ground)/92 p-2 pl-4 shadow-raised">
              <a
                href={settings.call.to}
                target={alone ? '_blank' : undefined}
                rel="noreferrer"
                className="flex min-w-0 items-center gap-2 rounded-md bg-(--accent) px-4 py-2 text-base font-semibold text-(--on-accent) hover:opacity-90"
              >
                <span className="min-w-0 [overflow-wrap:anywhere]">{settings.call.words}</span>
                <ArrowUpRight size={16} aria-hidden="true" className="shrink-0" />
              </a>
              {rests === 'ended' && (
                <button
                  type="button"
                  className="flex h-10 items-center gap-2 rounded-md px-3 text-base hover:bg-white/10"
                  onClick={() => void video.current!.play()}
                >
                  <RotateCcw size={16} aria-hidden="true" /> Once more
                </button>
              )}
              <button
                type="button"
                aria-label="Take this away"
                className="grid size-10 place-items-center rounded-md hover:bg-white/10"
                onClick={() => setRests('not')}
              >
                <X size={16} aria-hidden="true" />
              </button>
            </div>
          </div>
        )}
      </div>
      {!alone && (films.length > 1 || settings.mayTake) && (
        <div className="mt-2 flex flex-wrap items-center justify-end gap-3 px-4 text-(--soft) sm:px-0">
          {lighter && quality === 'auto' && <span role="status">A lighter film, for this line.</span>}
          {films.length > 1 && (
            <label className="flex items-center gap-2">
              Quality
              <select
                value={quality}
                data-part="quality"
                onChange={({ target: { value } }) => {
                  setQuality(value);
                  setLighter(false);
                  change(value === 'auto' ? fitting() : value);
                }}
                className="h-9 rounded-md border border-(--rule) bg-(--ground) px-2 text-(--letters)"
              >
                <option value="auto">as fits</option>
                {films.map((one) => (
                  <option key={one.id} value={one.id}>
                    {qualityName(one)}
                  </option>
                ))}
              </select>
            </label>
          )}
          {settings.mayTake && (
            <a
              href={`/api/v1/screenings/${token}/film?take&film=${filmId}`}
              download
              data-part="take"
              className="flex h-9 items-center gap-2 rounded-md border border-(--rule) px-3 text-(--letters) hover:border-(--soft)"
            >
              <Download size={15} aria-hidden="true" /> Download
            </a>
          )}
        </div>
      )}
    </div>
  );
}

/** What the browser thinks the line carries; null where it does not say, or says its highest (10 Mbit/s). */
function lineBits(): number | null {
  const { connection } = navigator as Navigator & { connection?: { downlink?: number } };
  return connection?.downlink && connection.downlink < 9 ? connection.downlink * 1e6 : null;
}
