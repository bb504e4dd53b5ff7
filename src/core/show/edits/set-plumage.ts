import { PLUMAGE_IN_USE } from '../../plumage/plumage-schema';
import type { PlumageInUse } from '../../plumage/plumage';
import { orNull } from '../../schema/schema';
import { done } from './changing';
import type { EditRecord } from './edit-record';

/** Which look the whole show has; what its slides say of it is in edits of theirs. */
export interface SetPlumage {
  readonly kind: 'set-plumage';
  readonly plumage: PlumageInUse | null;
}

export const setPlumage: EditRecord<SetPlumage> = {
  kind: 'set-plumage',
  parts: { plumage: orNull(PLUMAGE_IN_USE) },
  apply(show, edit) {
    const { plumage: before, ...rest } = show;
    return done(edit.plumage ? { ...rest, plumage: edit.plumage } : rest, {
      kind: 'set-plumage',
      plumage: before ?? null,
    });
  },
  touched: () => ['plumage'],
  sentence: ({ plumage }) => (plumage ? `dress the show in ${plumage.is.name}` : 'take the plumage off'),
};
