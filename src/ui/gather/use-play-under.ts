'use client';

import { nanoid } from 'nanoid';
import { toast } from 'sonner';
import { songAdded } from '../../core/show/edits/add-sounds';
import { cueId } from '../../core/show/ids';
import { songAfter } from '../../core/show/placed-sound';
import { DEFAULT_FADE_OUT_MS } from '../../core/show/show';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { useShow } from '../show/show-provider';
import { useSongAbout } from '../sound/use-song-about';

/** Puts a song of the sheet under the show, after those that are there. */
export function usePlayUnder(): (entry: SheetEntry) => void {
  const cues = useShow((state) => state.show.cues);
  const edit = useShow((state) => state.edit);
  const about = useSongAbout();
  return (entry) => {
    const { name } = about(entry.assetId);
    edit(songAdded(cues, songAfter(cueId(nanoid(10)), entry.assetId, DEFAULT_FADE_OUT_MS)));
    toast(`“${name}” plays under the show.`);
  };
}
