import { sides, type PurposeRecord } from './purpose';

export const page: PurposeRecord = {
  name: 'Page to keep',
  note: 'plays in any browser from a stick or a disk, sharp in any window',
  spec: ({ frame, shape }) => ({
    format: 'page',
    shape,
    ...sides(shape, 1080),
    rate: frame.rate,
    quality: 'good',
  }),
};
