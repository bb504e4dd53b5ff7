import { HASH, object, orNull } from '../../schema/schema';
import { BEATS_SAID, type BeatsSaid } from '../../sound/listening/beats-said';
import type { AssetId } from '../ids';
import { done, many } from './changing';
import type { EditRecord } from './edit-record';

interface Entry {
  readonly assetId: AssetId;
  /** Null: as they were found. */
  readonly said: BeatsSaid | null;
}

/** Says where the beats of songs are, wherever they are used. */
export interface SetBeats {
  readonly kind: 'set-beats';
  readonly beats: readonly Entry[];
}

export const setBeats: EditRecord<SetBeats> = {
  kind: 'set-beats',
  parts: { beats: many(object<Entry>({ assetId: HASH, said: orNull(BEATS_SAID) })) },
  apply(show, edit) {
    const before = edit.beats.map(({ assetId }) => ({ assetId, said: show.beats?.[assetId] ?? null }));
    const said = new Map(Object.entries(show.beats ?? {}));
    for (const entry of edit.beats) {
      if (entry.said) said.set(entry.assetId, entry.said);
      else said.delete(entry.assetId);
    }
    const { beats: _before, ...rest } = show;
    return done(said.size === 0 ? rest : { ...rest, beats: Object.fromEntries(said) }, {
      kind: 'set-beats',
      beats: before,
    });
  },
  touched: (edit) => edit.beats.map((entry) => `beats/${entry.assetId}`),
  sentence: () => 'put the beats right',
};
