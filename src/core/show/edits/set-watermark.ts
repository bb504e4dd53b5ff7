import { orNull } from '../../schema/schema';
import { WATERMARK, type Watermark } from '../watermark';
import { done } from './changing';
import type { EditRecord } from './edit-record';

/** A mark over the whole film; null for none. */
export interface SetWatermark {
  readonly kind: 'set-watermark';
  readonly watermark: Watermark | null;
}

export const setWatermark: EditRecord<SetWatermark> = {
  kind: 'set-watermark',
  parts: { watermark: orNull(WATERMARK) },
  apply(show, edit) {
    const { watermark: before, ...rest } = show;
    return done(edit.watermark ? { ...rest, watermark: edit.watermark } : rest, {
      kind: 'set-watermark',
      watermark: before ?? null,
    });
  },
  touched: () => ['watermark'],
  sentence: ({ watermark }) => (watermark ? 'lay a watermark over the film' : 'take the watermark away'),
};
