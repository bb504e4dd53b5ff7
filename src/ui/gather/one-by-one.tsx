'use client';

import { ChevronLeft, ChevronRight, X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import type { Mark } from '../../core/show/mark';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { Button } from '../kit/button';
import { MarkButtons } from './mark-buttons';
import { PencilMark } from './pencil-mark';
import { usePictureUrl } from '../show/file-url';

interface OneByOneProps {
  /** As they lie on the sheet. */
  readonly entries: readonly SheetEntry[];
  readonly focus: string | null;
  readonly marks: Readonly<Record<string, Mark>>;
  readonly onFocus: (id: string) => void;
  readonly onMark: (entry: SheetEntry, mark: Mark | null) => void;
  readonly onClose: () => void;
}

/** Prints on either side of the large one. */
const NEIGHBOURS = 4;

/** Choosing quickly: one large print, its neighbours beside it, and the keys of the pencil; a mark goes on to the next. */
export function OneByOne({ entries, focus, marks, onFocus, onMark, onClose }: OneByOneProps) {
  const at = Math.max(
    0,
    entries.findIndex((entry) => entry.id === focus),
  );
  const entry = entries[at];
  if (!entry) return null;
  const mark = marks[entry.assetId];
  const go = (to: number) => onFocus(entries[Math.min(entries.length - 1, Math.max(0, to))]!.id);
  const pencil = (next: Mark | null) => {
    onMark(entry, next);
    if (next !== null) go(at + 1);
  };
  const keys: Record<string, () => void> = {
    ArrowRight: () => go(at + 1),
    ArrowDown: () => go(at + 1),
    ArrowLeft: () => go(at - 1),
    ArrowUp: () => go(at - 1),
    Home: () => go(0),
    End: () => go(entries.length - 1),
    ' ': () => go(at + 1),
    k: () => pencil('keep'),
    l: () => pencil('linger'),
    o: () => pencil('leave-out'),
    u: () => pencil(null),
    v: onClose,
    Enter: onClose,
  };
  const count = (test: (mark: Mark | undefined) => boolean) =>
    entries.filter((other) => test(marks[other.assetId])).length;
  return (
    <Dialog.Root
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          data-part="one-by-one"
          className="fixed inset-0 z-40 flex flex-col bg-paper outline-none"
          onOpenAutoFocus={(event) => {
            event.preventDefault();
            (event.currentTarget as HTMLElement).focus();
          }}
          tabIndex={-1}
          onKeyDown={(event) => {
            const action =
              event.ctrlKey || event.metaKey || event.altKey
                ? undefined
                : keys[event.key.length === 1 ? event.key.toLowerCase() : event.key];
            if (!action || ((event.key === ' ' || event.key === 'Enter') && event.target instanceof HTMLButtonElement))
              return;
            event.preventDefault();
            action();
          }}
        >
          <div className="flex h-12 shrink-0 items-center gap-4 border-b border-rule bg-card px-5">
            <Dialog.Title className="text-base">{entry.fileName}</Dialog.Title>
            <span className="tabular text-soft">
              {at + 1} of {entries.length}
            </span>
            <span className="text-soft">
              <b className="tabular text-ink">{count((one) => one === 'keep' || one === 'linger')}</b> kept ·{' '}
              <b className="tabular text-ink">{count((one) => one === undefined)}</b> to look at
            </span>
            <Dialog.Close asChild>
              <Button look="quiet" square aria-label="Back to the contact sheet" className="ml-auto">
                <X size={18} />
              </Button>
            </Dialog.Close>
          </div>
          <div className="flex min-h-0 flex-1 items-stretch">
            <Neighbours label="before" entries={entries} marks={marks} from={at - NEIGHBOURS} onFocus={onFocus} />
            <div className="@container-size grid min-w-0 flex-1 place-items-center py-4">
              <Large key={entry.assetId} entry={entry} mark={mark} hand={at} />
            </div>
            <Neighbours label="after" entries={entries} marks={marks} from={at + 1} onFocus={onFocus} />
          </div>
          <div className="flex h-16 shrink-0 items-center justify-center gap-5 border-t border-rule bg-card">
            <Button look="quiet" square aria-label="Previous print" disabled={at === 0} onClick={() => go(at - 1)}>
              <ChevronLeft size={20} />
            </Button>
            <MarkButtons mark={mark ?? null} onMark={pencil} />
            <Button
              look="quiet"
              square
              aria-label="Next print"
              disabled={at === entries.length - 1}
              onClick={() => go(at + 1)}
            >
              <ChevronRight size={20} />
            </Button>
            <span className="text-soft">U wipes it off · a mark goes on to the next · Esc back to the sheet</span>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

interface NeighboursProps {
  readonly label: string;
  readonly entries: readonly SheetEntry[];
  readonly marks: Readonly<Record<string, Mark>>;
  readonly from: number;
  readonly onFocus: (id: string) => void;
}

/** The prints that lie next to the large one; for the hand only, the keys walk by themselves. */
function Neighbours({ label, entries, marks, from, onFocus }: NeighboursProps) {
  const pictureUrl = usePictureUrl();
  return (
    <ol
      aria-label={`Prints ${label} this one`}
      className="flex w-[176px] shrink-0 flex-col items-center justify-center gap-5"
    >
      {Array.from({ length: NEIGHBOURS }, (_, place) => from + place).map((at) => {
        const other = entries[at];
        const mark = other && marks[other.assetId];
        return (
          <li key={at} className="relative h-[98px] w-[142px]">
            {other && (
              <button
                type="button"
                tabIndex={-1}
                aria-label={other.fileName}
                onClick={() => onFocus(other.id)}
                className="grid h-full w-full place-items-center bg-print p-[5px] shadow-print"
              >
                {/* eslint-disable-next-line @next/next/no-img-element */}
                <img
                  src={pictureUrl(other.assetId, 320)}
                  alt=""
                  className={`max-h-[88px] max-w-full ${mark === 'leave-out' ? 'opacity-35' : ''}`}
                />
                {mark && (
                  <PencilMark mark={mark} hand={at + 1} className="-inset-x-[9px] -inset-y-[9px] h-[116px] w-[160px]" />
                )}
              </button>
            )}
          </li>
        );
      })}
    </ol>
  );
}

function Large({ entry, mark, hand }: { entry: SheetEntry; mark: Mark | undefined; hand: number }) {
  const pictureUrl = usePictureUrl();
  if (!entry.facts || entry.facts.kind === 'sound') return null;
  const aspect = entry.facts.widthPx / entry.facts.heightPx;
  return (
    <span
      className="relative block bg-print p-3 shadow-raised"
      style={{ width: `min(100cqw, (100cqh - 56px) * ${aspect} + 24px)` }}
    >
      <span className="relative block bg-surround" style={{ aspectRatio: aspect }}>
        {/* The small print is there at once; the large one comes over it. */}
        {/* eslint-disable-next-line @next/next/no-img-element */}
        <img src={pictureUrl(entry.assetId, 320)} alt="" className="absolute inset-0 h-full w-full object-cover" />
        {/* eslint-disable-next-line @next/next/no-img-element */}
        <img
          src={pictureUrl(entry.assetId, 1920)}
          alt={entry.fileName}
          className="absolute inset-0 h-full w-full object-cover"
        />
      </span>
      {mark && <PencilMark mark={mark} hand={hand} className="-right-7 -bottom-6 h-[104px] w-[140px]" />}
    </span>
  );
}
