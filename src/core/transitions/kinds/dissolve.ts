import { type TransitionKindRecord } from '../transition-kind';

export const dissolve: TransitionKindRecord<'dissolve'> = {
  kind: 'dissolve',
  name: 'dissolve',
  family: 'plain',
  movesPictures: false,
  parameters: {},
  plan: () => ({ kind: 'dissolve' }),
};
