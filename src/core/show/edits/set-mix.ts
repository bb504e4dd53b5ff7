import { orNull } from '../../schema/schema';
import { MIX_SAID, type MixSaid } from '../mix-said';
import { done } from './changing';
import type { EditRecord } from './edit-record';

/** How the sounds are put together; null as it is when nobody says. */
export interface SetMix {
  readonly kind: 'set-mix';
  readonly mix: MixSaid | null;
}

export const setMix: EditRecord<SetMix> = {
  kind: 'set-mix',
  parts: { mix: orNull(MIX_SAID) },
  apply(show, edit) {
    const { mix: before, ...rest } = show;
    return done(edit.mix === null ? rest : { ...rest, mix: edit.mix }, {
      kind: 'set-mix',
      mix: before ?? null,
    });
  },
  touched: () => ['mix'],
  sentence: () => 'change the mix',
};
