'use client';

import { Disc3, Rows3 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { filmChapters } from '../../core/film/chapters';
import { formatOf } from '../../core/film/film-formats';
import { stretchOf, type FilmSpec } from '../../core/film/film-spec';
import {
  BY_HAND,
  PURPOSES,
  PURPOSE_NAMES,
  purposeTitle,
  specFor,
  type PurposeName,
} from '../../core/film/purposes/purposes';
import { shapeName } from '../../core/show/shape';
import { frameCount } from '../../core/timing/frames';
import { captionLanguages } from '../../core/captions/show-captions';
import { MissingFiles } from '../gather/missing-files';
import { useCommands } from '../commands/use-commands';
import { Button } from '../kit/button';
import { clock, megabytes } from '../kit/clock';
import { useKept } from '../kit/use-kept';
import { callServer } from '../show/call-server';
import { useMusicLengthMs, usePrepared, useShow } from '../show/show-provider';
import { ByHandDialog } from './by-hand-dialog';
import { FilmMaking } from './film-making';
import { FilmTable } from './film-table';
import { compared, LikenessChart } from './likeness-chart';
import { LostPictures } from './lost-pictures';
import { MAIL_MEGABYTES, PurposeCards } from './purpose-cards';
import { RatePick } from './rate-pick';
import { sayFault } from '../show/say-fault';
import { useFilms, useScreenings } from './use-films';
import { SendOnDialog, type SentOn } from '../publishing/send-on-dialog';
import { usePlaces, usePublications } from '../publishing/use-publications';
import { WentOutList } from '../publishing/went-out-list';
import { ScreeningsList } from './screenings-list';
import { GuestBookList } from '../guests/guest-book-list';
import { useTrials, type Trials } from './use-trials';

const COUNTS = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];

/** Where films are made and handed over: what they are for first, numbers second. */
export function SendStation() {
  const router = useRouter();
  const show = useShow((state) => state.show);
  const saving = useShow((state) => state.saving);
  const whenSaved = useShow((state) => state.whenSaved);
  const { rows: films, refresh } = useFilms(show.id);
  const { rows: screenings, refresh: refreshScreenings } = useScreenings(show.id);
  const publications = usePublications(show.id);
  const places = usePlaces();
  const [sendingOn, setSendingOn] = useState<SentOn | null>(null);
  useCameBack();
  const [chosenScreening, setChosenScreening] = useState<string | null>(null);
  const [chosenNames, setChosenNames] = useKept<readonly string[]>('tanager-purposes', ['screen'], isNames);
  const [mailMegabytes, setMailMegabytes] = useKept('tanager-mail-mb', '10', isMegabytes);
  const [handSpec, setHandSpec] = useState<FilmSpec | null>(null);
  const [byHandOpen, setByHandOpen] = useState(false);
  const [ordering, setOrdering] = useState(false);

  const specOf = (purpose: PurposeName) =>
    specFor(show, purpose, purpose === 'email' ? Number(mailMegabytes) * 1e6 : undefined);
  const byHand = handSpec ?? { ...specFor(show, 'screen'), purpose: BY_HAND };
  const chosen = new Set(chosenNames);
  const specs = [
    ...PURPOSE_NAMES.filter((purpose) => chosen.has(purpose)).map(specOf),
    ...(chosen.has(BY_HAND) ? [byHand] : []),
  ];
  const unended = (films ?? []).filter(({ state }) => state === 'waiting' || state === 'making');
  const ended = useMemo(() => (films ?? []).filter(({ state }) => state !== 'waiting' && state !== 'making'), [films]);
  const trials = useTrials(show, specs, saving === 'saved' && films !== null && unended.length === 0);

  const toggle = (purpose: string) => {
    const next = chosen.has(purpose) ? chosenNames.filter((name) => name !== purpose) : [...chosenNames, purpose];
    setChosenNames(next);
  };
  const order = async () => {
    setOrdering(true);
    try {
      if (!(await whenSaved()))
        return void toast(
          'The film was not ordered: the server cannot be reached, and it would lack what you did last.',
        );
      await callServer('POST', `/api/v1/shows/${show.id}/films`, { specs });
      void askToNotify();
      await refresh();
    } catch (error) {
      sayFault(error);
    } finally {
      setOrdering(false);
    }
  };
  const screen = async (filmId: string) => {
    try {
      const { id } = await callServer<{ id: string }>('POST', `/api/v1/shows/${show.id}/screenings`, {
        films: [filmId],
      });
      await refreshScreenings();
      setChosenScreening(id);
    } catch (error) {
      sayFault(error);
    }
  };
  const beginSeries = async () => {
    try {
      const { id } = await callServer<{ id: string }>('POST', `/api/v1/shows/${show.id}/series`);
      router.push(`/series/${id}`);
    } catch (error) {
      sayFault(error);
    }
  };
  const beginDisc = async () => {
    try {
      const { id } = await callServer<{ id: string }>('POST', `/api/v1/shows/${show.id}/discs`);
      router.push(`/discs/${id}`);
    } catch (error) {
      sayFault(error);
    }
  };
  const canOrder = show.slides.length > 0 && specs.length > 0 && !ordering && saving !== 'offline';
  useCommands({ 'make-film': canOrder ? () => void order() : undefined });

  return (
    <div className="flex min-w-0 flex-1" data-part="send">
      <section
        aria-labelledby="make"
        className="flex w-[420px] shrink-0 flex-col overflow-y-auto border-r border-rule bg-card px-4 py-3 scroll-more"
      >
        <h2 id="make" className="mb-2 text-lg">
          What is it for?
        </h2>
        <PurposeCards
          specOf={specOf}
          chosen={chosen}
          byHand={byHand}
          trials={trials}
          mailMegabytes={mailMegabytes}
          onToggle={toggle}
          onMailMegabytes={(megabytes) => {
            setMailMegabytes(megabytes);
            if (!chosen.has('email')) toggle('email');
          }}
          onByHand={() => setByHandOpen(true)}
        />
        <Summary specs={specs} trials={trials} busy={unended.length > 0} />
        <MissingFiles className="mt-3 flex-wrap rounded-lg" />
        <div className="mt-auto pt-3">
          <Button
            look="main"
            className="h-10 w-full text-base"
            disabled={!canOrder}
            onClick={() => void order()}
            data-part="make-film"
          >
            {specs.length < 2 ? 'Make the film' : `Make the ${COUNTS[specs.length] ?? specs.length} films`}
          </Button>
          <p className="mt-1.5 text-soft">
            {show.slides.length === 0
              ? 'Lay some pictures into the order first.'
              : specs.length === 0
                ? 'Choose what it is for.'
                : 'What an earlier film has in common is not made again. It goes on when this page is closed.'}
          </p>
          <Button
            className="mt-3 w-full"
            disabled={show.slides.length === 0 || ordering}
            onClick={() => void beginSeries()}
            data-part="begin-series"
          >
            <Rows3 size={14} /> Many films like this: one for each row of a table …
          </Button>
          <Button
            className="mt-2 w-full"
            disabled={show.slides.length === 0 || ordering}
            onClick={() => void beginDisc()}
            data-part="begin-disc"
          >
            <Disc3 size={14} /> On a video disc, with a menu …
          </Button>
        </div>
      </section>
      <section aria-labelledby="films" className="min-w-0 flex-1 overflow-y-auto px-5 py-3 scroll-thin">
        {screenings && screenings.length > 0 && (
          <ScreeningsList
            screenings={screenings}
            films={films ?? []}
            chosen={chosenScreening}
            onChoose={setChosenScreening}
            onSendOn={(screening) => {
              const shown = (films ?? []).filter(({ id }) => screening.films.includes(id));
              if (shown[0]) setSendingOn({ title: screening.title ?? shown[0].title, films: shown, screening });
            }}
            onDone={refreshScreenings}
          />
        )}
        <WentOutList rows={publications.rows ?? []} places={places} onDone={publications.refresh} />
        <h2 id="films" className="text-lg">
          Films
        </h2>
        {films === null ? (
          <p className="mt-3 text-soft">Looking …</p>
        ) : films.length === 0 ? (
          <p className="mt-3 max-w-md rounded-lg border border-dashed border-soft/40 p-5 text-base text-soft">
            Films you make are listed here: the file to download, and “Screen it” for a link to watch it. Earlier ones
            stay until you remove them.
          </p>
        ) : (
          <>
            {unended.length > 0 && (
              <ul className="mt-3 flex flex-col gap-2">
                {unended
                  .toSorted((one, other) => one.orderedAt - other.orderedAt)
                  .map((film) => (
                    <FilmMaking key={film.id} film={film} onDone={() => void refresh()} />
                  ))}
              </ul>
            )}
            {ended.length > 0 && (
              <FilmTable
                films={ended}
                onDone={() => void refresh()}
                onScreen={(id) => void screen(id)}
                onSendOn={
                  places?.has('video')
                    ? (film) => setSendingOn({ title: film.title, films: [film], screening: null })
                    : null
                }
              />
            )}
            {compared(ended).length > 1 && (
              <div className="mt-5 max-w-[460px]">
                <LikenessChart films={ended} />
              </div>
            )}
          </>
        )}
        <GuestBookList />
      </section>
      {sendingOn && places && (
        <SendOnDialog
          what={sendingOn}
          places={places}
          onClose={() => setSendingOn(null)}
          onDone={publications.refresh}
        />
      )}
      {byHandOpen && (
        <ByHandDialog
          show={show}
          spec={byHand}
          onClose={() => setByHandOpen(false)}
          onTake={(spec) => {
            setHandSpec(spec);
            setByHandOpen(false);
            if (!chosen.has(BY_HAND)) toggle(BY_HAND);
          }}
        />
      )}
    </div>
  );
}

/** Says how signing in elsewhere went, once. */
function useCameBack(): void {
  useEffect(() => {
    const how = location.hash;
    if (how !== '#signed-in' && how !== '#not-signed-in') return;
    history.replaceState(null, '', location.pathname + location.search);
    toast(
      how === '#signed-in'
        ? 'You are signed in there. Send it on now.'
        : 'You were not signed in there. Nothing was sent.',
    );
  }, []);
}

interface SummaryProps {
  readonly specs: readonly FilmSpec[];
  readonly trials: Trials;
  /** A film is being made: nothing is tried meanwhile. */
  readonly busy: boolean;
}

/** What the chosen films have in common, and what other shapes cost. */
function Summary({ specs, trials, busy }: SummaryProps) {
  const prepared = usePrepared();
  const { show, lengthMs } = prepared;
  const musicMs = useMusicLengthMs();
  const chapters = useMemo(() => filmChapters(prepared, 0, lengthMs), [prepared, lengthMs]);
  const languages = captionLanguages(show);
  const own = shapeName(show.frame);
  const others = [
    ...new Map(
      specs
        .filter(({ shape, format }) => shape !== own && formatOf(format).holds !== 'sound')
        .map((spec) => [spec.shape, spec]),
    ).values(),
  ];
  const tried = specs.map((spec) => trials.get(JSON.stringify(spec)));
  const known = tried.every((trial) => trial !== undefined) && specs.length > 0;
  const takesMs = tried.reduce((sum, trial) => sum + (trial?.tookMs ?? 0), 0);
  const bytes = tried.reduce((sum, trial) => sum + (trial?.byteCount ?? 0), 0);
  const first = specs[0];
  const [fromMs, toMs] = first ? stretchOf(first, lengthMs) : [0, lengthMs];
  return (
    <>
      {others.length > 0 && (
        <div className="mt-3 flex flex-col gap-2 border-t border-rule pt-2.5">
          {others.map((spec) => (
            <LostPictures key={spec.shape} shape={spec.shape} name={purposeTitle(spec.purpose)} />
          ))}
        </div>
      )}
      <dl className="mt-3 grid grid-cols-[84px_1fr] gap-y-0.5 border-t border-rule pt-2.5" data-part="film-facts">
        <dt className="self-center text-soft">length</dt>
        <dd className="tabular flex flex-wrap items-center gap-x-2">
          <span>
            {clock(toMs - fromMs)}, {frameCount(toMs - fromMs, first?.rate ?? show.frame.rate).toLocaleString('en')}{' '}
            frames,
          </span>
          <RatePick />
        </dd>
        <dt className="text-soft">will take</dt>
        <dd data-part="will-take">
          {known ? (
            <span className="tabular">
              about {clock(takesMs)}, {megabytes(bytes)}
            </span>
          ) : specs.length > 0 && show.slides.length > 0 ? (
            <span className="text-soft">{busy ? 'told when no film is being made' : 'being tried out …'}</span>
          ) : (
            ''
          )}
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
        <dt className="text-soft">captions</dt>
        <dd>
          {languages.length === 0
            ? 'none'
            : `${show.captionLook ? 'part of the picture' : 'in the film'} · ${languages.map(languageName).join(', ')}`}
        </dd>
        <dt className="text-soft">chapters</dt>
        <dd>{chapters.length === 0 ? 'none' : `${chapters.length}, by name`}</dd>
      </dl>
    </>
  );
}

function languageName(tag: string): string {
  return new Intl.DisplayNames(['en'], { type: 'language' }).of(tag) ?? tag;
}

/** When a film is ready while this page is not looked at, the browser may say so. */
async function askToNotify(): Promise<void> {
  if ('Notification' in window && Notification.permission === 'default') await Notification.requestPermission();
}

function isNames(kept: unknown): kept is readonly string[] {
  return (
    Array.isArray(kept) &&
    kept.every((name) => name === BY_HAND || (typeof name === 'string' && Object.hasOwn(PURPOSES, name)))
  );
}

const isMegabytes = (kept: unknown): kept is string => (MAIL_MEGABYTES as readonly unknown[]).includes(kept);
