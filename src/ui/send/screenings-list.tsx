'use client';

import { format } from 'date-fns';
import { ExternalLink, Link2, Lock, MessageSquareQuote, Send, Settings2 } from 'lucide-react';
import { useState } from 'react';
import type { FilmRow } from '../../server/films/film-row';
import { copied } from '../show/copied';
import type { ScreeningRow } from '../../server/screenings/screening-service';
import { useGuests } from '../guests/guests-provider';
import { Button } from '../kit/button';
import { BillsDialog } from './bills-dialog';
import { ScreeningDialog } from './screening-dialog';

interface ScreeningsListProps {
  readonly screenings: readonly ScreeningRow[];
  readonly films: readonly FilmRow[];
  /** The one whose settings are open. */
  readonly chosen: string | null;
  readonly onChoose: (id: string | null) => void;
  readonly onSendOn: (screening: ScreeningRow) => void;
  readonly onDone: () => Promise<void>;
}

const ICON = 'inline-grid size-8 place-items-center rounded-md border border-rule bg-card hover:border-soft';

/** Where films of the show can be watched: link, views and notes at a glance. */
export function ScreeningsList({ screenings, films, chosen, onChoose, onSendOn, onDone }: ScreeningsListProps) {
  const { notes } = useGuests();
  // Whether one has ended is asked once, when the list is first seen.
  const [now] = useState(() => Date.now());
  const [billsOpen, setBillsOpen] = useState(false);
  const open = screenings.find(({ id }) => id === chosen);
  return (
    <section aria-labelledby="screenings" className="mb-7">
      <div className="flex items-baseline gap-4">
        <h2 id="screenings" className="text-lg">
          Screenings
        </h2>
        <Button look="quiet" className="ml-auto h-7" onClick={() => setBillsOpen(true)} data-part="open-bills">
          A page of several …
        </Button>
      </div>
      <ul className="mt-2 flex flex-col" data-part="screenings">
        {screenings.map((screening) => {
          const shown = films.filter(({ id }) => screening.films.includes(id));
          const title = screening.title ?? shown[0]?.title ?? 'No film';
          const book = (notes ?? []).filter(
            ({ screeningId, replyTo }) => screeningId === screening.id && replyTo === null,
          );
          const openNotes = book.filter(({ state }) => state === 'open' || state === 'held').length;
          const link = `/s/${screening.token}`;
          const state = stateOf(screening, shown.length, now);
          return (
            <li
              key={screening.id}
              className="grid grid-cols-[74px_minmax(0,1fr)_auto_auto_auto] items-center gap-3 border-b border-rule py-2"
              data-part="screening-row"
              data-screening={screening.id}
            >
              <span className="grid h-[42px] w-[74px] place-items-center overflow-hidden rounded-sm bg-surround">
                {shown[0] && (
                  // Made with the film, and never again.
                  // eslint-disable-next-line @next/next/no-img-element
                  <img src={`/api/v1/films/${shown[0].id}/picture`} alt="" className="h-full w-full object-contain" />
                )}
              </span>
              <span className="min-w-0">
                <span className="flex items-center gap-1.5 font-semibold">
                  <span className="truncate">{title}</span>
                  {screening.asksPassword && (
                    <Lock size={13} role="img" aria-label="asks for a password" className="shrink-0 text-soft" />
                  )}
                </span>
                <span className={state.open ? 'block text-soft' : 'block text-red-deep'}>{state.says}</span>
              </span>
              <span className="tabular text-right" data-part="screening-views">
                {screening.counts ? `${screening.viewings} ${screening.viewings === 1 ? 'view' : 'views'}` : ''}
              </span>
              <span className="tabular flex w-20 items-center justify-end gap-1">
                {book.length > 0 && (
                  <>
                    <MessageSquareQuote
                      size={14}
                      aria-hidden="true"
                      className={openNotes > 0 ? 'text-plum' : 'text-soft'}
                    />
                    {openNotes > 0 ? (
                      <span className="text-plum">{openNotes} open</span>
                    ) : (
                      <span>
                        {book.length}
                        <span className="sr-only"> notes</span>
                      </span>
                    )}
                  </>
                )}
              </span>
              <span className="flex gap-1">
                <a
                  href={link}
                  target="_blank"
                  rel="noreferrer"
                  aria-label={`Watch ${title} as viewers do`}
                  title="Watch it as viewers do"
                  className={ICON}
                  data-part="screening-link"
                >
                  <ExternalLink size={15} />
                </a>
                <Button
                  square
                  aria-label={`Copy the link of ${title}`}
                  onClick={() =>
                    void copied(new URL(link, location.href).href, 'The link was copied. Whoever has it can watch.')
                  }
                >
                  <Link2 size={15} />
                </Button>
                <Button
                  square
                  disabled={!state.open}
                  aria-label={`Send ${title} on`}
                  onClick={() => onSendOn(screening)}
                  data-part="send-screening-on"
                >
                  <Send size={15} />
                </Button>
                <Button
                  square
                  aria-label={`How ${title} is shown`}
                  onClick={() => onChoose(screening.id)}
                  data-part="screening-settings"
                >
                  <Settings2 size={15} />
                </Button>
              </span>
            </li>
          );
        })}
      </ul>
      {billsOpen && <BillsDialog onClose={() => setBillsOpen(false)} />}
      {open && (
        <ScreeningDialog key={open.id} screening={open} films={films} onClose={() => onChoose(null)} onDone={onDone} />
      )}
    </section>
  );
}

function stateOf({ shut, endsAt, films }: ScreeningRow, shown: number, now: number): { open: boolean; says: string } {
  if (shut) return { open: false, says: 'shut: its link leads nowhere' };
  if (endsAt !== null && endsAt <= now) return { open: false, says: `ended on ${format(endsAt, 'd MMM, HH:mm')}` };
  if (shown === 0) return { open: false, says: 'its film was removed: nothing is shown' };
  const qualities = films.length > 1 ? `${films.length} qualities` : 'open';
  return { open: true, says: endsAt === null ? qualities : `${qualities} · until ${format(endsAt, 'd MMM, HH:mm')}` };
}
