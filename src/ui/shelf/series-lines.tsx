'use client';

import Link from 'next/link';
import type { SeriesLine } from '../../server/series/series-service';
import { useAnswer } from '../show/use-answer';

/** The series of a studio, as lines above its shows. @param asks guests do not */
export function SeriesLines({ asks }: { asks: boolean }) {
  const { answer } = useAnswer<{ series: SeriesLine[] }>(asks ? '/api/v1/series' : null, {
    hears: 'focus',
    quiet: true,
  });
  const lines = answer?.series ?? [];
  if (lines.length === 0) return null;
  return (
    <ul className="mb-8 border-t border-rule" aria-label="Series" data-part="series-lines">
      {lines.map(({ id, title, rowCount, doneCount, failedCount, state }) => (
        <li key={id} className="border-b border-rule">
          <Link href={`/series/${id}`} className="flex items-baseline gap-4 py-2.5 hover:bg-rule/30">
            <b className="min-w-0 truncate font-semibold">{title}</b>
            <span className="text-soft">
              {rowCount === 0 ? 'a series without a table yet' : `${doneCount} of ${rowCount} films made`}
              {state === 'making' && ', at work'}
              {failedCount > 0 && <span className="text-red-deep">, {failedCount} could not be</span>}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}
