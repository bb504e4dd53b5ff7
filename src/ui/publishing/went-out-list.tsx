'use client';

import { format } from 'date-fns';
import { Clapperboard, ExternalLink, Mail, MessageCircle, RotateCcw, Square, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { isEnded, publicationSentence, type Place, type PublicationRow } from '../../core/publishing/publication';
import { Button } from '../kit/button';
import { callServer } from '../show/call-server';
import { sayFault } from '../show/say-fault';
import { useShow } from '../show/show-provider';
import type { KnownPlaces } from './use-publications';

const ICONS: Readonly<Record<Place, typeof Mail>> = { mail: Mail, video: Clapperboard, post: MessageCircle };
const DOORS: Readonly<Record<Place, string>> = { mail: 'Post room', video: 'Video host', post: 'Social page' };
const SHOWN = 6;
const SECOND_MS = 1000;

interface WentOutListProps {
  readonly rows: readonly PublicationRow[];
  readonly places: KnownPlaces | null;
  readonly onDone: () => Promise<void>;
}

/** What was handed over, how far it is, and the doors of the stand-ins where it can be seen. */
export function WentOutList({ rows, places, onDone }: WentOutListProps) {
  const [all, setAll] = useState(false);
  const now = useNow(rows.some(({ nextTryAt }) => nextTryAt !== null));
  const doors = (['mail', 'video', 'post'] as const).flatMap((place) => {
    const to = places?.door(place);
    return to ? [{ place, to }] : [];
  });
  if (rows.length === 0) return null;
  const shown = all ? rows : rows.slice(0, SHOWN);
  return (
    <section aria-labelledby="went-out" className="mb-7" data-part="went-out">
      <div className="flex items-baseline gap-4">
        <h2 id="went-out" className="text-lg">
          What went out
        </h2>
        <span className="ml-auto flex gap-4">
          {doors.map(({ place, to }) => (
            <a
              key={place}
              href={to}
              target="_blank"
              rel="noreferrer"
              className="flex items-center gap-1 text-soft hover:text-ink"
              data-part={`door-${place}`}
              title="A stand-in on the server’s own machine: see what arrived"
            >
              {DOORS[place]} <ExternalLink size={12} aria-hidden="true" />
            </a>
          ))}
        </span>
      </div>
      <ul className="mt-2 flex flex-col">
        {shown.map((row) => (
          <WentOutLine key={row.id} row={row} now={now} onDone={onDone} />
        ))}
      </ul>
      {rows.length > SHOWN && (
        <Button look="quiet" className="mt-1" onClick={() => setAll(!all)}>
          {all ? 'Fewer' : `All ${rows.length}`}
        </Button>
      )}
    </section>
  );
}

function WentOutLine({ row, now, onDone }: { row: PublicationRow; now: number; onDone: () => Promise<void> }) {
  const showId = useShow((state) => state.show.id);
  const path = `/api/v1/shows/${showId}/publications/${row.id}`;
  const call = (method: 'POST' | 'DELETE', more = '') => void callServer(method, path + more).then(onDone, sayFault);
  const Icon = ICONS[row.kind];
  const bad = row.state === 'refused' || row.state === 'failed' || row.state === 'taken-down';
  const share = row.state === 'working' ? row.progress?.share : undefined;
  return (
    <li
      className="grid grid-cols-[20px_minmax(0,1fr)_auto_auto] items-center gap-3 border-b border-rule py-2"
      data-part="went-out-line"
      data-state={row.state}
    >
      <Icon size={16} aria-hidden="true" className="text-soft" />
      <span className="min-w-0">
        <span className="block truncate">
          <b className="font-semibold">{row.to}</b> <span className="text-soft">{row.title}</span>
        </span>
        <span className={bad ? 'block text-red-deep' : row.state === 'there' ? 'block text-moss' : 'block text-soft'}>
          {publicationSentence(row, now)}
          {row.problem && `: ${row.problem}`}
        </span>
        {typeof share === 'number' && (
          <progress
            max={1}
            value={share}
            aria-label={`How far ${row.title} is`}
            className="mt-1 block h-1.5 w-full max-w-80 accent-red"
          />
        )}
      </span>
      <span className="tabular text-soft">{format(row.endedAt ?? row.orderedAt, 'd MMM, HH:mm')}</span>
      <span className="flex gap-1">
        {row.state === 'there' && row.address && (
          <a
            href={row.address}
            target="_blank"
            rel="noreferrer"
            aria-label={`See ${row.title} there`}
            title="See it there"
            className="inline-grid size-8 place-items-center rounded-md border border-rule bg-card hover:border-soft"
          >
            <ExternalLink size={15} />
          </a>
        )}
        {!isEnded(row) && (
          <Button square aria-label={`Stop ${row.title} to ${row.to}`} onClick={() => call('POST', '/cancel')}>
            <Square size={13} />
          </Button>
        )}
        {isEnded(row) && row.state !== 'there' && (
          <Button square aria-label={`Try ${row.title} to ${row.to} again`} onClick={() => call('POST', '/again')}>
            <RotateCcw size={14} />
          </Button>
        )}
        {isEnded(row) && (
          <Button
            look="quiet"
            square
            aria-label={`Take ${row.title} to ${row.to} off this list`}
            onClick={() => call('DELETE')}
          >
            <X size={15} />
          </Button>
        )}
      </span>
    </li>
  );
}

/** The time, each second while it matters. */
function useNow(matters: boolean): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (!matters) return;
    const timer = setInterval(() => setNow(Date.now()), SECOND_MS);
    return () => clearInterval(timer);
  }, [matters]);
  return now;
}
