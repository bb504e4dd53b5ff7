import { sides, type PurposeRecord } from './purpose';

export const upright: PurposeRecord = {
  name: 'Upright phone',
  note: 'fills a phone held in one hand',
  spec: ({ frame }) => ({
    format: 'mp4',
    shape: '9:16',
    ...sides('9:16', 1080),
    rate: frame.rate,
    quality: 'good',
  }),
};
