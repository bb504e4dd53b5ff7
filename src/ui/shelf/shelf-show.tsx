'use client';

import { formatDistance } from 'date-fns';
import { Archive, ArchiveRestore, Copy, Ellipsis, FileDown, Pencil, Trash2, Undo2 } from 'lucide-react';
import Link from 'next/link';
import { DropdownMenu } from 'radix-ui';
import { useRef, useState, type ReactNode } from 'react';
import type { ShelfEntry } from '../../server/shows/show-service';
import { Button } from '../kit/button';
import { clock, megabytes } from '../kit/clock';
import { callServer } from '../show/call-server';
import { pictureUrl } from '../show/file-url';

interface ShelfShowProps {
  readonly entry: ShelfEntry;
  readonly now: number;
  readonly onChange: (
    work: () => Promise<unknown>,
    said: string | null,
    undo: (() => Promise<unknown>) | null,
  ) => Promise<void>;
}

const FILM = { none: null, making: 'film being made', ready: 'film ready' } as const;

/** One show: its poster, what it is called, how long it is and where it stands, and what can be done with it. */
export function ShelfShow({ entry, now, onChange }: ShelfShowProps) {
  const [naming, setNaming] = useState<string | null>(null);
  // The menu gives the focus back when it closes; the field of the name is to keep it.
  const keepsFocus = useRef(false);
  const path = `/api/v1/shows/${entry.id}`;
  const called = `“${entry.title}”`;
  const patch = (change: object) => () => callServer('PATCH', path, change);
  const remove = () => callServer('DELETE', path);
  const bringBack = () => callServer('DELETE', `${path}/removal`);
  const rename = () => {
    const title = naming?.trim() ?? '';
    setNaming(null);
    if (title !== '' && title !== entry.title)
      void onChange(patch({ title }), `It is called “${title}” now.`, patch({ title: entry.title }));
  };
  const poster = (
    <span className="block bg-print p-2 shadow-print transition-transform group-hover:-translate-y-0.5">
      <span className="block aspect-[16/9] overflow-hidden bg-surround">
        {/* The print is already as small as it is shown. */}
        {entry.posterAssetId ? (
          // eslint-disable-next-line @next/next/no-img-element
          <img
            src={pictureUrl(entry.id, entry.posterAssetId, 960, entry.posterAtMs)}
            alt=""
            className="h-full w-full object-cover"
          />
        ) : (
          <span className="grid h-full place-items-center text-lamp-soft">no pictures yet</span>
        )}
      </span>
    </span>
  );
  const heading = (
    <span className="mt-3 line-clamp-2 pr-9 font-display text-lg leading-snug font-semibold">{entry.title}</span>
  );
  return (
    <li className="group relative" data-part="shelf-show" data-show={entry.id}>
      {entry.place === 'removed' ? (
        <div className="block opacity-70">
          {poster}
          {heading}
        </div>
      ) : naming !== null ? (
        <>
          {poster}
          <input
            aria-label="Title of the show"
            ref={(field) => {
              if (field && document.activeElement !== field) setTimeout(() => field.focus(), 0);
            }}
            value={naming}
            maxLength={300}
            onFocus={(event) => event.target.select()}
            onChange={(event) => setNaming(event.target.value)}
            onBlur={rename}
            onKeyDown={(event) => {
              if (event.key === 'Enter') event.currentTarget.blur();
              if (event.key === 'Escape') setNaming(null);
            }}
            className="mt-2 w-full rounded-md border border-rule bg-field px-2 py-1 font-display text-lg font-semibold"
          />
        </>
      ) : (
        <Link href={`/shows/${entry.id}`} className="block">
          {poster}
          {heading}
        </Link>
      )}
      <p className="mt-0.5 flex flex-wrap items-center gap-x-3 text-soft">
        <span>
          <span className="tabular text-ink">{entry.slideCount}</span> {entry.slideCount === 1 ? 'slide' : 'slides'}
        </span>
        <span className="tabular text-ink">{clock(entry.lengthMs)}</span>
        {entry.byteCount > 0 && (
          <span className="tabular" title="its files and films on the disk">
            {megabytes(entry.byteCount)}
          </span>
        )}
        <span>changed {formatDistance(entry.changedAt, now, { addSuffix: true })}</span>
        {entry.visiting && <span>you are a guest of it</span>}
        {FILM[entry.film] && <span className="font-medium text-moss">{FILM[entry.film]}</span>}
      </p>
      {entry.place === 'removed' ? (
        <Button
          className="mt-2 h-7"
          aria-label={`Bring ${called} back`}
          onClick={() => void onChange(bringBack, `${called} is back.`, remove)}
        >
          <Undo2 size={14} /> Bring back
        </Button>
      ) : entry.visiting ? null : (
        <DropdownMenu.Root>
          <DropdownMenu.Trigger asChild>
            <Button
              look="quiet"
              square
              aria-label={`What to do with ${called}`}
              className="absolute right-0 top-[calc(100%-3.4rem)] bg-paper"
            >
              <Ellipsis size={16} />
            </Button>
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content
              align="end"
              sideOffset={4}
              onCloseAutoFocus={(event) => {
                if (keepsFocus.current) event.preventDefault();
                keepsFocus.current = false;
              }}
              className="z-30 min-w-44 rounded-lg border border-rule bg-card p-1.5 shadow-raised"
            >
              <Act
                icon={<Pencil size={14} />}
                onSelect={() => {
                  keepsFocus.current = true;
                  setNaming(entry.title);
                }}
              >
                Rename
              </Act>
              <Act
                icon={<Copy size={14} />}
                onSelect={() =>
                  void onChange(() => callServer('POST', `${path}/copy`), `A copy of ${called} stands beside it.`, null)
                }
              >
                Duplicate
              </Act>
              <DropdownMenu.Item asChild>
                <a
                  href={`${path}/bundle`}
                  download
                  className="flex h-8 cursor-default items-center gap-2 rounded-md px-2.5 outline-none data-[highlighted]:bg-rule/60"
                  data-part="save-bundle"
                >
                  <FileDown size={14} /> Save as one file
                </a>
              </DropdownMenu.Item>
              {entry.place === 'archive' ? (
                <Act
                  icon={<ArchiveRestore size={14} />}
                  onSelect={() =>
                    void onChange(
                      patch({ archived: false }),
                      `${called} is on the shelf again.`,
                      patch({ archived: true }),
                    )
                  }
                >
                  Back on the shelf
                </Act>
              ) : (
                <Act
                  icon={<Archive size={14} />}
                  onSelect={() =>
                    void onChange(patch({ archived: true }), `${called} is in the archive.`, patch({ archived: false }))
                  }
                >
                  Put into the archive
                </Act>
              )}
              <Act
                icon={<Trash2 size={14} />}
                onSelect={() => void onChange(remove, `${called} was taken off the shelf.`, bringBack)}
              >
                Take off the shelf
              </Act>
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      )}
    </li>
  );
}

function Act({ icon, onSelect, children }: { icon: ReactNode; onSelect: () => void; children: ReactNode }) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      className="flex h-8 cursor-default items-center gap-2 rounded-md px-2.5 outline-none data-[highlighted]:bg-rule/60"
    >
      {icon} {children}
    </DropdownMenu.Item>
  );
}
