'use client';

import { Music2 } from 'lucide-react';
import type { Place } from '../../core/series/places';
import { sameHead, type Fill, type SeriesChange } from '../../core/series/series';
import type { SeriesSeen } from '../../server/series/series-service';
import { Choice } from '../kit/choice';
import { Pick } from '../kit/pick';
import { pictureUrl } from '../show/file-url';

interface SeriesMatchingProps {
  readonly seen: SeriesSeen;
  readonly isMaking: boolean;
  readonly onChange: (change: SeriesChange) => Promise<void>;
}

const PATTERN = 'pattern';
const FOLDER = 'folder';
const NONE = 'none';
const column = (name: string) => `column ${name}`;

/** Which column fills what of the pattern. */
export function SeriesMatching({ seen, isMaking, onChange }: SeriesMatchingProps) {
  const { plan, places } = seen;
  const pictures = places.filter((place) => place.kind === 'picture');
  const words = places.filter((place) => place.kind === 'words' || place.kind === 'title');
  const songs = places.filter((place) => place.kind === 'song');
  const set = (ids: readonly string[], fill: Fill) =>
    void onChange({ matches: { ...plan.matches, ...Object.fromEntries(ids.map((id) => [id, fill])) } });
  const columns = plan.columns.map((name) => ({ value: column(name), label: name }));
  const pick = (place: Place, label: string, more: readonly { value: string; label: string }[] = []) => (
    <Pick
      label={label}
      value={valueOf(plan.matches[place.id], plan.columns)}
      groups={[
        { name: null, options: [{ value: PATTERN, label: 'as it is' }, ...more] },
        { name: 'by the column', options: columns },
      ]}
      onChange={(value) => set([place.id], fillOf(value))}
    />
  );
  const allFolder = pictures.length > 0 && pictures.every(({ id }) => plan.matches[id]?.by === 'folder');
  return (
    <fieldset disabled={isMaking} data-part="series-matching">
      <legend className="text-base font-semibold">What goes where</legend>
      <div className="mt-2 flex items-center gap-3">
        <span className="w-28 shrink-0 text-soft">A row’s folder</span>
        <Pick
          label="The column that names a row’s folder"
          value={plan.folderColumn === null ? NONE : column(plan.folderColumn)}
          groups={[
            { name: null, options: [{ value: NONE, label: 'none' }] },
            { name: 'by the column', options: columns },
          ]}
          onChange={(value) => {
            const folderColumn = value === NONE ? '' : value.slice(column('').length);
            // Whoever names the folder for the first time wants its pictures in their places.
            const first =
              plan.folderColumn === null && pictures.every(({ id }) => (plan.matches[id]?.by ?? PATTERN) === PATTERN);
            const own = pictures
              .filter(({ cutOut }) => !cutOut)
              .map(({ id }) => [id, { by: 'folder' as const }] as const);
            void onChange({ folderColumn, ...(first && { matches: { ...plan.matches, ...Object.fromEntries(own) } }) });
          }}
        />
        {plan.folderColumn !== null && !allFolder && (
          <button
            type="button"
            className="text-soft underline hover:text-ink"
            onClick={() =>
              set(
                pictures.map(({ id }) => id),
                { by: 'folder' },
              )
            }
          >
            fill all pictures from it
          </button>
        )}
      </div>
      {plan.folderColumn !== null && (
        <div className="mt-2 flex items-center gap-3">
          <span className="w-28 shrink-0 text-soft">If it has more</span>
          <Choice
            label="What is done with more pictures than the pattern has"
            value={plan.spare}
            options={[
              { value: 'slides', label: 'more slides' },
              { value: 'best', label: 'the best are chosen' },
            ]}
            onChange={(spare) => void onChange({ spare })}
          />
        </div>
      )}
      <ul className="mt-3 border-t border-rule">
        {words.map((place) => (
          <li key={place.id} className="flex items-center gap-3 border-b border-rule py-1.5">
            <span className="w-14 shrink-0 text-xs text-soft">
              {place.kind === 'title' ? 'title' : `slide ${place.number}`}
            </span>
            <span className="min-w-0 flex-1 truncate" title={place.says}>
              {place.says || '–'}
            </span>
            {pick(
              place,
              place.kind === 'title' ? 'The title of the film' : `The words “${place.says}” on slide ${place.number}`,
            )}
          </li>
        ))}
        {songs.map((place, index) => (
          <li key={place.id} className="flex items-center gap-3 border-b border-rule py-1.5">
            <span className="w-14 shrink-0 text-xs text-soft">song</span>
            <span className="flex min-w-0 flex-1 items-center gap-2">
              <Music2 size={14} /> {songs.length === 1 ? 'the song of the show' : `song ${index + 1}`}
            </span>
            {pick(place, `Song ${index + 1}`)}
          </li>
        ))}
        {pictures.map((place) => (
          <li key={place.id} className="flex items-center gap-3 border-b border-rule py-1.5">
            <span className="w-14 shrink-0 text-xs text-soft">slide {place.number}</span>
            <span className="min-w-0 flex-1">
              {/* The print is already as small as it is shown. */}
              {/* eslint-disable-next-line @next/next/no-img-element */}
              <img
                src={pictureUrl(seen.show.id, place.assetId, 160)}
                alt={`A picture of slide ${place.number}`}
                loading="lazy"
                className="h-9 w-16 object-cover"
              />
            </span>
            {pick(
              place,
              `The picture of slide ${place.number}`,
              plan.folderColumn === null ? [] : [{ value: FOLDER, label: 'next of the folder' }],
            )}
          </li>
        ))}
      </ul>
      <p className="mt-2 text-soft">
        Words may also have a column’s head in braces, as “Welcome, {'{Name}'}”: what the row says there is put in.
      </p>
    </fieldset>
  );
}

function valueOf(fill: Fill | undefined, columns: readonly string[]): string {
  if (!fill || fill.by === 'pattern') return PATTERN;
  if (fill.by === 'folder') return FOLDER;
  const named = columns.find((name) => sameHead(name) === sameHead(fill.column));
  return named === undefined ? PATTERN : column(named);
}

function fillOf(value: string): Fill {
  if (value === PATTERN) return { by: 'pattern' };
  return value === FOLDER ? { by: 'folder' } : { by: 'column', column: value.slice(column('').length) };
}
