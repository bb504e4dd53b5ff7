import { sides, type PurposeRecord } from './purpose';

export const soundOnly: PurposeRecord = {
  name: 'Sound only',
  note: 'music and voice as they are mixed',
  spec: ({ frame, shape }) => ({
    format: 'm4a',
    shape,
    ...sides(shape, 720),
    rate: frame.rate,
    quality: 'good',
  }),
};
