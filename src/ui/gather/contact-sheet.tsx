'use client';

import type { Warning } from './use-warnings';
import { useVirtualizer } from '@tanstack/react-virtual';
import { clsx } from 'clsx';
import { Film, Layers, MessageSquareQuote } from 'lucide-react';
import { memo, useCallback, useEffect, useRef, useState } from 'react';
import { takenAt } from '../../core/show/camera-clock';
import { useShow } from '../show/show-provider';
import { MARK_NAMES, type Mark } from '../../core/show/mark';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { useCommands } from '../commands/use-commands';
import { clock } from '../kit/clock';
import type { InStack } from './use-stacks';
import type { ClientSays } from '../proof/use-proofs';
import { PencilMark } from './pencil-mark';
import { usePictureUrl } from '../show/file-url';

interface ContactSheetProps {
  readonly entries: readonly SheetEntry[];
  readonly usedOn: ReadonlyMap<string, readonly number[]>;
  readonly marks: Readonly<Record<string, Mark>>;
  /** What clients said, by picture. */
  readonly says: ReadonlyMap<string, readonly ClientSays[]>;
  /** What a print should be warned of, by entry. */
  readonly warnings: ReadonlyMap<string, Warning>;
  /** The prints that lie in stacks, by entry. */
  readonly stacks: ReadonlyMap<string, InStack>;
  /** A stack is to be opened or closed, by one of its prints. */
  readonly onStack: (id: string) => void;
  readonly selection: ReadonlySet<string>;
  readonly focus: string | null;
  readonly onClick: (entry: SheetEntry, keys: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => void;
  /** A print is to be seen large. */
  readonly onOpen: (entry: SheetEntry) => void;
  readonly onStep: (by: number, stretch: boolean) => void;
  readonly onBand: (ids: readonly string[]) => void;
}

const CELL_PX = 156;
const ROW_PX = 128;
const PAD_PX = 16;

interface Band {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** The prints on paper, numbered like the edge of a film. Only the rows in sight are in the page. */
export function ContactSheet({
  entries,
  usedOn,
  marks,
  says,
  warnings,
  stacks,
  onStack,
  selection,
  focus,
  onClick,
  onOpen,
  onStep,
  onBand,
}: ContactSheetProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const [columns, setColumns] = useState(6);
  const [band, setBand] = useState<Band | null>(null);
  // Prints are many and drawn again only when they change, so what they call must not.
  const hands = useRef({ onClick, onOpen, onStack });
  useEffect(() => {
    hands.current = { onClick, onOpen, onStack };
  });
  const click = useCallback<ContactSheetProps['onClick']>((entry, keys) => hands.current.onClick(entry, keys), []);
  const openStack = useCallback((id: string) => hands.current.onStack(id), []);
  const openLarge = useCallback<ContactSheetProps['onOpen']>((entry) => hands.current.onOpen(entry), []);
  const rowCount = Math.ceil(entries.length / columns);
  // The virtualizer hands out functions that must not be memoised; the compiler is told by its own rule.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: rowCount,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 3,
    paddingStart: PAD_PX,
    paddingEnd: PAD_PX,
  });

  useEffect(() => {
    const watcher = new ResizeObserver(([entry]) =>
      setColumns(Math.max(1, Math.floor((entry!.contentRect.width - 2 * PAD_PX) / CELL_PX))),
    );
    watcher.observe(scroller.current!);
    return () => watcher.disconnect();
  }, []);
  const by: Record<string, number> = {
    ArrowRight: 1,
    ArrowLeft: -1,
    ArrowDown: columns,
    ArrowUp: -columns,
    Home: -entries.length,
    End: entries.length,
  };
  useCommands({
    'print-step': (event) => onStep(by[event?.key ?? ''] ?? 1, false),
    'print-stretch': (event) => onStep(by[event?.key ?? ''] ?? 1, true),
    'print-ends': (event) => onStep(by[event?.key ?? ''] ?? 0, event?.shiftKey ?? false),
  });
  useEffect(() => {
    const at = entries.findIndex((entry) => entry.id === focus);
    if (at >= 0) rows.scrollToIndex(Math.floor(at / columns));
    // Only when the focus moves, not when the rows are measured.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [focus]);

  const pointIn = (event: { clientX: number; clientY: number }) => {
    const box = scroller.current!.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top + scroller.current!.scrollTop };
  };
  const bandEnd = (drawn: Band) => {
    const [left, right] = [Math.min(drawn.x0, drawn.x1), Math.max(drawn.x0, drawn.x1)];
    const [top, bottom] = [Math.min(drawn.y0, drawn.y1), Math.max(drawn.y0, drawn.y1)];
    const cellPx = (scroller.current!.clientWidth - 2 * PAD_PX) / columns;
    return entries
      .filter((_, index) => {
        const x = PAD_PX + (index % columns) * cellPx;
        const y = PAD_PX + Math.floor(index / columns) * ROW_PX;
        return x < right && x + cellPx > left && y < bottom && y + ROW_PX > top;
      })
      .map((entry) => entry.id);
  };

  return (
    <div
      ref={scroller}
      role="listbox"
      aria-label="Contact sheet"
      aria-multiselectable="true"
      tabIndex={0}
      data-part="contact-sheet"
      className="relative min-h-0 flex-1 overflow-y-auto -outline-offset-2 scroll-thin"
      onPointerDown={(event) => {
        if (event.button !== 0 || (event.target as HTMLElement).closest('[role=option]')) return;
        const { x, y } = pointIn(event);
        event.currentTarget.setPointerCapture(event.pointerId);
        setBand({ x0: x, y0: y, x1: x, y1: y });
      }}
      onPointerMove={(event) => {
        if (!band) return;
        const { x, y } = pointIn(event);
        const next = { ...band, x1: x, y1: y };
        setBand(next);
        onBand(bandEnd(next));
      }}
      onPointerUp={() => {
        if (band && Math.abs(band.x1 - band.x0) + Math.abs(band.y1 - band.y0) < 4) onBand([]);
        setBand(null);
      }}
    >
      <div style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map((row) => (
          <div
            key={row.key}
            className="absolute inset-x-0 grid px-4"
            style={{ top: row.start, height: ROW_PX, gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}
          >
            {entries.slice(row.index * columns, (row.index + 1) * columns).map((entry, column) => (
              <Print
                key={entry.id}
                entry={entry}
                number={row.index * columns + column + 1}
                used={usedOn.get(entry.assetId) ?? NOWHERE}
                mark={marks[entry.assetId] ?? null}
                said={says.get(entry.assetId)?.[0] ?? null}
                warning={warnings.get(entry.id)?.label ?? null}
                stackCount={stacks.get(entry.id)?.count ?? 0}
                stackAs={stacks.get(entry.id)?.as ?? null}
                onStack={openStack}
                selected={selection.has(entry.id)}
                focused={entry.id === focus}
                onClick={click}
                onOpen={openLarge}
              />
            ))}
          </div>
        ))}
      </div>
      {band && (
        <div
          aria-hidden="true"
          className="pointer-events-none absolute border border-red bg-red/10"
          style={{
            left: Math.min(band.x0, band.x1),
            top: Math.min(band.y0, band.y1),
            width: Math.abs(band.x1 - band.x0),
            height: Math.abs(band.y1 - band.y0),
          }}
        />
      )}
    </div>
  );
}

const NOWHERE: readonly number[] = [];

interface PrintProps {
  readonly entry: SheetEntry;
  readonly number: number;
  readonly used: readonly number[];
  readonly mark: Mark | null;
  /** The latest that a client said of it. */
  readonly said: ClientSays | null;
  readonly warning: string | null;
  readonly stackCount: number;
  readonly stackAs: InStack['as'] | null;
  readonly onStack: (id: string) => void;
  readonly selected: boolean;
  readonly focused: boolean;
  readonly onClick: ContactSheetProps['onClick'];
  readonly onOpen: ContactSheetProps['onOpen'];
}

const SAID: Readonly<Record<Mark, string>> = { keep: 'kept', linger: 'lingers', 'leave-out': 'left out' };

const Print = memo(function Print({
  entry,
  number,
  used,
  mark,
  said,
  warning,
  stackCount,
  stackAs,
  onStack,
  selected,
  focused,
  onClick,
  onOpen,
}: PrintProps) {
  const pictureUrl = usePictureUrl();
  const clocks = useShow((state) => state.show.clocks);
  const { facts } = entry;
  if (facts === null || facts.kind === 'sound') return null;
  const transparent = facts.kind === 'picture' && facts.hasTransparency;
  const wide = facts.widthPx / facts.heightPx >= 1.2;
  const time = takenAt(facts, clocks)?.slice(11, 16);
  return (
    <div
      role="option"
      aria-selected={selected}
      data-entry={entry.id}
      data-mark={mark ?? 'none'}
      onClick={(event) => onClick(entry, event)}
      onDoubleClick={() => onOpen(entry)}
      className="group flex cursor-default flex-col items-center justify-start select-none"
    >
      <span className="sr-only">
        {entry.fileName}, print{mark && `, ${SAID[mark]}`}
        {said && `, ${said.label}: ${said.mark ? SAID[said.mark] : ''} ${said.note}`}
        {warning && `, ${warning}`}
        {stackAs === 'front' && `, in front of a stack of ${stackCount}`}
      </span>
      <span
        className={clsx(
          'relative grid h-[98px] w-[142px] place-items-center rounded-[2px] bg-print p-[5px] shadow-print',
          stackAs === 'front' &&
            'before:absolute before:inset-0 before:-z-10 before:translate-x-[5px] before:-translate-y-[5px] before:rotate-[1.5deg] before:rounded-[2px] before:bg-print before:shadow-print',
          stackAs !== null && 'isolate',
          selected ? 'outline-[3px] outline-red' : focused && 'outline-2 outline-soft',
          'outline-offset-1',
        )}
      >
        {/* The print is already as small as it is shown. */}
        {/* eslint-disable-next-line @next/next/no-img-element */}
        <img
          src={pictureUrl(entry.assetId, 320)}
          alt=""
          draggable={false}
          decoding="async"
          className={clsx(
            'max-h-[88px] max-w-full',
            wide && 'h-full w-full object-cover',
            mark === 'leave-out' && 'opacity-35',
            transparent &&
              'bg-[repeating-conic-gradient(var(--color-soft)_0_25%,var(--color-surround)_0_50%)] bg-[length:14px_14px]',
          )}
        />
        <span className="absolute bottom-1.5 left-1.5 flex max-w-[128px] gap-1 text-xs">
          {facts.kind === 'clip' && (
            <span className="flex items-center gap-1 rounded-sm bg-black/75 px-1 text-lamp">
              <Film size={11} /> <span className="tabular">{clock(facts.lengthMs)}</span>
            </span>
          )}
          {transparent && <span className="rounded-sm bg-black/75 px-1 text-lamp">see-through</span>}
          {warning && <span className="truncate rounded-sm bg-card px-1 font-medium text-saffron-deep">{warning}</span>}
        </span>
        {stackAs !== null && (
          <button
            type="button"
            tabIndex={-1}
            aria-hidden="true"
            title={stackAs === 'front' ? `Open this stack of ${stackCount}` : 'Close this stack'}
            className={clsx(
              'tabular absolute top-1.5 right-1.5 flex h-5 items-center gap-1 rounded-sm px-1.5 text-xs',
              stackAs === 'back' ? 'bg-black/45 text-lamp' : 'bg-black/75 text-lamp hover:bg-black',
            )}
            data-part="stack"
            onClick={(event) => {
              event.stopPropagation();
              onStack(entry.id);
            }}
            onDoubleClick={(event) => event.stopPropagation()}
          >
            <Layers size={11} /> {stackAs === 'back' ? '' : stackCount}
          </button>
        )}
        {said && (
          <span
            className="absolute top-1.5 left-1.5 flex max-w-[104px] items-center gap-1 rounded-sm bg-slate px-1 text-xs text-white"
            title={`${said.label}: ${said.mark ? MARK_NAMES[said.mark] : 'not marked'}${said.note && ` – “${said.note}”`}`}
            aria-hidden="true"
            data-part="client-mark"
          >
            {said.mark && MARK_NAMES[said.mark]}
            {said.note && <MessageSquareQuote size={11} className="shrink-0" />}
          </span>
        )}
        {mark && <PencilMark mark={mark} hand={number} className="-inset-x-[9px] -inset-y-[9px] h-[116px] w-[160px]" />}
      </span>
      <span className="tabular mt-1 flex w-[140px] justify-between text-xs">
        <span>
          {number}
          <span aria-hidden="true" className="ml-0.5 text-[9px]">
            ▸
          </span>
        </span>
        {used.length > 0 && (
          <span className="text-slate">{used.length === 1 ? `slide ${used[0]}` : `${used.length} slides`}</span>
        )}
        <span className="text-soft">{time ?? ''}</span>
      </span>
    </div>
  );
});
