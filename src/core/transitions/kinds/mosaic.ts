import { type TransitionKindRecord } from '../transition-kind';

const USUAL_COUNT = 24;

export const mosaic: TransitionKindRecord<'mosaic'> = {
  kind: 'mosaic',
  name: 'mosaic',
  family: 'plain',
  movesPictures: false,
  parameters: { count: { is: 'count', usual: USUAL_COUNT, least: 2, most: 200 } },
  plan: ({ count }) => ({ kind: 'mosaic', count: count ?? USUAL_COUNT }),
};
