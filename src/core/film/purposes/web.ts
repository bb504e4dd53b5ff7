import { sides, type PurposeRecord } from './purpose';

export const web: PurposeRecord = {
  name: 'Web page',
  note: 'starts at once, plays anywhere',
  spec: ({ frame, shape }) => ({
    format: 'mp4',
    shape,
    ...sides(shape, 720),
    rate: frame.rate,
    quality: 'good',
  }),
};
