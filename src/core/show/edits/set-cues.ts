import type { PlacedSound } from '../placed-sound';
import { CUES } from '../schemas/sound-schema';
import { done } from './changing';
import type { EditRecord } from './edit-record';

export interface SetCues {
  readonly kind: 'set-cues';
  readonly cues: readonly PlacedSound[];
}

export const setCues: EditRecord<SetCues> = {
  kind: 'set-cues',
  parts: { cues: CUES },
  apply: (show, edit) => done({ ...show, cues: edit.cues }, { kind: 'set-cues', cues: show.cues }),
  touched: () => ['cues/'],
  sentence: () => 'change the music',
};
