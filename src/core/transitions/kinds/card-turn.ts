import { FOUR_WAYS } from '../../show/transition';
import { direction, type TransitionKindRecord } from '../transition-kind';

export const cardTurn: TransitionKindRecord<'card-turn'> = {
  kind: 'card-turn',
  name: 'card turn',
  family: 'turns',
  movesPictures: true,
  parameters: { direction: direction(FOUR_WAYS, 'left') },
  plan: (transition) => ({ kind: 'card-turn', direction: transition.direction ?? 'left' }),
};
