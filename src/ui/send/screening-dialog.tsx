'use client';

import { format } from 'date-fns';
import { toCanvas } from 'qrcode';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { embedOf, USUAL_EMBED_PX } from '../../core/screening/embed';
import { SHORTEST_PASSWORD, type Call, type ScreeningChange } from '../../core/screening/screening-settings';
import { isSameFilm, qualityName } from '../../core/screening/shown-film';
import type { Watched } from '../../core/screening/watched';
import { formatOf } from '../../core/film/film-formats';
import { purposeTitle } from '../../core/film/purposes/purposes';
import type { FilmRow } from '../../server/films/film-row';
import type { ScreeningRow } from '../../server/screenings/screening-service';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { NumberField } from '../kit/number-field';
import { callServer } from '../show/call-server';
import { copied } from '../show/copied';
import { useShow } from '../show/show-provider';
import { sayFault } from '../show/say-fault';
import { WatchedChart } from './watched-chart';

interface ScreeningDialogProps {
  readonly screening: ScreeningRow;
  readonly films: readonly FilmRow[];
  readonly onClose: () => void;
  readonly onDone: () => Promise<void>;
}

const FIELD = 'h-8 rounded-md border border-rule bg-field px-2';

/** How a film is shown to whoever has the link. Each change holds at once. */
export function ScreeningDialog({ screening, films, onClose, onDone }: ScreeningDialogProps) {
  const showId = useShow((state) => state.show.id);
  const path = `/api/v1/shows/${showId}/screenings/${screening.id}`;
  const change = (next: ScreeningChange) => void callServer('PATCH', path, next).then(onDone, sayFault);
  const playing = films.filter(({ state, spec }) => state === 'ready' && formatOf(spec.format).plays);
  const shown = playing.filter(({ id }) => screening.films.includes(id));
  const first = shown[0];
  const choices = playing.filter((film) => !first || isSameFilm(film, first));
  const link = new URL(`/s/${screening.token}`, location.href).href;
  return (
    <Dialog
      title="How it is shown"
      open
      onClose={() => {
        // What is being typed holds too.
        (document.activeElement as HTMLElement | null)?.blur();
        onClose();
      }}
      className="w-[920px]"
    >
      <div className="grid grid-cols-[minmax(0,1fr)_300px] gap-8" data-part="screening-dialog">
        <div className="flex flex-col gap-4">
          <Row label="Title">
            <input
              aria-label="Title of the screening"
              defaultValue={screening.title ?? ''}
              placeholder={first?.title}
              maxLength={200}
              onBlur={({ target }) => {
                const title = target.value.trim() || null;
                if (title !== screening.title) change({ title });
              }}
              className={`${FIELD} w-full`}
            />
          </Row>
          <Row label="Films">
            <ul className="flex flex-col gap-1">
              {choices.map((film) => (
                <li key={film.id}>
                  <Check
                    checked={screening.films.includes(film.id)}
                    disabled={screening.films.includes(film.id) && shown.length === 1}
                    onChange={(on) =>
                      change({
                        films: on
                          ? [...shown.map(({ id }) => id), film.id]
                          : shown.flatMap(({ id }) => (id === film.id ? [] : [id])),
                      })
                    }
                  >
                    {purposeTitle(film.spec.purpose)},{' '}
                    {qualityName({ widthPx: film.spec.widthPx, heightPx: film.spec.heightPx })}{' '}
                    <span className="text-soft">{format(film.orderedAt, 'd MMM, HH:mm')}</span>
                  </Check>
                </li>
              ))}
            </ul>
            {choices.length > 1 && (
              <p className="mt-1 text-soft">Several are qualities of one film: viewers get what fits their line.</p>
            )}
          </Row>
          <Row label="Password">
            <Password asked={screening.asksPassword} onChange={(password) => change({ password })} />
          </Row>
          <Row label="Open until">
            <span className="flex items-center gap-2">
              <input
                type="datetime-local"
                aria-label="Open until"
                key={screening.endsAt}
                defaultValue={screening.endsAt === null ? '' : format(screening.endsAt, "yyyy-MM-dd'T'HH:mm")}
                onBlur={({ target }) => {
                  const endsAt = target.value ? new Date(target.value).getTime() : null;
                  if (endsAt !== screening.endsAt) change({ endsAt });
                }}
                className={FIELD}
              />
              {screening.endsAt !== null && <Button onClick={() => change({ endsAt: null })}>for ever</Button>}
            </span>
          </Row>
          <Row label="Viewers may">
            <span className="flex flex-col gap-1">
              <Check checked={screening.guestBook} onChange={(guestBook) => change({ guestBook })}>
                write into the guest book
              </Check>
              <Check checked={screening.mayTake} onChange={(mayTake) => change({ mayTake })}>
                download the film
              </Check>
            </span>
          </Row>
          <Row label="On pause and at the end">
            <CallFields key={String(screening.call?.to)} call={screening.call} onChange={(call) => change({ call })} />
          </Row>
          <Row label="Watched">
            <Check checked={screening.counts} onChange={(counts) => change({ counts })}>
              count how often and how far
            </Check>
            <p className="mt-0.5 text-soft">
              Each time the page plays counts as one, also the same person’s. No cookie, no address is kept.
            </p>
            {screening.viewings > 0 && first && (
              <Curve path={`${path}/watched`} viewings={screening.viewings} lengthMs={first.lengthMs} onDone={onDone} />
            )}
          </Row>
        </div>
        <div className="flex flex-col gap-4">
          <LinkCard link={link} />
          {first && (
            <EmbedCode
              link={link}
              title={screening.title ?? first.title}
              film={first}
              locked={screening.asksPassword}
            />
          )}
          <div className="flex flex-wrap gap-2 border-t border-rule pt-4">
            <Button
              onClick={() => change({ shut: !screening.shut })}
              look={screening.shut ? 'main' : 'plain'}
              data-part="shut"
            >
              {screening.shut ? 'Open it again' : 'Shut it now'}
            </Button>
            <Button
              onClick={() => void callServer('POST', `${path}/link`).then(onDone, sayFault)}
              title="The link given before leads nowhere any more"
            >
              Another link
            </Button>
            <Button
              onClick={() => {
                if (confirm('Remove this screening with its guest book and what was counted? The film stays.'))
                  void callServer('DELETE', path).then(() => {
                    onClose();
                    return onDone();
                  }, sayFault);
              }}
            >
              Remove
            </Button>
          </div>
        </div>
      </div>
    </Dialog>
  );
}

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[110px_minmax(0,1fr)] gap-3">
      <span className="pt-1.5 text-soft">{label}</span>
      <div className="min-w-0 pt-0.5">{children}</div>
    </div>
  );
}

interface CheckProps {
  readonly checked: boolean;
  readonly disabled?: boolean;
  readonly onChange: (on: boolean) => void;
  readonly children: ReactNode;
}

function Check({ checked, disabled = false, onChange, children }: CheckProps) {
  return (
    <label className="flex items-center gap-2 py-0.5">
      <input
        type="checkbox"
        checked={checked}
        disabled={disabled}
        onChange={(event) => onChange(event.target.checked)}
        className="size-4 accent-(--color-ink)"
      />
      <span>{children}</span>
    </label>
  );
}

function Password({ asked, onChange }: { asked: boolean; onChange: (password: string | null) => void }) {
  const [typed, setTyped] = useState('');
  return (
    <form
      className="flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onChange(typed);
        setTyped('');
      }}
    >
      <input
        aria-label="Password of the screening"
        value={typed}
        minLength={SHORTEST_PASSWORD}
        maxLength={200}
        autoComplete="off"
        placeholder={asked ? 'is set · type another' : 'none: the link is enough'}
        onChange={(event) => setTyped(event.target.value)}
        className={`${FIELD} min-w-0 flex-1`}
      />
      <Button
        type="submit"
        disabled={typed.length < SHORTEST_PASSWORD}
        title={`Passwords have ${SHORTEST_PASSWORD} letters or more`}
      >
        Set
      </Button>
      {asked && <Button onClick={() => onChange(null)}>None</Button>}
    </form>
  );
}

function CallFields({ call, onChange }: { call: Call | null; onChange: (call: Call | null) => void }) {
  const [words, setWords] = useState(call?.words ?? '');
  const [to, setTo] = useState(call?.to ?? '');
  const keep = () => {
    if (words.trim() === '' && to.trim() === '') {
      if (call) onChange(null);
      return;
    }
    if (words.trim() && to.trim() && (words !== call?.words || to !== call.to))
      onChange({ words: words.trim(), to: to.trim() });
  };
  return (
    <div className="flex flex-col gap-1.5" onBlur={keep}>
      <input
        aria-label="Words on pause and at the end"
        value={words}
        maxLength={120}
        placeholder="Order prints"
        onChange={(event) => setWords(event.target.value)}
        className={FIELD}
      />
      <input
        aria-label="Where the words lead"
        value={to}
        type="url"
        placeholder="https://… or mailto:…"
        onChange={(event) => setTo(event.target.value)}
        className={FIELD}
      />
      {(words.trim() === '') !== (to.trim() === '') && (
        <p className="text-soft">
          {words.trim() === '' ? 'Say in words what it leads to.' : 'Say where the words lead.'}
        </p>
      )}
    </div>
  );
}

interface CurveProps {
  readonly path: string;
  /** Asked for anew when more have watched. */
  readonly viewings: number;
  readonly lengthMs: number;
  readonly onDone: () => Promise<void>;
}

function Curve({ path, viewings, lengthMs, onDone }: CurveProps) {
  const [watched, setWatched] = useState<Watched | null>(null);
  useEffect(() => {
    void callServer<Watched>('GET', path).then(setWatched, sayFault);
  }, [path, viewings]);
  if (!watched) return null;
  return (
    <figure className="mt-2">
      <figcaption className="mb-1 flex items-baseline gap-3" data-part="watched-says">
        <span>
          <b className="font-semibold">{watched.viewings}</b> {watched.viewings === 1 ? 'view' : 'views'} ·{' '}
          {Math.round(100 * watched.seen)} % of the film seen · {Math.round(100 * watched.toTheEnd)} % to the end
        </span>
        <Button
          look="quiet"
          className="ml-auto"
          onClick={() => {
            if (confirm('Forget what was counted, and begin anew?'))
              void callServer('DELETE', path).then(onDone, sayFault);
          }}
        >
          Forget
        </Button>
      </figcaption>
      <WatchedChart watched={watched} lengthMs={lengthMs} />
    </figure>
  );
}

function LinkCard({ link }: { link: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    // Dark on light in either room: cameras look for that.
    void toCanvas(canvas.current!, link, { width: 168, margin: 1, color: { dark: '#171513', light: '#ffffff' } });
  }, [link]);
  return (
    <div>
      <canvas ref={canvas} role="img" aria-label="The link as a QR code" className="rounded-md" data-part="qr" />
      <input
        readOnly
        aria-label="Link of the screening"
        value={link}
        onFocus={(event) => event.target.select()}
        className={`${FIELD} mt-2 w-full`}
      />
      <Button className="mt-2" onClick={() => void copied(link, 'The link was copied. Whoever has it can watch.')}>
        Copy the link
      </Button>
    </div>
  );
}

interface EmbedCodeProps {
  readonly link: string;
  readonly title: string;
  readonly film: FilmRow;
  readonly locked: boolean;
}

function EmbedCode({ link, title, film, locked }: EmbedCodeProps) {
  const [widthPx, setWidthPx] = useState(USUAL_EMBED_PX);
  const { html, height } = embedOf(`${link}/embed`, title, film.spec, widthPx, Infinity);
  if (locked) return <p className="text-soft">What asks for a password is not shown in other sites’ pages.</p>;
  return (
    <div>
      <p className="mb-1 flex items-center gap-2">
        In your own site, wide
        <NumberField
          label="Width in your site"
          value={widthPx}
          min={120}
          max={3840}
          step={20}
          digits={0}
          unit="px"
          onCommit={setWidthPx}
        />
        <span className="tabular text-soft">× {height}</span>
      </p>
      <textarea
        readOnly
        aria-label="Code for your own site"
        rows={4}
        value={html}
        onFocus={(event) => event.target.select()}
        className="w-full resize-none rounded-md border border-rule bg-field px-2 py-1 font-mono text-xs"
        data-part="embed-code"
      />
      <Button onClick={() => void copied(html, 'The code was copied.')}>Copy the code</Button>
    </div>
  );
}
