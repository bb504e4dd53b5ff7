import { type TransitionKindRecord } from '../transition-kind';

const USUAL_COLOUR = '#000000';

export const dip: TransitionKindRecord<'dip'> = {
  kind: 'dip',
  name: 'dip to colour',
  family: 'plain',
  movesPictures: false,
  parameters: { colour: { is: 'colour', usual: USUAL_COLOUR } },
  plan: ({ colour }) => ({ kind: 'dip', colour: colour ?? USUAL_COLOUR }),
};
