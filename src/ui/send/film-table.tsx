'use client';

import { clsx } from 'clsx';
import { format } from 'date-fns';
import { ArrowDown, ArrowUp, Clapperboard, Download, Music2, RotateCcw, Trash2 } from 'lucide-react';
import {
  createColumnHelper,
  createSortedRowModel,
  rowSortingFeature,
  sortFn_basic,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { formatOf } from '../../core/film/film-formats';
import { purposeTitle } from '../../core/film/purposes/purposes';
import type { FilmRow } from '../../server/films/film-row';
import { Button } from '../kit/button';
import { clock, megabytes } from '../kit/clock';
import { callServer } from '../show/call-server';
import { ShapeIcon } from './shape-icon';
import { sayFault } from '../show/say-fault';

const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { basic: sortFn_basic },
});
const helper = createColumnHelper<typeof features, FilmRow>();

export const tookMs = ({ startedAt, finishedAt }: FilmRow): number | undefined =>
  startedAt !== null && finishedAt !== null ? finishedAt - startedAt : undefined;

const columns = helper.columns([
  helper.accessor((film) => film.orderedAt, { id: 'film', header: 'film', sortFn: 'basic' }),
  helper.accessor((film) => film.spec.widthPx * film.spec.heightPx, { id: 'shape', header: 'frame', sortFn: 'basic' }),
  helper.accessor((film) => film.lengthMs, { id: 'length', header: 'length', sortFn: 'basic' }),
  helper.accessor((film) => film.byteCount ?? undefined, {
    id: 'size',
    header: 'file',
    sortFn: 'basic',
    sortUndefined: 'last',
  }),
  helper.accessor(tookMs, { id: 'took', header: 'made in', sortFn: 'basic', sortUndefined: 'last' }),
  helper.accessor((film) => film.likeness ?? undefined, {
    id: 'likeness',
    header: 'likeness',
    sortFn: 'basic',
    sortUndefined: 'last',
  }),
]);

const TITLES: Readonly<Record<string, string>> = {
  likeness: 'How like its frames are to what was drawn (SSIM)',
  took: 'From the moment it was taken up until it was ready',
};

interface FilmTableProps {
  /** None that is being made. */
  readonly films: FilmRow[];
  readonly onDone: () => void;
  readonly onScreen: (filmId: string) => void;
  /** Puts one on a host; null: there is none. */
  readonly onSendOn: ((film: FilmRow) => void) | null;
}

/** Films that are ready, or were not made, to compare and to hand over. */
export function FilmTable({ films, onDone, onScreen, onSendOn }: FilmTableProps) {
  const table = useTable({
    features,
    columns,
    data: films,
    enableSortingRemoval: false,
    initialState: { sorting: [{ id: 'film', desc: true }] },
  });
  return (
    <table className="mt-3 w-full border-collapse" data-part="films">
      <thead>
        {table.getHeaderGroups().map((group) => (
          <tr key={group.id} className="border-b border-rule text-left text-soft">
            {group.headers.map((header) => {
              const sorted = header.column.getIsSorted();
              return (
                <th
                  key={header.id}
                  aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
                  className={clsx('py-1.5 font-normal', header.id !== 'film' && header.id !== 'shape' && 'text-right')}
                >
                  <button
                    type="button"
                    title={TITLES[header.id]}
                    data-sort={header.id}
                    onClick={header.column.getToggleSortingHandler()}
                    className={clsx('inline-flex items-center gap-1 rounded-sm hover:text-ink', sorted && 'text-ink')}
                  >
                    <table.FlexRender header={header} />
                    {sorted === 'asc' && <ArrowUp size={11} aria-hidden="true" />}
                    {sorted === 'desc' && <ArrowDown size={11} aria-hidden="true" />}
                  </button>
                </th>
              );
            })}
            <th className="font-normal">
              <span className="sr-only">What can be done</span>
            </th>
          </tr>
        ))}
      </thead>
      <tbody>
        {table.getRowModel().rows.map((row) => (
          <FilmLine key={row.original.id} film={row.original} onDone={onDone} onScreen={onScreen} onSendOn={onSendOn} />
        ))}
      </tbody>
    </table>
  );
}

interface FilmLineProps {
  readonly film: FilmRow;
  readonly onDone: () => void;
  /** Opens a screening of it. */
  readonly onScreen: (filmId: string) => void;
  readonly onSendOn: ((film: FilmRow) => void) | null;
}

function FilmLine({ film, onDone, onScreen, onSendOn }: FilmLineProps) {
  const { spec } = film;
  const took = tookMs(film);
  const isReady = film.state === 'ready';
  const sound = formatOf(spec.format).holds === 'sound';
  return (
    <tr className="border-b border-rule align-middle" data-part="film" data-state={film.state} data-film={film.id}>
      <td className="py-2 pr-3">
        <span className="flex items-center gap-3">
          <span className="grid h-[42px] w-[74px] shrink-0 place-items-center overflow-hidden rounded-sm bg-surround">
            {sound && <Music2 size={18} aria-hidden="true" className="text-lamp" />}
            {isReady && !sound && (
              // Made with the film, and never again.
              // eslint-disable-next-line @next/next/no-img-element
              <img
                src={`/api/v1/films/${film.id}/picture`}
                alt=""
                className="h-[42px] w-[74px] object-contain"
                loading="lazy"
              />
            )}
          </span>
          <span className="min-w-0">
            <span className="block font-semibold">{purposeTitle(spec.purpose)}</span>
            <span className="block text-soft">
              {format(film.orderedAt, 'd MMM, HH:mm')}
              {film.state === 'cancelled' && ' · stopped'}
            </span>
            {film.state === 'failed' && (
              <span className="block max-w-[420px] text-red-deep">
                <b>not made.</b> {film.problem}
              </span>
            )}
            {isReady && film.problem && <span className="block text-red-deep">{film.problem}</span>}
          </span>
        </span>
      </td>
      <td className="pr-3">
        {sound ? (
          formatOf(spec.format).name
        ) : (
          <span className="flex items-center gap-2" title={formatOf(spec.format).name}>
            <ShapeIcon widthPx={spec.widthPx} heightPx={spec.heightPx} size={20} />
            <span className="tabular whitespace-nowrap">
              {spec.widthPx} × {spec.heightPx}
            </span>
          </span>
        )}
      </td>
      <td className="tabular pr-3 text-right">{clock(film.lengthMs)}</td>
      <td className="tabular pr-3 text-right whitespace-nowrap">
        {film.byteCount === null ? '' : megabytes(film.byteCount)}
      </td>
      <td className="tabular pr-3 text-right">{took === undefined || !isReady ? '' : clock(took)}</td>
      <td className="tabular pr-3 text-right">
        {film.likeness === null ? '' : `${(100 * film.likeness).toFixed(1)} %`}
      </td>
      <td>
        <FilmHands film={film} onDone={onDone} onScreen={onScreen} onSendOn={onSendOn} />
      </td>
    </tr>
  );
}

function FilmHands({ film, onDone, onScreen, onSendOn }: FilmLineProps) {
  const call = (method: 'POST' | 'DELETE', path = '') =>
    void callServer(method, `/api/v1/films/${film.id}${path}`).then(onDone, sayFault);
  const name = purposeTitle(film.spec.purpose);
  return (
    <span className="flex justify-end gap-1">
      {film.state === 'ready' && formatOf(film.spec.format).plays && (
        <Button onClick={() => onScreen(film.id)} data-part="screen-film" aria-label={`Screen it: ${name}`}>
          Screen it
        </Button>
      )}
      {onSendOn && film.state === 'ready' && formatOf(film.spec.format).plays && (
        <Button
          square
          onClick={() => onSendOn(film)}
          aria-label={`Put ${name} on a video host`}
          data-part="send-film-on"
        >
          <Clapperboard size={15} />
        </Button>
      )}
      {film.state === 'ready' && (
        <a
          href={`/api/v1/films/${film.id}/file`}
          download
          aria-label={`Download ${name}`}
          title="Download"
          data-part="download"
          className="inline-grid size-8 place-items-center rounded-md border border-rule bg-card hover:border-soft"
        >
          <Download size={15} />
        </a>
      )}
      {film.state !== 'ready' && (
        <Button onClick={() => call('POST', '/again')} data-part="make-again">
          <RotateCcw size={14} /> Make it after all
        </Button>
      )}
      <Button
        look="quiet"
        square
        aria-label={`Remove ${name}`}
        onClick={() => {
          if (
            film.state !== 'ready' ||
            confirm('Remove this film? Its file is deleted, and screenings show it no more; the show stays.')
          )
            call('DELETE');
        }}
      >
        <Trash2 size={15} />
      </Button>
    </span>
  );
}
