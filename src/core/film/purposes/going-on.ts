import { sides, type PurposeRecord } from './purpose';

export const goingOn: PurposeRecord = {
  name: 'Editing program',
  note: 'to go on with elsewhere; large',
  spec: ({ frame, shape }) => ({
    format: 'prores',
    shape,
    ...sides(shape, 1080),
    rate: frame.rate,
    quality: 'good',
  }),
};
