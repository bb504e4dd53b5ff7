import { FRAME_RATE, faultOfRate, rateName, type FrameRate } from '../../timing/frame-rate';
import { done } from './changing';
import type { EditRecord } from './edit-record';

/** How many frames a second its films have, where nothing else is asked of them. */
export interface SetRate {
  readonly kind: 'set-rate';
  readonly rate: FrameRate;
}

export const setRate: EditRecord<SetRate> = {
  kind: 'set-rate',
  parts: { rate: FRAME_RATE },
  fault: ({ rate }) => faultOfRate(rate),
  apply: (show, { rate }) =>
    done({ ...show, frame: { ...show.frame, rate } }, { kind: 'set-rate', rate: show.frame.rate }),
  touched: () => ['frame/rate'],
  sentence: ({ rate }) => `make it ${rateName(rate)} frames a second`,
};
