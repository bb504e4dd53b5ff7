import { HASH, object, orNull } from '../../schema/schema';
import type { AssetId } from '../ids';
import { SONG_TAGS, type SongTags } from '../song-tags';
import { done, many } from './changing';
import type { EditRecord } from './edit-record';
import { noted } from './noted';

interface Entry {
  readonly assetId: AssetId;
  /** All that is said of it; null: as its file says. */
  readonly tags: SongTags | null;
}

/** What songs are called, whose they are, how they sound. */
export interface SetTags {
  readonly kind: 'set-tags';
  readonly tags: readonly Entry[];
}

export const setTags: EditRecord<SetTags> = {
  kind: 'set-tags',
  parts: { tags: many(object<Entry>({ assetId: HASH, tags: orNull(SONG_TAGS) })) },
  apply(show, edit) {
    const { notes, back } = noted(
      show.tags,
      // Of a song of which nothing is said there is no note.
      edit.tags.map(({ assetId, tags }) => ({
        name: assetId,
        note: tags && Object.keys(tags).length > 0 ? tags : null,
      })),
    );
    const { tags: _before, ...rest } = show;
    return done(notes ? { ...rest, tags: notes } : rest, {
      kind: 'set-tags',
      tags: back.map(({ name, note }) => ({ assetId: name as AssetId, tags: note })),
    });
  },
  touched: (edit) => edit.tags.map(({ assetId }) => `tags/${assetId}`),
  sentence: ({ tags }) => (tags.length === 1 ? 'mend the tags of a song' : `mend the tags of ${tags.length} songs`),
};
