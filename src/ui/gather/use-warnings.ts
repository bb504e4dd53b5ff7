'use client';

import { useMemo } from 'react';
import { firstAlike } from '../../core/light/likeness';
import { LARGEST_ENLARGEMENT } from '../../core/motion/automatic-move';
import { sharpUpTo, softPlaces } from '../../core/motion/softness';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { usePrepared } from '../show/show-provider';

/** What is to be known of a print: in a word or two beneath it, and what to do about it. */
export interface Warning {
  readonly label: string;
  readonly advice: string;
}

/** What a person should know about a print before it embarrasses them: too small for where it is used, there twice, small at all, or with dark bars. By entry. */
export function useWarnings(sheet: readonly SheetEntry[]): ReadonlyMap<string, Warning> {
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
    const found = new Map<string, Warning>();
    for (const entry of sheet) {
      if (entry.facts?.kind !== 'picture') continue;
      const place = soft.get(entry.assetId);
      const twin = alike.get(entry.id);
      const reach = sharpUpTo(entry.facts, frame);
      if (place)
        found.set(entry.id, {
          label: `soft on slide ${place.slideIndex + 1}: ${place.enlargement.toFixed(1)} ×`,
          advice: `On slide ${place.slideIndex + 1} it is enlarged ${place.enlargement.toFixed(1)} times and looks soft. Zoom less far there, or swap in a larger file.`,
        });
      else if (twin !== undefined)
        found.set(entry.id, {
          label: `looks like ${numberOf.get(twin)}▸`,
          advice: `It looks nearly like print ${numberOf.get(twin)}. Keep the better of the two.`,
        });
      else if (reach < 1 / LARGEST_ENLARGEMENT && !entry.facts.hasTransparency)
        found.set(entry.id, {
          label: `small: ${share(reach)} of the frame`,
          advice: `It is sharp on up to ${share(reach)} of the frame’s width. Show it small, beside others or on a backing, or swap in a larger file.`,
        });
      else if (entry.facts.bars)
        found.set(entry.id, {
          label: 'dark bars',
          advice: 'It has dark bars. Arrange can trim them (X), for one or for all.',
        });
    }
    return found;
  }, [sheet, soft, alike, frame]);
}

/** Never nothing: also the smallest picture is sharp somewhere. */
function share(of: number): string {
  return `${Math.max(1, Math.round(100 * of))} %`;
}
