import { nanoid } from 'nanoid';
import type { ShowEdit } from '../../core/show/edit';
import { songAdded } from '../../core/show/edits/add-sounds';
import { cueId } from '../../core/show/ids';
import { songAfter, type PlacedSound } from '../../core/show/placed-sound';
import type { BandOrder } from '../../core/sound/band/band-order';
import type { BandWishes } from '../../core/sound/band/band-wishes';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { madeOnServer } from '../show/made-on-server';
import type { ShowStore } from '../show/show-store';

/** Has the server's band play a piece onto the show's sheet. Throws as `madeOnServer` does. */
export const playedByBand = (
  store: ShowStore,
  wishes: BandWishes,
  how: { readonly signal: AbortSignal; onProgress?(share: number): void },
): Promise<SheetEntry> => madeOnServer(store, 'band', wishes, how);

/** A song that the band plays: as long as there is room for it, unless the pictures follow it. */
export function bandSong(entry: SheetEntry, band: BandOrder, picturesFollow: boolean): PlacedSound {
  const song = songAfter(cueId(nanoid(10)), entry.assetId, 0);
  return picturesFollow ? { ...song, band } : { ...song, band, ends: { at: 'show-end', beforeMs: 0 }, tailored: {} };
}

/** Puts what the band played under the show: after its songs, or instead of them. */
export function underShow(cues: readonly PlacedSound[], song: PlacedSound, instead: boolean): ShowEdit {
  if (!instead) return songAdded(cues, song);
  return { kind: 'set-cues', cues: [...cues.filter(({ kind }) => kind !== 'song'), song] };
}
