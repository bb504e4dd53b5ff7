import { orNull } from '../../schema/schema';
import { PACE, type Pace } from '../pace';
import { done } from './changing';
import type { EditRecord } from './edit-record';

/** Whether the pictures follow the music, and how; null: the music follows the pictures. */
export interface SetPace {
  readonly kind: 'set-pace';
  readonly pace: Pace | null;
}

export const setPace: EditRecord<SetPace> = {
  kind: 'set-pace',
  parts: { pace: orNull(PACE) },
  apply(show, edit) {
    const { pace: before, ...rest } = show;
    return done(edit.pace === null ? rest : { ...rest, pace: edit.pace }, {
      kind: 'set-pace',
      pace: before ?? null,
    });
  },
  touched: () => ['pace'],
  sentence: () => 'change who leads, pictures or music',
};
