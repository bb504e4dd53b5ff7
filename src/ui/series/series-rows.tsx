'use client';

import { clsx } from 'clsx';
import { Download, Eye, RotateCcw } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import type { RowFault } from '../../core/series/row';
import type { SeriesRow, SeriesState } from '../../core/series/series';
import type { SeriesSeen } from '../../server/series/series-service';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { clock } from '../kit/clock';

interface SeriesRowsProps {
  readonly seen: SeriesSeen;
  readonly rows: readonly SeriesRow[];
  readonly state: SeriesState;
  readonly leftMs: number | null;
  readonly onMake: (numbers?: readonly number[]) => Promise<void>;
  readonly onStop: () => Promise<void>;
  readonly onLook: (number: number) => Promise<void>;
}

type Shown = 'all' | 'faults' | 'open';

/** A line for each row: what is wrong with it, how far its film is, what came of it. */
export function SeriesRows({ seen, rows, state, leftMs, onMake, onStop, onLook }: SeriesRowsProps) {
  const [shown, setShown] = useState<Shown>('all');
  const [busy, setBusy] = useState(false);
  const faultsOf = new Map<number, RowFault[]>();
  for (const fault of seen.faults) faultsOf.set(fault.row, [...(faultsOf.get(fault.row) ?? []), fault]);
  const whole = faultsOf.get(0) ?? [];
  const faulty = new Set(seen.faults.filter(({ grave, row }) => grave && row > 0).map(({ row }) => row));
  const done = rows.filter((row) => row.state === 'done').length;
  const failed = rows.filter((row) => row.state === 'failed').length;
  const able = rows.length - faulty.size;
  const isMaking = state === 'making';
  const wanted: Readonly<Record<Shown, (row: SeriesRow) => boolean>> = {
    all: () => true,
    faults: ({ number, state: of, told }) => faultsOf.has(number) || of === 'failed' || told.length > 0,
    open: ({ state: of }) => of !== 'done',
  };
  const visible = rows.filter(wanted[shown]);
  const act = (work: Promise<void>) => {
    setBusy(true);
    void work.finally(() => setBusy(false));
  };
  if (rows.length === 0)
    return (
      <section aria-label="Films" className="grid min-w-0 flex-1 place-items-center p-10" data-part="series-rows">
        <div className="max-w-md text-center">
          <h2 className="text-xl">One show, a film for everybody</h2>
          <p className="mt-2 text-base text-soft">
            “{seen.show.title}” is the pattern. Bring a table with a row for each film, and the folder with their
            pictures: a house each, a graduate each. Any row can be looked at before the first film is made.
          </p>
          {whole.map(({ says }) => (
            <p key={says} role="alert" className="mt-3 text-red-deep">
              {says}
            </p>
          ))}
        </div>
      </section>
    );
  return (
    <section aria-label="Films" className="flex min-w-0 flex-1 flex-col" data-part="series-rows">
      <div className="flex min-h-14 flex-wrap items-center gap-3 border-b border-rule px-5 py-2">
        <p data-part="series-tally">
          <b className="font-semibold">
            {done} of {rows.length}
          </b>{' '}
          {rows.length === 1 ? 'film is' : 'films are'} made
          {failed > 0 && <span className="text-red-deep"> · {failed} could not be</span>}
          {faulty.size > 0 && (
            <span className="text-red-deep">
              {' '}
              · {faulty.size} {faulty.size === 1 ? 'row has' : 'rows have'} a fault
            </span>
          )}
          {isMaking && leftMs !== null && <span className="text-soft"> · about {clock(leftMs)} left</span>}
        </p>
        <span className="ml-auto flex items-center gap-3">
          <Choice
            label="Which rows are shown"
            value={shown}
            options={[
              { value: 'all', label: 'all' },
              { value: 'faults', label: 'with remarks' },
              { value: 'open', label: 'not made yet' },
            ]}
            onChange={setShown}
          />
          {isMaking ? (
            <Button disabled={busy} onClick={() => act(onStop())} data-part="stop-series">
              Stop
            </Button>
          ) : (
            <Button
              look="main"
              className="h-9 px-4"
              disabled={busy || able === 0 || whole.some(({ grave }) => grave)}
              onClick={() => act(onMake())}
              data-part="make-series"
            >
              {makeWords(able, rows.length, done)}
            </Button>
          )}
        </span>
      </div>
      {whole.length > 0 && (
        <ul className="border-b border-rule bg-red-wash px-5 py-2 text-red-deep" role="alert" data-part="series-faults">
          {whole.map(({ says }) => (
            <li key={says}>{says}</li>
          ))}
        </ul>
      )}
      <ol className="min-h-0 flex-1 overflow-y-auto px-5 pb-8 scroll-thin">
        {visible.map((row) => (
          <Row
            key={row.number}
            row={row}
            faults={faultsOf.get(row.number) ?? []}
            isMaking={isMaking}
            canLook={!whole.some(({ grave }) => grave) && !faulty.has(row.number)}
            onLook={() => onLook(row.number)}
            onMake={() => onMake([row.number])}
          />
        ))}
        {visible.length === 0 && <li className="py-10 text-center text-soft">There is nothing to say of any row.</li>}
      </ol>
    </section>
  );
}

function makeWords(able: number, all: number, done: number): string {
  if (done >= able && done > 0) return 'Make what changed';
  if (done > 0) return 'Go on';
  if (able === all) return all === 1 ? 'Make the film' : `Make the ${all} films`;
  return `Make ${able} of ${all} films`;
}

interface RowProps {
  readonly row: SeriesRow;
  readonly faults: readonly RowFault[];
  readonly isMaking: boolean;
  readonly canLook: boolean;
  readonly onLook: () => Promise<void>;
  readonly onMake: () => Promise<void>;
}

const STATES: Readonly<Record<SeriesRow['state'], string>> = {
  new: '',
  preparing: 'getting ready',
  'ready-to-make': 'ready to look at',
  making: 'being made',
  done: 'made',
  failed: 'not made',
};

function Row({ row, faults, isMaking, canLook, onLook, onMake }: RowProps) {
  const { number, title, state, share, problem, told, showId, filmId, byHand } = row;
  return (
    <li
      className="grid grid-cols-[2.5rem_minmax(0,1fr)_9.5rem_auto] items-start gap-3 border-b border-rule py-2 [content-visibility:auto]"
      data-part="series-row"
      data-number={number}
      data-state={state}
    >
      <span className="tabular pt-0.5 text-right text-soft">{number}</span>
      <span className="min-w-0">
        <b className="block truncate pt-0.5 font-semibold" title={title}>
          {title || '–'}
        </b>
        {problem && <span className="block text-red-deep">{problem}</span>}
        {faults.map(({ says, grave }) => (
          <span key={says} className={clsx('block', grave ? 'text-red-deep' : 'text-soft')}>
            {says}
          </span>
        ))}
        {told.map((says) => (
          <span key={says} className="block text-soft">
            {says}
          </span>
        ))}
        {byHand && <span className="block text-soft">Changed by hand: it stays as it is.</span>}
      </span>
      <span className="pt-0.5 text-soft">
        {state === 'making' ? (
          <progress
            max={1}
            value={share}
            aria-label={`How far film ${number} is`}
            className="h-1.5 w-full accent-red"
          />
        ) : (
          <span className={state === 'failed' ? 'text-red-deep' : ''}>{STATES[state]}</span>
        )}
      </span>
      <span className="flex items-center justify-end gap-1">
        {showId && state !== 'preparing' ? (
          <Link
            href={`/shows/${showId}/arrange`}
            className="inline-flex h-8 items-center gap-1.5 rounded-md px-2 text-soft hover:bg-rule/50 hover:text-ink"
            data-part="open-row"
          >
            <Eye size={14} /> Open
          </Link>
        ) : (
          <Button
            look="quiet"
            disabled={!canLook || isMaking || state === 'preparing'}
            onClick={() => void onLook()}
            data-part="look-row"
          >
            <Eye size={14} /> Look
          </Button>
        )}
        {(state === 'failed' || state === 'ready-to-make') && !isMaking && canLook && (
          <Button
            look="quiet"
            square
            aria-label={`Make film ${number}`}
            onClick={() => void onMake()}
            data-part="make-row"
          >
            <RotateCcw size={14} />
          </Button>
        )}
        {state === 'done' && filmId && (
          <a
            href={`/api/v1/films/${filmId}/file`}
            download
            aria-label={`Download film ${number}`}
            className="grid size-8 place-items-center rounded-md text-soft hover:bg-rule/50 hover:text-ink"
            data-part="row-film"
          >
            <Download size={14} />
          </a>
        )}
      </span>
    </li>
  );
}
