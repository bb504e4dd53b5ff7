import { CUES } from '../schemas/slide-schema';
import type { Cue } from '../show';
import { done } from './changing';
import type { EditRecord } from './edit-record';

export interface SetCues {
  readonly kind: 'set-cues';
  readonly cues: readonly Cue[];
}

export const setCues: EditRecord<SetCues> = {
  kind: 'set-cues',
  parts: { cues: CUES },
  apply: (show, edit) => done({ ...show, cues: edit.cues }, { kind: 'set-cues', cues: show.cues }),
  touched: () => ['cues'],
  sentence: () => 'change the music',
};
