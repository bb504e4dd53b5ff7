'use client';

import { Download } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useShow } from '../show/show-provider';
import { Choice } from '../kit/choice';
import { useGuests } from './guests-provider';
import { NoteThread } from './note-thread';

type Which = 'open' | 'all';

/** The guest book of all of a show’s screenings, in the order of the film. */
export function GuestBookList() {
  const show = useShow((state) => state.show);
  const { notes } = useGuests();
  const [which, setWhich] = useState<Which>('open');
  const numbers = useMemo(() => new Map(show.slides.map(({ id }, index) => [id, index + 1])), [show.slides]);
  if (!notes || notes.length === 0) return null;
  const threads = notes.filter(({ replyTo }) => replyTo === null);
  const open = threads.filter(({ state }) => state === 'open' || state === 'held');
  const shown = which === 'open' ? open : threads;
  return (
    <section aria-labelledby="notes" className="mt-8" data-part="notes">
      <div className="flex items-center gap-3">
        <h2 id="notes" className="text-lg">
          Guest book
        </h2>
        <Choice
          label="Which notes"
          value={which}
          options={[
            { value: 'open', label: `open ${open.length}` },
            { value: 'all', label: `all ${threads.length}` },
          ]}
          onChange={setWhich}
        />
        <a
          href={`/api/v1/shows/${show.id}/notes/table`}
          download
          className="ml-auto flex h-8 items-center gap-1.5 rounded-md border border-rule bg-card px-3 hover:border-soft"
        >
          <Download size={14} aria-hidden="true" /> As a table (CSV)
        </a>
      </div>
      {shown.length === 0 ? (
        <p className="mt-3 text-soft">Nothing is open. Answered and done notes are under “all”.</p>
      ) : (
        <ul className="mt-3 grid grid-cols-2 gap-3">
          {shown.map((note) => {
            const number = note.slideId && numbers.get(note.slideId);
            return (
              <li key={note.id} className="rounded-xl border border-rule bg-card p-3.5">
                <NoteThread note={note} where={number ? `on slide ${number}` : 'its slide is gone'} />
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}
