'use client';

import { clsx } from 'clsx';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { kindOf } from '../../core/snags/look-over';
import type { Snag } from '../../core/snags/snag';
import { SNAG_KIND_NAMES } from '../../core/snags/snag-kinds';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { usePrepared } from '../show/show-provider';
import { SnagSign } from './snag-sign';

interface SnagListProps {
  readonly open: readonly Snag[];
  readonly left: readonly Snag[];
  readonly chosen: Snag | null;
  readonly onChoose: (snag: Snag) => void;
}

/** What was found, by kind, the kinds with something grave first; what was left as it is folded away at the end. */
export function SnagList({ open, left, chosen, onChoose }: SnagListProps) {
  const list = useRef<HTMLDivElement>(null);
  const [leftOpen, setLeftOpen] = useState(false);
  const kinds = SNAG_KIND_NAMES.map((kind) => open.filter((snag) => snag.kind === kind))
    .filter((snags) => snags.length > 0)
    .sort((a, b) => Number(b.some(({ grave }) => grave)) - Number(a.some(({ grave }) => grave)));
  const inOrder = [...kinds.flat(), ...(leftOpen ? left : [])];
  const chosenKey = chosen?.key;
  useEffect(() => {
    list.current?.querySelector('[aria-selected=true]')?.scrollIntoView({ block: 'nearest' });
  }, [chosenKey]);
  const step = (by: number) => {
    const at = inOrder.findIndex(({ key }) => key === chosenKey);
    const next = inOrder[Math.min(inOrder.length - 1, Math.max(0, at + by))];
    if (next) onChoose(next);
  };
  const keys = (event: KeyboardEvent) => {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    event.preventDefault();
    step(event.key === 'ArrowDown' ? 1 : -1);
  };
  const active = chosenKey ? idOf(chosenKey) : undefined;
  return (
    <div ref={list} className="min-h-0 flex-1 overflow-y-auto px-5 pt-3 pb-8 scroll-thin" onKeyDown={keys}>
      <div
        role="listbox"
        aria-label="Snags"
        tabIndex={0}
        data-part="snag-list"
        aria-activedescendant={open.some(({ key }) => key === chosenKey) ? active : undefined}
      >
        {kinds.map((snags) => (
          <div key={snags[0]!.kind} role="group" aria-label={kindOf(snags[0]!.kind).title}>
            <p
              role="presentation"
              className="mt-4 mb-1.5 flex items-baseline gap-2 font-display text-base font-semibold"
            >
              {kindOf(snags[0]!.kind).title}
              <span className="tabular text-sm font-normal text-soft">{snags.length}</span>
            </p>
            {snags.map((snag) => (
              <SnagLine key={snag.key} snag={snag} chosen={snag.key === chosenKey} onChoose={onChoose} />
            ))}
          </div>
        ))}
      </div>
      {left.length > 0 && (
        <Button
          look="quiet"
          className="mt-5 -ml-3 text-soft"
          onClick={() => setLeftOpen(!leftOpen)}
          aria-expanded={leftOpen}
          data-part="left-open"
        >
          <span className="tabular">{left.length}</span> left as {left.length === 1 ? 'it is' : 'they are'}
        </Button>
      )}
      {leftOpen && left.length > 0 && (
        <div role="listbox" aria-label="Left as they are" tabIndex={0} aria-activedescendant={active}>
          {left.map((snag) => (
            <SnagLine key={snag.key} snag={snag} chosen={snag.key === chosenKey} onChoose={onChoose} />
          ))}
        </div>
      )}
    </div>
  );
}

const idOf = (key: string) => `snag-${key.replace(/[^\w-]/g, '_')}`;

function SnagLine({ snag, chosen, onChoose }: { snag: Snag; chosen: boolean; onChoose: (snag: Snag) => void }) {
  const { show } = usePrepared();
  const index = show.slides.findIndex(({ id }) => id === snag.slideId);
  return (
    <div
      id={idOf(snag.key)}
      role="option"
      aria-selected={chosen}
      data-part="snag"
      data-kind={snag.kind}
      data-key={snag.key}
      data-grave={snag.grave}
      onClick={() => onChoose(snag)}
      className={clsx(
        'flex cursor-default items-baseline gap-3 rounded-md border px-3 py-2',
        chosen ? 'border-ink bg-card shadow-print' : 'border-transparent hover:bg-card/70',
      )}
    >
      <span className={clsx('translate-y-0.5', snag.grave ? 'text-red-deep' : 'text-soft')}>
        <SnagSign grave={snag.grave} />
      </span>
      <span className="tabular w-10 shrink-0 text-soft">{clock(snag.fromMs)}</span>
      <span className="min-w-0 flex-1">
        {snag.grave && <span className="sr-only">Grave: </span>}
        {snag.sentence}
      </span>
      {index >= 0 && (
        <span className="tabular shrink-0 text-soft">
          {index + 1}
          <span aria-hidden="true" className="text-[9px]">
            ▸
          </span>
        </span>
      )}
    </div>
  );
}
