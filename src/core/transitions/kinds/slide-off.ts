import { FOUR_WAYS } from '../../show/transition';
import { direction, type TransitionKindRecord } from '../transition-kind';

export const slideOff: TransitionKindRecord<'slide-off'> = {
  kind: 'slide-off',
  name: 'slide off',
  family: 'slides',
  movesPictures: true,
  parameters: { direction: direction(FOUR_WAYS, 'left') },
  plan: (transition) => ({ kind: 'slide-off', direction: transition.direction ?? 'left' }),
};
