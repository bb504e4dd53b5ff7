import { FOUR_WAYS } from '../../show/transition';
import { direction, type TransitionKindRecord } from '../transition-kind';

export const slideOver: TransitionKindRecord<'slide-over'> = {
  kind: 'slide-over',
  name: 'slide over',
  family: 'slides',
  movesPictures: true,
  parameters: { direction: direction(FOUR_WAYS, 'left') },
  plan: (transition) => ({ kind: 'slide-over', direction: transition.direction ?? 'left' }),
};
