import { FOUR_WAYS } from '../../show/transition';
import { direction, type TransitionKindRecord } from '../transition-kind';

export const pageTurn: TransitionKindRecord<'page-turn'> = {
  kind: 'page-turn',
  name: 'page turn',
  family: 'turns',
  movesPictures: true,
  parameters: { direction: direction(FOUR_WAYS, 'left') },
  plan: (transition) => ({ kind: 'page-turn', direction: transition.direction ?? 'left' }),
};
