'use client';

import { useDraggable } from '@dnd-kit/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { clsx } from 'clsx';
import { useRef, useState } from 'react';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { Button } from '../kit/button';
import { selectionAfterClick, selectionAfterStep } from '../kit/selection';
import { usePictureUrl } from '../show/file-url';

interface TrayProps {
  readonly entries: readonly SheetEntry[];
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (ids: ReadonlySet<string>) => void;
  /** The number of the slide after which prints are laid, or null for the end. */
  readonly caretNumber: number | null;
  readonly onLayIn: () => void;
  readonly onBeside: (() => void) | null;
}

const CELL_PX = 118;

/** Prints that are not in the order yet, to be laid in by hand: dragged between two slides, or onto one to stand beside its picture. */
export function Tray({ entries, chosen, onChoose, caretNumber, onLayIn, onBeside }: TrayProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const [anchor, setAnchor] = useState<string | null>(null);
  const [focus, setFocus] = useState<string | null>(null);
  // eslint-disable-next-line react-hooks/incompatible-library
  const cells = useVirtualizer({
    horizontal: true,
    count: entries.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => CELL_PX,
    overscan: 3,
    paddingStart: 12,
    paddingEnd: 12,
  });
  const ids = entries.map((entry) => entry.id);
  return (
    <section aria-label="Prints not in the order" data-part="tray" className="shrink-0 border-t border-rule bg-paper">
      <div className="flex h-9 items-center gap-2 px-4 whitespace-nowrap">
        <span className="text-soft">
          {entries.length === 0 ? (
            'Every print that is kept is in the order.'
          ) : chosen.size > 0 ? (
            <>
              <b className="tabular text-ink">{chosen.size}</b> chosen
            </>
          ) : (
            'Drag prints between slides, or onto one to put them beside its picture.'
          )}
        </span>
        {chosen.size > 0 && (
          <>
            <Button className="h-7" onClick={onLayIn} data-part="tray-lay-in">
              Lay in {caretNumber === null ? 'at the end' : `after slide ${caretNumber}`}
            </Button>
            {onBeside && (
              <Button className="h-7" onClick={onBeside} data-part="tray-beside">
                Put beside slide {caretNumber}’s picture
              </Button>
            )}
          </>
        )}
      </div>
      <div
        ref={scroller}
        role="listbox"
        aria-label="Prints not in the order"
        aria-multiselectable="true"
        tabIndex={0}
        className={clsx(
          'h-[98px] overflow-x-auto overflow-y-hidden -outline-offset-2 scroll-thin',
          entries.length === 0 && 'hidden',
        )}
        onWheel={(event) => {
          // A wheel that only goes up and down takes it along.
          if (event.deltaX === 0) event.currentTarget.scrollLeft += event.deltaY;
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            event.preventDefault();
            onLayIn();
          }
          if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
          event.preventDefault();
          event.stopPropagation();
          const next = selectionAfterStep(ids, anchor, focus, event.key === 'ArrowRight' ? 1 : -1, event.shiftKey);
          if (!next) return;
          onChoose(new Set(next.ids));
          setAnchor(next.anchor);
          setFocus(next.focus);
          cells.scrollToIndex(ids.indexOf(next.focus));
        }}
      >
        <div className="relative h-[92px]" style={{ width: cells.getTotalSize() }}>
          {cells.getVirtualItems().map((cell) => {
            const entry = entries[cell.index]!;
            return (
              <TrayPrint
                key={entry.id}
                entry={entry}
                leftPx={cell.start}
                chosen={chosen.has(entry.id)}
                onClick={(keys) => {
                  const next = selectionAfterClick(ids, chosen, anchor, entry.id, keys);
                  onChoose(new Set(next.ids));
                  setAnchor(next.anchor);
                  setFocus(entry.id);
                }}
              />
            );
          })}
        </div>
      </div>
    </section>
  );
}

interface TrayPrintProps {
  readonly entry: SheetEntry;
  readonly leftPx: number;
  readonly chosen: boolean;
  readonly onClick: (keys: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => void;
}

export const TRAY_DRAG = 'print ';

function TrayPrint({ entry, leftPx, chosen, onClick }: TrayPrintProps) {
  const pictureUrl = usePictureUrl();
  const { setNodeRef, listeners } = useDraggable({ id: `${TRAY_DRAG}${entry.id}` });
  return (
    <div
      ref={setNodeRef}
      {...listeners}
      role="option"
      aria-selected={chosen}
      aria-label={entry.fileName}
      data-entry={entry.id}
      onClick={onClick}
      style={{ left: leftPx }}
      className={clsx(
        'absolute top-1 grid h-[76px] w-[110px] cursor-grab touch-none place-items-center bg-print p-1 shadow-print',
        chosen && 'outline-[3px] outline-offset-1 outline-red',
      )}
    >
      {/* eslint-disable-next-line @next/next/no-img-element */}
      <img
        src={pictureUrl(entry.assetId, 320)}
        alt=""
        draggable={false}
        decoding="async"
        className="max-h-[68px] max-w-full"
      />
    </div>
  );
}
