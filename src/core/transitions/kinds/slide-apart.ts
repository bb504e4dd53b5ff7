import { direction, type TransitionKindRecord } from '../transition-kind';

export const slideApart: TransitionKindRecord<'slide-apart'> = {
  kind: 'slide-apart',
  name: 'slide apart',
  family: 'slides',
  movesPictures: true,
  parameters: { direction: direction(['across', 'down'], 'across') },
  plan: (transition) => ({ kind: 'slide-apart', direction: transition.direction ?? 'across' }),
};
