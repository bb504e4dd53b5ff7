import { FOUR_WAYS } from '../../show/transition';
import { direction, type TransitionKindRecord } from '../transition-kind';

export const push: TransitionKindRecord<'push'> = {
  kind: 'push',
  name: 'push',
  family: 'slides',
  movesPictures: true,
  parameters: { direction: direction(FOUR_WAYS, 'left') },
  plan: (transition) => ({ kind: 'push', direction: transition.direction ?? 'left' }),
};
