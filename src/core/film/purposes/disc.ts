import { FRAME_RATES } from '../../timing/frame-rate';
import { sides, type PurposeRecord } from './purpose';

export const disc: PurposeRecord = {
  name: 'Disc-ready',
  note: 'MPEG-2 for making a video disc',
  spec: () => ({
    format: 'pal',
    shape: '16:9',
    ...sides('16:9', 576),
    rate: FRAME_RATES['25']!,
    quality: 'best',
  }),
};
