import type { PurposeRecord } from './purpose';

export const projector: PurposeRecord = {
  name: 'Projector',
  note: 'fills the lamp of most projectors',
  spec: ({ frame }) => ({
    format: 'mp4',
    shape: '8:5',
    widthPx: 1280,
    heightPx: 800,
    rate: frame.rate,
    quality: 'best',
  }),
};
