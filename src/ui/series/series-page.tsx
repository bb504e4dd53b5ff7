'use client';

import { Download, ExternalLink, Trash2 } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import type { SeriesChange } from '../../core/series/series';
import type { SeriesFar, SeriesSeen } from '../../server/series/series-service';
import { Bird } from '../kit/bird';
import { Button } from '../kit/button';
import { RoomSwitch } from '../kit/room-switch';
import { Toasts } from '../kit/toasts';
import { WhoMenu } from '../people/who-menu';
import { callServer } from '../show/call-server';
import { sayFault } from '../show/say-fault';
import { useAnswer } from '../show/use-answer';
import { SeriesPlanPanel } from './series-plan-panel';
import { SeriesRows } from './series-rows';

const LOOK_EVERY_MS = 1000;

/** One show as the pattern, a table, and a film for each of its rows. */
export function SeriesPage({ first, hasFolders }: { first: SeriesSeen; hasFolders: boolean }) {
  const router = useRouter();
  const path = `/api/v1/series/${first.id}`;
  const { answer, refresh } = useAnswer<SeriesSeen>(path, { hears: 'focus', quiet: true });
  const [far, setFar] = useState<SeriesFar | null>(null);
  const seen = answer ?? first;
  const { state, rows, leftMs, billToken } = far ?? seen;
  const isMaking = state === 'making';
  const isBusy = isMaking || rows.some((row) => row.state === 'preparing' || row.state === 'making');
  const look = useRef(0);
  const turn = useRef(Promise.resolve());

  useEffect(() => {
    if (!isBusy) return;
    const timer = setInterval(() => {
      const mine = (look.current += 1);
      callServer<SeriesFar>('GET', `${path}/rows`).then(
        (latest) => {
          if (mine === look.current) setFar(latest);
        },
        () => {},
      );
    }, LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [isBusy, path]);

  const act = useCallback(
    (work: () => Promise<unknown>) => {
      // One after the other: a row is looked at as the change before it left it.
      turn.current = turn.current.then(async () => {
        try {
          await work();
        } catch (error) {
          sayFault(error);
        }
        look.current += 1;
        await refresh();
        setFar(null);
      });
      return turn.current;
    },
    [refresh],
  );
  const change = (what: SeriesChange) => act(() => callServer('PATCH', path, what));
  const make = (numbers?: readonly number[]) =>
    act(() => callServer('POST', `${path}/making`, numbers ? { rows: numbers } : {}));
  const remove = async () => {
    try {
      await callServer('DELETE', path);
      toast(`“${seen.title}” was taken away. Its shows are under “taken off”.`);
      router.push('/');
    } catch (error) {
      sayFault(error);
    }
  };

  return (
    <div className="flex h-dvh flex-col" data-part="series" data-state={state}>
      <header className="flex min-h-16 shrink-0 flex-wrap items-center gap-3 border-b border-rule bg-card px-6">
        <Link href="/" aria-label="Shelf" className="flex items-center gap-3 text-soft hover:text-ink">
          <Bird className="size-10" /> Shelf <span aria-hidden="true">╱</span>
        </Link>
        <h1 className="sr-only">Series: {seen.title}</h1>
        <Title key={seen.title} title={seen.title} onChange={(title) => void change({ title })} />
        <span className="text-soft">
          after{' '}
          <Link href={`/shows/${seen.show.id}/arrange`} className="underline hover:text-ink">
            {seen.show.title || 'a show that is not there any more'}
          </Link>
        </span>
        <span className="ml-auto flex items-center gap-2">
          {billToken && (
            <a
              href={`/b/${billToken}`}
              target="_blank"
              rel="noreferrer"
              className="flex items-center gap-1.5 px-2 text-soft hover:text-ink"
              data-part="series-page-link"
            >
              <ExternalLink size={14} /> The page of all
            </a>
          )}
          {rows.some((row) => row.state === 'done') && (
            <a
              href={`${path}/films`}
              download
              className="flex items-center gap-1.5 px-2 text-soft hover:text-ink"
              data-part="series-films"
            >
              <Download size={14} /> All films
            </a>
          )}
          <Button
            look="quiet"
            square
            aria-label="Take this series away"
            disabled={isMaking}
            onClick={() => void remove()}
          >
            <Trash2 size={15} />
          </Button>
          <RoomSwitch />
          <WhoMenu />
        </span>
      </header>
      <div className="flex min-h-0 flex-1">
        <SeriesPlanPanel
          seen={seen}
          isMaking={isMaking}
          hasFolders={hasFolders}
          onChange={change}
          onArrived={refresh}
        />
        <SeriesRows
          seen={seen}
          rows={rows}
          state={state}
          leftMs={leftMs}
          onMake={make}
          onStop={() => act(() => callServer('DELETE', `${path}/making`))}
          onLook={(row) => act(() => callServer('POST', `${path}/rows`, { row }))}
        />
      </div>
      <Toasts />
    </div>
  );
}

function Title({ title, onChange }: { title: string; onChange: (title: string) => void }) {
  const [typed, setTyped] = useState(title);
  return (
    <input
      aria-label="Title of the series"
      value={typed}
      maxLength={300}
      onChange={({ target }) => setTyped(target.value)}
      onBlur={() => {
        if (typed.trim() === '') setTyped(title);
        else if (typed !== title) onChange(typed.trim());
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
      }}
      className="max-w-[26rem] min-w-24 rounded-md [field-sizing:content] border border-transparent bg-transparent px-1.5 py-1 font-display text-lg font-semibold hover:border-rule focus:border-rule"
    />
  );
}
