import type { FocusRing } from '../../focus/focus-facts';
import { RINGS } from '../../focus/focus-schema';
import { HASH, object, orNull } from '../../schema/schema';
import type { AssetId } from '../ids';
import { done, many } from './changing';
import type { EditRecord } from './edit-record';

interface Entry {
  readonly assetId: AssetId;
  /** Null: as it was found out. None: about nothing in particular. */
  readonly rings: readonly FocusRing[] | null;
}

/** Says what pictures are about, wherever they are used. */
export interface SetFocus {
  readonly kind: 'set-focus';
  readonly focus: readonly Entry[];
}

export const setFocus: EditRecord<SetFocus> = {
  kind: 'set-focus',
  parts: { focus: many(object<Entry>({ assetId: HASH, rings: orNull(RINGS) })) },
  apply(show, edit) {
    const before = edit.focus.map(({ assetId }) => ({ assetId, rings: show.focus?.[assetId] ?? null }));
    const said = new Map(Object.entries(show.focus ?? {}));
    for (const { assetId, rings } of edit.focus) {
      if (rings) said.set(assetId, rings);
      else said.delete(assetId);
    }
    const { focus: _before, ...rest } = show;
    return done(said.size === 0 ? rest : { ...rest, focus: Object.fromEntries(said) }, {
      kind: 'set-focus',
      focus: before,
    });
  },
  touched: (edit) => edit.focus.map((entry) => `focus/${entry.assetId}`),
  sentence: (edit) =>
    edit.focus.length === 1 ? 'say what a picture is about' : `say what ${edit.focus.length} pictures are about`,
};
