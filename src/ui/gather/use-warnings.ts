'use client';

import { useMemo } from 'react';
import { firstAlike } from '../../core/light/likeness';
import { LARGEST_ENLARGEMENT } from '../../core/motion/automatic-move';
import { sharpUpTo, softPlaces } from '../../core/motion/softness';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { usePrepared } from '../show/show-provider';

/** What a person should know about a print before it embarrasses them: too small for where it is used, there twice, small at all, or with dark bars. By entry. */
export function useWarnings(sheet: readonly SheetEntry[]): ReadonlyMap<string, string> {
  const {
    show: { slides, frame },
    facts,
    moves,
    spans,
  } = usePrepared();
  const soft = useMemo(() => softPlaces({ slides, frame }, facts, moves, spans), [slides, frame, facts, moves, spans]);
  const alike = useMemo(
    () =>
      firstAlike(
        sheet.map((entry) => ({
          id: entry.id,
          likeness: entry.facts?.kind === 'picture' ? entry.facts.likeness : undefined,
        })),
      ),
    [sheet],
  );
  return useMemo(() => {
    const numberOf = new Map(sheet.map((entry, index) => [entry.id, index + 1]));
    const found = new Map<string, string>();
    for (const entry of sheet) {
      if (entry.facts?.kind !== 'picture') continue;
      const place = soft.get(entry.assetId);
      const twin = alike.get(entry.id);
      const reach = sharpUpTo(entry.facts, frame);
      if (place) found.set(entry.id, `soft on slide ${place.slideIndex + 1}: ${place.enlargement.toFixed(1)} ×`);
      else if (twin !== undefined) found.set(entry.id, `looks like ${numberOf.get(twin)}▸`);
      else if (reach < 1 / LARGEST_ENLARGEMENT && !entry.facts.hasTransparency)
        found.set(entry.id, `small: sharp to ${Math.round(100 * reach)} %`);
      else if (entry.facts.bars) found.set(entry.id, 'dark bars');
    }
    return found;
  }, [sheet, soft, alike, frame]);
}
