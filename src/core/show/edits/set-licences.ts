import { HASH, object, orNull } from '../../schema/schema';
import type { AssetId } from '../ids';
import { LICENCE } from '../schemas/slide-schema';
import { done, many } from './changing';
import type { EditRecord } from './edit-record';
import { noted } from './noted';

interface Entry {
  readonly assetId: AssetId;
  readonly licence: string | null;
}

/** By what right files are used. */
export interface SetLicences {
  readonly kind: 'set-licences';
  readonly licences: readonly Entry[];
}

export const setLicences: EditRecord<SetLicences> = {
  kind: 'set-licences',
  parts: { licences: many(object<Entry>({ assetId: HASH, licence: orNull(LICENCE) })) },
  apply(show, edit) {
    const { notes, back } = noted(
      show.licences,
      edit.licences.map(({ assetId, licence }) => ({ name: assetId, note: licence })),
    );
    const { licences: _before, ...rest } = show;
    return done(notes ? { ...rest, licences: notes } : rest, {
      kind: 'set-licences',
      licences: back.map(({ name, note }) => ({ assetId: name as AssetId, licence: note })),
    });
  },
  touched: (edit) => edit.licences.map(({ assetId }) => `licences/${assetId}`),
  sentence: ({ licences }) =>
    licences.length === 1
      ? 'note by what right a file is used'
      : `note by what right ${licences.length} files are used`,
};
