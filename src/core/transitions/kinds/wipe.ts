import { EIGHT_WAYS } from '../../show/transition';
import { direction, softnessOf, type TransitionKindRecord } from '../transition-kind';

const USUAL_SOFTNESS = 0.15;

export const wipe: TransitionKindRecord<'wipe'> = {
  kind: 'wipe',
  name: 'wipe',
  family: 'wipes',
  movesPictures: false,
  parameters: { direction: direction(EIGHT_WAYS, 'right'), softness: { is: 'softness', usual: USUAL_SOFTNESS } },
  plan: (transition) => ({
    kind: 'map',
    map: { kind: 'wipe', direction: transition.direction ?? 'right' },
    softness: softnessOf(transition, USUAL_SOFTNESS),
  }),
};
