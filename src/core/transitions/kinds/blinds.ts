import { FOUR_WAYS } from '../../show/transition';
import { direction, softnessOf, type TransitionKindRecord } from '../transition-kind';

const USUAL_COUNT = 8;
const USUAL_SOFTNESS = 0.1;

export const blinds: TransitionKindRecord<'blinds'> = {
  kind: 'blinds',
  name: 'blinds',
  family: 'wipes',
  movesPictures: false,
  parameters: {
    direction: direction(FOUR_WAYS, 'down'),
    count: { is: 'count', usual: USUAL_COUNT, least: 1, most: 100 },
    softness: { is: 'softness', usual: USUAL_SOFTNESS },
  },
  plan: (transition) => ({
    kind: 'map',
    map: { kind: 'blinds', direction: transition.direction ?? 'down', count: transition.count ?? USUAL_COUNT },
    softness: softnessOf(transition, USUAL_SOFTNESS),
  }),
};
