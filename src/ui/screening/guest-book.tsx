'use client';

import { clsx } from 'clsx';
import { useCallback, useEffect, useRef, useState, type FormEvent, type RefObject } from 'react';
import { LONGEST_GUEST_NAME, LONGEST_NOTE, type GuestNote } from '../../core/screening/guest-note';
import { clock } from '../kit/clock';
import { useLive } from '../kit/use-live';
import { callServer } from '../show/call-server';

interface GuestBookProps {
  readonly token: string;
  readonly video: RefObject<HTMLVideoElement | null>;
}

/** How often what others wrote is asked for while the page is looked at. */
const ASK_MS = 20_000;
const NAME_KEPT = 'guest-name';

/** What viewers wrote at moments of the film, and where they write: a name, no account. */
export function GuestBook({ token, video, onGo }: GuestBookProps & { onGo: (ms: number) => void }) {
  const [notes, setNotes] = useState<readonly GuestNote[] | null>(null);
  const [answering, setAnswering] = useState<string | null>(null);
  const ask = useCallback(
    () =>
      callServer<{ notes: GuestNote[] }>('GET', `/api/v1/screenings/${token}/notes`).then(
        (answer) => setNotes(answer.notes),
        () => {},
      ),
    [token],
  );
  useEffect(() => {
    void ask();
    const timer = setInterval(() => {
      if (document.visibilityState === 'visible') void ask();
    }, ASK_MS);
    return () => clearInterval(timer);
  }, [ask]);
  const threads = (notes ?? []).filter(({ replyTo }) => replyTo === null);
  return (
    <section aria-labelledby="guest-book" className="flex flex-col gap-5" data-part="guest-book">
      <h2 id="guest-book" className="text-lg font-(family-name:--titles)">
        Guest book
      </h2>
      <NoteForm token={token} video={video} onLeft={ask} />
      {threads.length > 0 && (
        <ol className="flex flex-col gap-4">
          {threads.map((note) => (
            <li key={note.id} className="border-t border-(--rule) pt-4" data-part="guest-note">
              <NoteWords note={note} onGo={onGo} />
              {(notes ?? [])
                .filter(({ replyTo }) => replyTo === note.id)
                .map((answer) => (
                  <div key={answer.id} className="mt-3 border-l-2 border-(--rule) pl-3" data-part="guest-answer">
                    <NoteWords note={answer} />
                  </div>
                ))}
              {answering === note.id ? (
                <div className="mt-3">
                  <NoteForm
                    token={token}
                    video={video}
                    replyTo={note}
                    onLeft={async () => {
                      setAnswering(null);
                      await ask();
                    }}
                  />
                </div>
              ) : (
                <button
                  type="button"
                  className="mt-2 rounded-sm text-(--soft) underline underline-offset-4 hover:text-(--letters)"
                  onClick={() => setAnswering(note.id)}
                >
                  Answer
                </button>
              )}
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}

function NoteWords({ note, onGo }: { note: GuestNote; onGo?: (atMs: number) => void }) {
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-x-2">
        {onGo && (
          <button
            type="button"
            aria-label={`${clock(note.atMs)}: go there in the film`}
            className="tabular rounded-sm text-(--accent) underline underline-offset-4"
            onClick={() => onGo(note.atMs)}
          >
            {clock(note.atMs)}
          </button>
        )}
        <b className="font-semibold [overflow-wrap:anywhere]">{note.name}</b>
        {note.kind === 'wish' && <span className="text-(--soft)">wishes</span>}
      </p>
      <p className="mt-1 text-base whitespace-pre-wrap [overflow-wrap:anywhere]">{note.words}</p>
    </>
  );
}

interface NoteFormProps extends GuestBookProps {
  readonly replyTo?: GuestNote;
  readonly onLeft: () => Promise<void>;
}

function NoteForm({ token, video, replyTo, onLeft }: NoteFormProps) {
  const [atMs, setAtMs] = useState(replyTo?.atMs ?? 0);
  const [kind, setKind] = useState<GuestNote['kind']>('note');
  const [says, setSays] = useState<string | null>(null);
  const [sending, setSending] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  const here = () => setAtMs(Math.floor(1000 * (video.current?.currentTime ?? 0)));
  useEffect(() => {
    const field = form.current?.elements.namedItem('name') as HTMLInputElement | null;
    if (field) field.value = localStorage.getItem(NAME_KEPT) ?? '';
  }, []);
  // Until something is written the moment follows the film.
  const written = useRef(false);
  useEffect(() => {
    const player = video.current;
    if (!player || replyTo) return;
    const follow = () => {
      if (!written.current) setAtMs(Math.floor(1000 * player.currentTime));
    };
    player.addEventListener('timeupdate', follow);
    player.addEventListener('seeked', follow);
    return () => {
      player.removeEventListener('timeupdate', follow);
      player.removeEventListener('seeked', follow);
    };
  }, [video, replyTo]);

  const live = useLive();
  const send = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const data = new FormData(event.currentTarget);
    const name = String(data.get('name'));
    setSending(true);
    setSays(null);
    try {
      localStorage.setItem(NAME_KEPT, name);
      const { held } = await callServer<{ held: boolean }>('POST', `/api/v1/screenings/${token}/note`, {
        atMs,
        kind,
        name,
        words: String(data.get('words')),
        website: String(data.get('website')),
        ...(replyTo && { replyTo: replyTo.id }),
      });
      (form.current!.elements.namedItem('words') as HTMLTextAreaElement).value = '';
      written.current = false;
      setSays(
        held
          ? 'Thank you. It holds a link, so it is shown once it has been looked at.'
          : kind === 'wish'
            ? 'Thank you, your wish has arrived.'
            : 'Thank you, it stands in the book.',
      );
      await onLeft();
    } catch (error) {
      setSays(
        error instanceof TypeError
          ? 'It could not be sent: there is no connection. It is still here.'
          : String((error as Error).message),
      );
    } finally {
      setSending(false);
    }
  };
  return (
    <form ref={form} onSubmit={(event) => void send(event)} className="flex flex-col gap-3" data-part="note-form">
      {!replyTo && (
        <div className="flex flex-wrap items-center gap-2">
          <span>
            At <span className="tabular font-semibold">{clock(atMs)}</span>
          </span>
          <button
            type="button"
            className="rounded-sm text-(--soft) underline underline-offset-4 hover:text-(--letters)"
            onClick={here}
          >
            take this moment
          </button>
          <span
            role="radiogroup"
            aria-label="What it is"
            className="ml-auto flex rounded-md border border-(--rule) p-0.5"
          >
            {(['note', 'wish'] as const).map((one) => (
              <label
                key={one}
                className={clsx(
                  'cursor-pointer rounded-sm px-3 py-1 has-focus-visible:outline-2 has-focus-visible:outline-(--accent)',
                  kind === one && 'bg-(--letters) text-(--ground)',
                )}
              >
                <input
                  type="radio"
                  name="kind"
                  className="sr-only"
                  checked={kind === one}
                  onChange={() => setKind(one)}
                />
                {one === 'note' ? 'A note' : 'A wish'}
              </label>
            ))}
          </span>
        </div>
      )}
      <label className="flex flex-col gap-1">
        {replyTo ? 'Your answer' : kind === 'wish' ? 'What shall be changed?' : 'What would you like to say?'}
        <textarea
          name="words"
          required
          rows={replyTo ? 2 : 3}
          maxLength={LONGEST_NOTE}
          onInput={() => {
            if (!written.current && !replyTo) here();
            written.current = true;
          }}
          className="resize-y rounded-md border border-(--soft) bg-transparent px-3 py-2 text-base"
        />
      </label>
      {/* No person sees this field; programs fill it in. */}
      <input type="text" name="website" tabIndex={-1} autoComplete="off" aria-hidden="true" className="hidden" />
      <div className="flex items-end gap-3">
        <label className="flex min-w-0 flex-1 flex-col gap-1">
          Your name
          <input
            name="name"
            required
            maxLength={LONGEST_GUEST_NAME}
            autoComplete="name"
            className="h-11 min-w-0 rounded-md border border-(--soft) bg-transparent px-3 text-base"
          />
        </label>
        <button
          type="submit"
          disabled={sending || !live}
          className="h-11 shrink-0 rounded-md bg-(--accent) px-4 text-base font-semibold text-(--on-accent) hover:opacity-90 disabled:opacity-50"
        >
          {replyTo ? 'Answer' : 'Write it in'}
        </button>
      </div>
      <p role="status" className="min-h-5" data-part="note-says">
        {says}
      </p>
    </form>
  );
}
