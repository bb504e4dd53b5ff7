'use client';

import { rateName } from '../../core/timing/frame-rate';
import { Download, ExternalLink, Link2, Trash2, X } from 'lucide-react';
import { format } from 'date-fns';
import { useCallback, useEffect, useState } from 'react';
import { toast } from 'sonner';
import { FILM_HEIGHTS, widthFor, type FilmHeight } from '../../core/film/plan-film';
import { frameCount } from '../../core/timing/frames';
import { showLengthMs } from '../../core/timing/slide-span';
import type { FilmRow } from '../../server/films/film-service';
import { useCommands } from '../commands/use-commands';
import { Button } from '../kit/button';
import { clock, megabytes } from '../kit/clock';
import { callServer } from '../show/call-server';
import { useMusicLengthMs, useShow } from '../show/show-provider';

const PURPOSES: Record<FilmHeight, { name: string; note: string; megabitsPerSecond: number }> = {
  1080: { name: 'Full screen', note: 'sharp on a television or projector', megabitsPerSecond: 5 },
  720: { name: 'Phone and web', note: 'smaller, quicker to send', megabitsPerSecond: 2.5 },
};

const STAGES = { sound: 'mixing the sound', pictures: 'drawing', joining: 'joining' } as const;

/** Where films are made and handed over. */
export function SendStation() {
  const show = useShow((state) => state.show);
  const saving = useShow((state) => state.saving);
  const whenSaved = useShow((state) => state.whenSaved);
  const musicMs = useMusicLengthMs();
  const [heightPx, setHeightPx] = useState<FilmHeight>(1080);
  const [films, setFilms] = useState<readonly FilmRow[] | null>(null);
  const [now, setNow] = useState(() => Date.now());
  const [ordering, setOrdering] = useState(false);
  const failed = (error: unknown) =>
    void toast(error instanceof Error ? error.message : 'The server cannot be reached.');
  const refresh = useCallback(async () => {
    try {
      const answer = await callServer<{ films: FilmRow[] }>('GET', `/api/v1/shows/${show.id}/films`);
      setFilms(answer.films);
      setNow(Date.now());
    } catch (error) {
      failed(error);
    }
  }, [show.id]);
  useEffect(() => {
    // The first list comes from the server, as every later one does.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    void refresh();
    const hear = () => void refresh();
    window.addEventListener('tanager-films', hear);
    return () => window.removeEventListener('tanager-films', hear);
  }, [refresh]);

  const lengthMs = showLengthMs(show);
  // What an earlier film of this show and size needed is the best guess for the next.
  const like = films?.find((film) => film.heightPx === heightPx && film.byteCount !== null);
  const bytesPerMs = like ? like.byteCount! / like.lengthMs : PURPOSES[heightPx].megabitsPerSecond * 125;
  const order = async () => {
    setOrdering(true);
    try {
      if (!(await whenSaved()))
        return void toast(
          'The film was not ordered: the server cannot be reached, and it would lack what you did last.',
        );
      await callServer('POST', `/api/v1/shows/${show.id}/films`, { heightPx });
      await refresh();
    } catch (error) {
      failed(error);
    } finally {
      setOrdering(false);
    }
  };

  const canOrder = show.slides.length > 0 && !ordering && saving !== 'offline';
  useCommands({ 'make-film': canOrder ? () => void order() : undefined });

  return (
    <div className="flex min-w-0 flex-1" data-part="send">
      <section
        aria-labelledby="make"
        className="w-[340px] shrink-0 overflow-y-auto border-r border-rule bg-card p-5 scroll-thin"
      >
        <h2 id="make" className="text-lg">
          Make a film
        </h2>
        <div role="radiogroup" aria-label="Size of the film" className="mt-3 flex flex-col gap-2">
          {[...FILM_HEIGHTS].reverse().map((height) => {
            const purpose = PURPOSES[height];
            return (
              <label
                key={height}
                className="flex cursor-pointer gap-3 rounded-lg border border-rule p-3 has-[:checked]:border-red has-[:checked]:bg-red-wash/50"
              >
                <input
                  type="radio"
                  name="height"
                  value={height}
                  checked={heightPx === height}
                  onChange={() => setHeightPx(height)}
                  className="mt-1 accent-red"
                />
                <span>
                  <span className="block text-base font-semibold">{purpose.name}</span>
                  <span className="block text-soft">{purpose.note}</span>
                  <span className="tabular mt-1 block text-soft">
                    {widthFor(show.frame, height)} × {height} · {rateName(show.frame.rate)} a second
                  </span>
                </span>
              </label>
            );
          })}
        </div>
        <dl className="mt-4 grid grid-cols-[110px_1fr] gap-y-1">
          <dt className="text-soft">length</dt>
          <dd className="tabular">
            {clock(lengthMs)}, {frameCount(lengthMs, show.frame.rate).toLocaleString('en')} frames
          </dd>
          <dt className="text-soft">music</dt>
          <dd>
            {musicMs === 0 ? (
              'none'
            ) : musicMs + 500 < lengthMs ? (
              <span className="font-semibold text-red-deep">ends {clock(lengthMs - musicMs)} early</span>
            ) : musicMs > lengthMs + 500 ? (
              'fades out with the last picture'
            ) : (
              'ends with the show'
            )}
          </dd>
          <dt className="text-soft">file</dt>
          <dd>
            about <span className="tabular">{megabytes(lengthMs * bytesPerMs)}</span>, MP4
          </dd>
        </dl>
        <Button
          look="main"
          className="mt-4 h-10 w-full text-base"
          disabled={!canOrder}
          onClick={() => void order()}
          data-part="make-film"
        >
          Make the film
        </Button>
        <p className="mt-2 text-soft">
          {show.slides.length === 0
            ? 'Lay some pictures into the order first.'
            : 'It goes on when this page is closed. The show can be changed meanwhile; the film is of the show as it is now.'}
        </p>
      </section>
      <section aria-labelledby="films" className="min-w-0 flex-1 overflow-y-auto p-5 scroll-thin">
        <h2 id="films" className="text-lg">
          Films
        </h2>
        {films === null ? (
          <p className="mt-3 text-soft">Looking …</p>
        ) : films.length === 0 ? (
          <p className="mt-3 max-w-md rounded-lg border border-dashed border-soft/40 p-5 text-base text-soft">
            Films you make are listed here, with a link to watch each and the file to download. Earlier ones stay until
            you remove them.
          </p>
        ) : (
          <table className="mt-3 w-full border-collapse" data-part="films">
            <thead>
              <tr className="border-b border-rule text-left text-soft">
                <th className="py-1.5 font-normal">Film</th>
                <th className="font-normal">Size</th>
                <th className="font-normal">Length</th>
                <th className="w-[38%] font-normal">State</th>
                <th className="text-right font-normal">
                  <span className="sr-only">What can be done</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {films.map((film) => (
                <FilmLine key={film.id} film={film} now={now} onDone={() => void refresh()} onFailed={failed} />
              ))}
            </tbody>
          </table>
        )}
      </section>
    </div>
  );
}

function FilmLine({
  film,
  now,
  onDone,
  onFailed,
}: {
  film: FilmRow;
  now: number;
  onDone: () => void;
  onFailed: (error: unknown) => void;
}) {
  const call = (method: 'POST' | 'DELETE', path: string) => callServer(method, path).then(onDone, onFailed);
  const link = `/s/${film.screeningToken}`;
  const copy = async () => {
    await navigator.clipboard.writeText(new URL(link, location.href).href);
    toast('The link was copied. Whoever has it can watch this film.');
  };
  return (
    <tr className="border-b border-rule align-top" data-part="film" data-state={film.state}>
      <td className="py-3 pr-3">
        <span className="font-semibold">{film.title}</span>
        <span className="block text-soft">{format(film.orderedAt, 'd MMM, HH:mm')}</span>
      </td>
      <td className="tabular py-3 pr-3">
        {film.heightPx}p
        {film.byteCount !== null && <span className="block text-soft">{megabytes(film.byteCount)}</span>}
      </td>
      <td className="tabular py-3 pr-3">{clock(film.lengthMs)}</td>
      <td className="py-3 pr-3">
        <FilmState film={film} now={now} />
      </td>
      <td className="py-2.5">
        <span className="flex justify-end gap-1.5">
          {film.state === 'ready' && (
            <>
              <a
                href={link}
                target="_blank"
                rel="noreferrer"
                className="inline-flex h-8 items-center gap-1.5 rounded-md border border-rule bg-card px-3 hover:border-soft"
                data-part="screening-link"
              >
                <ExternalLink size={14} /> Screening
              </a>
              <Button square aria-label="Copy the screening’s link" onClick={() => void copy().catch(onFailed)}>
                <Link2 size={15} />
              </Button>
              <a
                href={`/api/v1/films/${film.id}/file`}
                download
                aria-label="Download the film"
                title="Download the film"
                data-part="download"
                className="inline-grid size-8 place-items-center rounded-md border border-rule bg-card hover:border-soft"
              >
                <Download size={15} />
              </a>
            </>
          )}
          {film.state === 'waiting' || film.state === 'making' ? (
            <Button onClick={() => void call('POST', `/api/v1/films/${film.id}/cancel`)}>
              <X size={14} /> Cancel
            </Button>
          ) : (
            <Button
              look="quiet"
              square
              aria-label={`Remove this ${film.heightPx}p film`}
              onClick={() => {
                if (
                  film.state !== 'ready' ||
                  confirm('Remove this film and its screening? The file is deleted; the show stays.')
                )
                  void call('DELETE', `/api/v1/films/${film.id}`);
              }}
            >
              <Trash2 size={15} />
            </Button>
          )}
        </span>
      </td>
    </tr>
  );
}

function FilmState({ film, now }: { film: FilmRow; now: number }) {
  if (film.state === 'waiting') return <span>waiting for its turn</span>;
  if (film.state === 'cancelled') return <span className="text-soft">cancelled</span>;
  if (film.state === 'failed')
    return (
      <span className="text-red-deep">
        <b>not made.</b> {film.problem}
      </span>
    );
  if (film.state === 'ready') {
    const tookMs = film.startedAt !== null && film.finishedAt !== null ? film.finishedAt - film.startedAt : null;
    return (
      <span>
        {film.problem ?? <span className="font-semibold text-moss">ready</span>}
        {tookMs !== null && (
          <span className="block text-soft">
            made in <span className="tabular">{clock(tookMs)}</span>
          </span>
        )}
      </span>
    );
  }
  const share = film.frameCount > 0 ? film.framesDone / film.frameCount : 0;
  const elapsedMs = film.startedAt === null ? 0 : now - film.startedAt;
  const leftMs = share > 0.03 ? (elapsedMs / share) * (1 - share) : null;
  return (
    <div role="status">
      <progress
        aria-label="Frames drawn"
        max={film.frameCount}
        value={film.framesDone}
        className="h-1.5 w-full appearance-none overflow-hidden rounded-full [&::-webkit-progress-bar]:bg-rule [&::-webkit-progress-value]:bg-red"
      />
      <span className="mt-1 flex justify-between text-soft">
        <span>
          {STAGES[film.stage ?? 'sound']}{' '}
          {film.stage === 'pictures' && (
            <span className="tabular">
              {film.framesDone.toLocaleString('en')} of {film.frameCount.toLocaleString('en')} frames
            </span>
          )}
        </span>
        {leftMs !== null && (
          <span>
            <span className="tabular">{clock(leftMs)}</span> left
          </span>
        )}
      </span>
    </div>
  );
}
