import { direction, softnessOf, type TransitionKindRecord } from '../transition-kind';

const WAYS = ['clockwise', 'anticlockwise'];
const USUAL_SOFTNESS = 0.02;

export const clock: TransitionKindRecord<'clock'> = {
  kind: 'clock',
  name: 'clock',
  family: 'wipes',
  movesPictures: false,
  parameters: { direction: direction(WAYS, 'clockwise'), softness: { is: 'softness', usual: USUAL_SOFTNESS } },
  plan: (transition) => ({
    kind: 'map',
    map: { kind: 'clock', direction: transition.direction ?? 'clockwise' },
    softness: softnessOf(transition, USUAL_SOFTNESS),
  }),
};
