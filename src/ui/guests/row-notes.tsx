'use client';

import { clsx } from 'clsx';
import { MessageSquareQuote } from 'lucide-react';
import { Popover } from 'radix-ui';
import type { RowOfNotes } from './guests-provider';
import { NoteThread } from './note-thread';

/** In the margin of the running order: what viewers wrote at a slide. */
export function RowNotes({ notes: { here, gone }, small }: { notes: RowOfNotes; small: boolean }) {
  const all = [...here, ...gone];
  const open = all.filter(({ state }) => state !== 'done');
  const name = `${all.length} ${all.length === 1 ? 'note' : 'notes'} from viewers${open.length > 0 ? `, ${open.length} open` : ''}`;
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button
          type="button"
          data-part="row-notes"
          data-open={open.length}
          aria-label={name}
          title={all.map(({ name: who, words }) => `${who}: ${words}`).join('\n')}
          onClick={(event) => event.stopPropagation()}
          className={clsx(
            'flex items-center gap-1 rounded-md py-0.5 hover:bg-rule/60',
            small ? 'absolute top-6 left-[44px]' : 'mt-0.5 -ml-1 px-1',
            open.length > 0 ? 'text-plum' : 'text-soft',
          )}
        >
          <MessageSquareQuote size={15} aria-hidden="true" />
          {!small && <span className="tabular text-xs">{open.length || all.length}</span>}
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="right"
          align="start"
          sideOffset={8}
          collisionPadding={12}
          onClick={(event) => event.stopPropagation()}
          onDoubleClick={(event) => event.stopPropagation()}
          // Keys typed here are not the order’s.
          onKeyDown={(event) => event.stopPropagation()}
          aria-label={name}
          data-part="notes-here"
          className="z-40 flex max-h-(--radix-popover-content-available-height) w-[360px] flex-col gap-4 overflow-y-auto rounded-lg border border-rule bg-card p-4 shadow-raised scroll-thin"
        >
          {here.map((note) => (
            <NoteThread key={note.id} note={note} />
          ))}
          {gone.map((note) => (
            <NoteThread key={note.id} note={note} where="The slide it was written at is gone; it stood here." />
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
