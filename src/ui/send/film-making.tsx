'use client';

import { clsx } from 'clsx';
import { ArrowUpToLine, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { formatOf } from '../../core/film/film-formats';
import { purposeTitle } from '../../core/film/purposes/purposes';
import type { FilmRow } from '../../server/films/film-row';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { callServer } from '../show/call-server';
import { sayFault } from '../show/say-fault';

const STAGES = { sound: 'mixing the sound', pictures: 'frame', joining: 'putting it together' } as const;
/** So often the frame just made is fetched. */
const GLIMPSE_MS = 2000;

interface FilmMakingProps {
  readonly film: FilmRow;
  readonly onDone: () => void;
}

/** A film being made, or waiting: the frame just made, its pieces (those that were there already pale, new ones red), what is left. */
export function FilmMaking({ film, onDone }: FilmMakingProps) {
  const call = (path: string) => callServer('POST', `/api/v1/films/${film.id}/${path}`).then(onDone, sayFault);
  const glimpse = useGlimpse(film);
  const { spec } = film;
  const { holds, name } = formatOf(spec.format);
  return (
    <li
      className="flex items-center gap-4 rounded-xl border border-rule bg-card p-2.5 pl-3"
      data-part="film"
      data-state={film.state}
      data-film={film.id}
    >
      {film.state === 'making' && (
        <span className="grid h-[76px] w-[132px] shrink-0 place-items-center overflow-hidden rounded-sm bg-surround">
          {glimpse && (
            // It changes with every frame.
            // eslint-disable-next-line @next/next/no-img-element
            <img
              src={glimpse}
              alt="The frame just made"
              className="h-[76px] w-[132px] object-contain"
              data-part="glimpse"
            />
          )}
        </span>
      )}
      <div className="min-w-0 flex-1" role="status">
        <p className="truncate text-base">
          <span className="font-semibold">{purposeTitle(spec.purpose)}</span>{' '}
          <span className="tabular text-soft">{holds === 'sound' ? name : `${spec.widthPx} × ${spec.heightPx}`}</span>
          {film.state === 'waiting' && <span className="ml-2 text-sm text-soft">waits for its turn</span>}
        </p>
        {film.state === 'making' && (
          <>
            <Pieces pieces={film.pieces} />
            <p className="flex gap-x-1.5 text-soft">
              <span className="tabular text-ink">{progressOf(film)}</span>
              {film.leftMs !== null && film.stage !== 'sound' && (
                <span>
                  · <span className="tabular">{clock(film.leftMs)}</span> left
                </span>
              )}
              {film.framesKept > 0 && (
                <span>· {Math.round((100 * film.framesKept) / film.frameCount)} % kept from before</span>
              )}
            </p>
          </>
        )}
      </div>
      {film.state === 'waiting' && (
        <Button onClick={() => void call('next')} title="Make this one before the others that wait">
          <ArrowUpToLine size={14} /> Next
        </Button>
      )}
      <Button onClick={() => void call('cancel')}>
        <X size={14} /> Stop
      </Button>
    </li>
  );
}

function progressOf(film: FilmRow): string {
  if (film.stage !== 'pictures') return STAGES[film.stage ?? 'sound'];
  return `frame ${film.framesDone.toLocaleString('en')} of ${film.frameCount.toLocaleString('en')}`;
}

const PIECE_NAMES: Record<string, string> = { k: 'bg-rule', m: 'bg-red', n: 'bg-red/40' };

function Pieces({ pieces }: { pieces: string }) {
  return (
    <span aria-hidden="true" className="my-1.5 flex h-2.5 gap-px" data-part="pieces" data-pieces={pieces}>
      {(pieces || '-').split('').map((piece, index) => (
        <span
          key={index}
          className={clsx(
            'min-w-0 flex-1 rounded-[1px]',
            PIECE_NAMES[piece] ?? 'bg-transparent outline outline-1 -outline-offset-1 outline-rule',
          )}
        />
      ))}
    </span>
  );
}

/** An address of the frame just made that changes as the film goes on. */
function useGlimpse(film: FilmRow): string | null {
  const [seen, setSeen] = useState(0);
  const drawing = film.state === 'making' && film.stage === 'pictures';
  useEffect(() => {
    if (!drawing) return;
    const timer = setInterval(() => setSeen((count) => count + 1), GLIMPSE_MS);
    return () => clearInterval(timer);
  }, [drawing]);
  return film.state === 'making' && film.framesDone > film.framesKept + 2
    ? `/api/v1/films/${film.id}/picture?seen=${seen}`
    : null;
}
