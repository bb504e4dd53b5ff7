import { sides, type PurposeRecord } from './purpose';

export const phone: PurposeRecord = {
  name: 'Phone, turned',
  note: 'small enough to send on the way',
  spec: ({ frame, shape }) => ({
    format: 'mp4',
    shape,
    ...sides(shape, 540),
    rate: frame.rate,
    quality: 'light',
  }),
};
