import { TEMPERAMENTS, type Temperament } from '../../motion/automatic-move';
import { oneOf, orNull } from '../../schema/schema';
import { done } from './changing';
import type { EditRecord } from './edit-record';

/** How much pictures move by themselves; null as it is when nobody says. */
export interface SetTemperament {
  readonly kind: 'set-temperament';
  readonly temperament: Temperament | null;
}

export const setTemperament: EditRecord<SetTemperament> = {
  kind: 'set-temperament',
  parts: { temperament: orNull(oneOf(TEMPERAMENTS)) },
  apply(show, edit) {
    const { temperament: before, ...rest } = show;
    return done(edit.temperament === null ? rest : { ...rest, temperament: edit.temperament }, {
      kind: 'set-temperament',
      temperament: before ?? null,
    });
  },
  touched: () => ['temperament'],
  sentence: () => 'change how much pictures move',
};
