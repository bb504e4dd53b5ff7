import { nanoid } from 'nanoid';
import type { ShowEdit } from '../../core/show/edit';
import { songAdded } from '../../core/show/edits/add-sounds';
import { cueId } from '../../core/show/ids';
import { songAfter, type PlacedSound } from '../../core/show/placed-sound';
import type { BandOrder } from '../../core/sound/band/band-order';
import type { BandWishes } from '../../core/sound/band/band-wishes';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import type { BandLine } from '../../server/band/played-as-lines';
import { answerOf, ServerRefusal } from '../show/call-server';
import type { ShowStore } from '../show/show-store';

/**
 * Has the server's band play a piece onto the show's sheet.
 *
 * @throws {ServerRefusal} when it will not; a TypeError when the server cannot be reached, or the answer broke off
 */
export async function playedByBand(
  store: ShowStore,
  wishes: BandWishes,
  { signal, onProgress }: { readonly signal: AbortSignal; onProgress?(share: number): void },
): Promise<SheetEntry> {
  const { show, mergeEntries } = store.getState();
  const response = await fetch(`/api/v1/shows/${show.id}/band`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(wishes),
    signal,
  });
  if (!response.ok || !response.body) return answerOf<never>(response);
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  for (;;) {
    const { done, value } = await reader.read();
    if (done) throw new TypeError('The answer of the server broke off.');
    text += value;
    const lines = text.split('\n');
    text = lines.pop()!;
    for (const line of lines) {
      const said = JSON.parse(line) as BandLine;
      if ('share' in said) onProgress?.(said.share);
      else if ('problem' in said) throw new ServerRefusal(422, said.problem);
      else {
        mergeEntries([said.entry]);
        return said.entry;
      }
    }
  }
}

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
