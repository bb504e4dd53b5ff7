'use client';

import { nanoid } from 'nanoid';
import { toast } from 'sonner';
import { songAdded } from '../../core/show/edits/add-sounds';
import { cueId } from '../../core/show/ids';
import { songAfter } from '../../core/show/placed-sound';
import { DEFAULT_FADE_OUT_MS } from '../../core/show/show';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { useShow } from '../show/show-provider';

/** Puts a song of the sheet under the show, after those that are there. */
export function usePlayUnder(): (entry: SheetEntry) => void {
  const cues = useShow((state) => state.show.cues);
  const edit = useShow((state) => state.edit);
  return (entry) => {
    const title = entry.facts?.kind === 'sound' ? entry.facts.title : null;
    edit(songAdded(cues, songAfter(cueId(nanoid(10)), entry.assetId, DEFAULT_FADE_OUT_MS)));
    toast(`“${title ?? entry.fileName}” plays under the show.`);
  };
}
