import { SLIDE_LENGTH } from '../schemas/slide-schema';
import { done } from './changing';
import type { EditRecord } from './edit-record';

export interface SetDefaultLength {
  readonly kind: 'set-default-length';
  readonly lengthMs: number;
}

export const setDefaultLength: EditRecord<SetDefaultLength> = {
  kind: 'set-default-length',
  parts: { lengthMs: SLIDE_LENGTH },
  apply: (show, edit) =>
    done({ ...show, defaultLengthMs: edit.lengthMs }, { kind: 'set-default-length', lengthMs: show.defaultLengthMs }),
  touched: () => ['pace'],
  sentence: () => 'change the pace',
};
