import { type TransitionKindRecord } from '../transition-kind';

const USUAL_COLOUR = '#ffffff';

export const burn: TransitionKindRecord<'burn'> = {
  kind: 'burn',
  name: 'burn',
  family: 'plain',
  movesPictures: false,
  parameters: { colour: { is: 'colour', usual: USUAL_COLOUR } },
  plan: ({ colour }) => ({ kind: 'burn', colour: colour ?? USUAL_COLOUR }),
};
