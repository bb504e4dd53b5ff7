import { sides, type PurposeRecord } from './purpose';

export const square: PurposeRecord = {
  name: 'Square',
  note: 'for pages that show squares',
  spec: ({ frame }) => ({
    format: 'mp4',
    shape: '1:1',
    ...sides('1:1', 1080),
    rate: frame.rate,
    quality: 'good',
  }),
};
