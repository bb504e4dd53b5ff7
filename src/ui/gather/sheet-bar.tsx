'use client';

import { ArrowDownWideNarrow, Check, FileDown, Filter, FolderOpen, Images, Server, X } from 'lucide-react';
import { DropdownMenu, Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { EVERYTHING, type SheetFilter, type SheetOrder } from './sheet-view';

const ORDERS: Readonly<Record<SheetOrder, string>> = {
  taken: 'time taken',
  name: 'name',
  size: 'size, largest first',
  arrived: 'arrival, latest first',
};

/** How the prints lie on the sheet: their order. */
export function OrderMenu({ order, onChange }: { order: SheetOrder; onChange: (order: SheetOrder) => void }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button className="h-7" aria-label={`Order of the prints: by ${ORDERS[order]}`}>
          <ArrowDownWideNarrow size={14} /> by {ORDERS[order].split(',')[0]}
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="z-30 rounded-lg border border-rule bg-card p-1.5 shadow-raised"
        >
          <DropdownMenu.RadioGroup value={order} onValueChange={(value) => onChange(value as SheetOrder)}>
            {(Object.keys(ORDERS) as SheetOrder[]).map((value) => (
              <DropdownMenu.RadioItem
                key={value}
                value={value}
                className="relative flex h-8 cursor-default items-center rounded-md pr-4 pl-7 outline-none data-[highlighted]:bg-rule/60"
              >
                <DropdownMenu.ItemIndicator className="absolute left-2">
                  <Check size={13} />
                </DropdownMenu.ItemIndicator>
                by {ORDERS[value]}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

const FACETS = {
  mark: {
    label: 'Mark',
    options: { any: 'any', kept: 'kept', linger: 'linger', 'leave-out': 'left out', unmarked: 'unmarked' },
  },
  use: { label: 'In the order', options: { any: 'either', used: 'used', unused: 'not used' } },
  kind: { label: 'Kind', options: { all: 'all', picture: 'pictures', clip: 'clips' } },
  shape: { label: 'Shape', options: { any: 'any', wide: 'wide', tall: 'tall', square: 'square' } },
} as const;

/** Which prints are shown. */
export function FilterMenu({
  filter,
  onChange,
  shownCount,
}: {
  filter: SheetFilter;
  onChange: (filter: SheetFilter) => void;
  shownCount: number;
}) {
  const active = (Object.keys(FACETS) as (keyof SheetFilter)[]).filter((facet) => filter[facet] !== EVERYTHING[facet]);
  const named = active.map((facet) => (FACETS[facet].options as Record<string, string>)[filter[facet]]!);
  return (
    <span className="inline-flex items-center">
      <Popover.Root>
        <Popover.Trigger asChild>
          <Button
            className="h-7"
            aria-label={`Which prints: ${named.length === 0 ? 'all prints' : `${named.join(', ')} ${shownCount}`}`}
            data-part="filter"
          >
            <Filter size={13} />{' '}
            {named.length === 0 ? (
              'all prints'
            ) : (
              <>
                <b>{named.join(', ')}</b> <span className="tabular">{shownCount}</span>
              </>
            )}
          </Button>
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="end"
            sideOffset={4}
            aria-label="Which prints"
            className="z-30 grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-2.5 rounded-lg border border-rule bg-card p-3.5 shadow-raised"
          >
            {(Object.keys(FACETS) as (keyof SheetFilter)[]).map((facet) => [
              <span key={facet} className="text-soft">
                {FACETS[facet].label}
              </span>,
              <span key={`${facet} choice`}>
                <Choice
                  label={FACETS[facet].label}
                  value={filter[facet] as string}
                  options={Object.entries(FACETS[facet].options).map(([value, label]) => ({ value, label }))}
                  onChange={(value) => onChange({ ...filter, [facet]: value })}
                />
              </span>,
            ])}
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      {active.length > 0 && (
        <Button
          look="quiet"
          square
          className="size-7"
          aria-label="Show all prints"
          onClick={() => onChange(EVERYTHING)}
        >
          <X size={14} />
        </Button>
      )}
    </span>
  );
}

/** The ways files come in from here. */
export function BringIn({
  onFiles,
  onFolder,
  onServer,
  marksAt,
}: {
  onFiles: () => void;
  onFolder: () => void;
  /** Null for those who may not look into the server’s folders. */
  onServer: (() => void) | null;
  /** Where the marks are had as XMP; null while there are none. */
  marksAt: string | null;
}) {
  const item =
    'flex h-8 cursor-default items-center gap-2 rounded-md px-2.5 outline-none data-[highlighted]:bg-rule/60';
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button className="h-7" data-part="bring-in">
          <Images size={14} /> Bring in
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="z-30 rounded-lg border border-rule bg-card p-1.5 shadow-raised"
        >
          <DropdownMenu.Item onSelect={onFiles} className={item}>
            <Images size={14} /> Choose files
          </DropdownMenu.Item>
          <DropdownMenu.Item onSelect={onFolder} className={item}>
            <FolderOpen size={14} /> Choose a folder
          </DropdownMenu.Item>
          {onServer && (
            <DropdownMenu.Item onSelect={onServer} className={item}>
              <Server size={14} /> A folder on the server
            </DropdownMenu.Item>
          )}
          {marksAt && (
            <DropdownMenu.Item asChild className={`${item} border-t border-rule`}>
              <a href={marksAt} download data-part="save-marks">
                <FileDown size={14} /> Hand the marks out as XMP files
              </a>
            </DropdownMenu.Item>
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

export function Tally({ children }: { children: ReactNode }) {
  return (
    <span data-part="tally" className="whitespace-nowrap">
      {children}
    </span>
  );
}
