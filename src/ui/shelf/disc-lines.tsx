'use client';

import Link from 'next/link';
import type { DiscLine } from '../../server/disc/disc-service';
import { useAnswer } from '../show/use-answer';

const WORDS: Readonly<Record<DiscLine['state'], string>> = {
  open: 'not made yet',
  making: 'is being made',
  ready: 'its image is made',
  failed: 'could not be made',
};

/** The video discs of a studio, as lines above its shows. @param asks guests do not */
export function DiscLines({ asks }: { asks: boolean }) {
  const { answer } = useAnswer<{ discs: DiscLine[] }>(asks ? '/api/v1/discs' : null, { hears: 'focus', quiet: true });
  const lines = answer?.discs ?? [];
  if (lines.length === 0) return null;
  return (
    <ul className="mb-8 border-t border-rule" aria-label="Video discs" data-part="disc-lines">
      {lines.map(({ id, title, filmCount, state }) => (
        <li key={id} className="border-b border-rule">
          <Link href={`/discs/${id}`} className="flex items-baseline gap-4 py-2.5 hover:bg-rule/30">
            <b className="min-w-0 truncate font-semibold">{title}</b>
            <span className={state === 'failed' ? 'text-red-deep' : 'text-soft'}>
              a video disc, {filmCount === 1 ? 'one film' : `${filmCount} films`}, {WORDS[state]}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}
