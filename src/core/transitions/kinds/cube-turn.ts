import { FOUR_WAYS } from '../../show/transition';
import { direction, type TransitionKindRecord } from '../transition-kind';

export const cubeTurn: TransitionKindRecord<'cube-turn'> = {
  kind: 'cube-turn',
  name: 'cube turn',
  family: 'turns',
  movesPictures: true,
  parameters: { direction: direction(FOUR_WAYS, 'left') },
  plan: (transition) => ({ kind: 'cube-turn', direction: transition.direction ?? 'left' }),
};
