import { HASH, object, orNull } from '../../schema/schema';
import type { AssetId } from '../ids';
import { POSTER } from '../schemas/slide-schema';
import { done, many } from './changing';
import type { EditRecord } from './edit-record';
import { noted } from './noted';

interface Entry {
  readonly assetId: AssetId;
  /** Milliseconds of the clip; null: its first frame. */
  readonly atMs: number | null;
}

/** Which frames stand for clips where they are shown as prints. */
export interface SetPosters {
  readonly kind: 'set-posters';
  readonly posters: readonly Entry[];
}

export const setPosters: EditRecord<SetPosters> = {
  kind: 'set-posters',
  parts: { posters: many(object<Entry>({ assetId: HASH, atMs: orNull(POSTER) })) },
  apply(show, edit) {
    const { notes, back } = noted(
      show.posters,
      edit.posters.map(({ assetId, atMs }) => ({ name: assetId, note: atMs })),
    );
    const { posters: _before, ...rest } = show;
    return done(notes ? { ...rest, posters: notes } : rest, {
      kind: 'set-posters',
      posters: back.map(({ name, note }) => ({ assetId: name as AssetId, atMs: note })),
    });
  },
  touched: (edit) => edit.posters.map(({ assetId }) => `posters/${assetId}`),
  sentence: ({ posters }) =>
    posters.length === 1
      ? 'choose the frame that stands for a clip'
      : `choose the frames that stand for ${posters.length} clips`,
};
