import { sides, type PurposeRecord } from './purpose';

export const screen: PurposeRecord = {
  name: 'Hall or television',
  note: 'sharp on a large screen',
  spec: ({ frame, shape }) => ({
    format: 'mp4',
    shape,
    ...sides(shape, 1080),
    rate: frame.rate,
    quality: 'good',
  }),
};
