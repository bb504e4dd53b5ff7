'use client';

import { Check, CornerDownRight, Eye, EyeOff, RotateCcw, Trash2 } from 'lucide-react';
import { format } from 'date-fns';
import { useState } from 'react';
import { toast } from 'sonner';
import { LONGEST_NOTE, type KeptNote, type NoteState } from '../../core/screening/guest-note';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { callServer } from '../show/call-server';
import { useShow } from '../show/show-provider';
import { useGuests } from './guests-provider';
import { sayFault } from '../show/say-fault';

interface NoteThreadProps {
  readonly note: KeptNote;
  /** Where it stands now, in words; nothing where it is seen. */
  readonly where?: string;
}

const SAYS: Partial<Record<NoteState, string>> = {
  held: 'held back: it has a link',
  hidden: 'hidden from viewers',
  done: 'done',
};

/** A note of the guest book with its answers, and what the studio can do about it. */
export function NoteThread({ note, where }: NoteThreadProps) {
  const showId = useShow((state) => state.show.id);
  const { notes, refresh } = useGuests();
  const [answering, setAnswering] = useState(false);
  const [words, setWords] = useState('');
  const answers = (notes ?? []).filter(({ replyTo }) => replyTo === note.id);
  const path = `/api/v1/shows/${showId}/notes/${note.id}`;
  const turn = async (state: NoteState, said?: string) => {
    const before = note.state;
    await callServer('PATCH', path, { state });
    await refresh();
    if (said && before !== 'held')
      toast(said, { action: { label: 'Undo', onClick: () => void turn(before).catch(sayFault) } });
  };
  const answer = async () => {
    await callServer('POST', `${path}/answers`, { words });
    setAnswering(false);
    setWords('');
    await refresh();
  };
  return (
    <article data-part="note" data-state={note.state} className="flex flex-col gap-1.5">
      <p className="flex flex-wrap items-baseline gap-x-2 text-soft">
        <span className="tabular">{clock(note.atMs)}</span>
        <b className="font-semibold text-ink [overflow-wrap:anywhere]">{note.name}</b>
        {note.kind === 'wish' && <span className="rounded-sm bg-saffron/25 px-1.5 text-ink">wish</span>}
        {SAYS[note.state] && <span className={note.state === 'held' ? 'text-red-deep' : ''}>{SAYS[note.state]}</span>}
        <span className="ml-auto">{format(note.createdAt, 'd MMM, HH:mm')}</span>
      </p>
      {where && <p className="text-soft">{where}</p>}
      <p className="whitespace-pre-wrap [overflow-wrap:anywhere]">{note.words}</p>
      {answers.map((one) => (
        <p key={one.id} className="flex gap-1.5 pl-1" data-part="note-answer">
          <CornerDownRight size={13} aria-hidden="true" className="mt-1 shrink-0 text-soft" />
          <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">
            <b className="font-semibold">{one.name}</b> {one.words}
            {one.state === 'held' && <span className="text-red-deep"> held back: it has a link</span>}
          </span>
          {one.state === 'held' && (
            <Button
              look="quiet"
              square
              aria-label={`Let the answer of ${one.name} in`}
              onClick={() =>
                void callServer('PATCH', `/api/v1/shows/${showId}/notes/${one.id}`, { state: 'open' }).then(
                  refresh,
                  sayFault,
                )
              }
            >
              <Eye size={14} />
            </Button>
          )}
        </p>
      ))}
      {answering ? (
        <form
          className="flex flex-col gap-1.5"
          onSubmit={(event) => {
            event.preventDefault();
            void answer().catch(sayFault);
          }}
        >
          <textarea
            aria-label={`Answer to ${note.name}`}
            value={words}
            required
            maxLength={LONGEST_NOTE}
            rows={2}
            ref={(field) => field?.focus()}
            onChange={(event) => setWords(event.target.value)}
            onKeyDown={(event) => {
              event.stopPropagation();
              if (event.key === 'Escape') {
                event.preventDefault();
                setAnswering(false);
              }
            }}
            className="rounded-md border border-rule bg-field px-2 py-1"
          />
          <span className="flex gap-1.5">
            <Button type="submit" look="main">
              Answer
            </Button>
            <Button onClick={() => setAnswering(false)}>Not now</Button>
          </span>
        </form>
      ) : (
        <span className="-ml-2 flex flex-wrap">
          {note.state !== 'hidden' && note.state !== 'held' && (
            <Button look="quiet" onClick={() => setAnswering(true)}>
              Answer
            </Button>
          )}
          {note.state === 'open' && (
            <Button look="quiet" onClick={() => void turn('done', 'The note is done.').catch(sayFault)}>
              <Check size={14} /> Done
            </Button>
          )}
          {(note.state === 'held' || note.state === 'hidden') && (
            <Button look="quiet" onClick={() => void turn('open').catch(sayFault)}>
              <Eye size={14} /> Let it in
            </Button>
          )}
          {note.state === 'done' && (
            <Button look="quiet" onClick={() => void turn('open').catch(sayFault)}>
              <RotateCcw size={14} /> Open again
            </Button>
          )}
          {note.state !== 'hidden' && (
            <Button
              look="quiet"
              onClick={() => void turn('hidden', 'Viewers do not see the note any more.').catch(sayFault)}
            >
              <EyeOff size={14} /> Hide
            </Button>
          )}
          {note.state === 'hidden' && (
            <Button
              look="quiet"
              onClick={() => void callServer('DELETE', path).then(refresh, sayFault)}
              title="For good, with its answers"
            >
              <Trash2 size={14} /> Delete for good
            </Button>
          )}
        </span>
      )}
    </article>
  );
}
