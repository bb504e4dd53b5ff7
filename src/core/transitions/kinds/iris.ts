import { IRIS_SHAPES } from '../../show/transition';
import { direction, softnessOf, type TransitionKindRecord } from '../transition-kind';

const USUAL_SOFTNESS = 0.05;

export const iris: TransitionKindRecord<'iris'> = {
  kind: 'iris',
  name: 'iris',
  family: 'shapes',
  movesPictures: false,
  parameters: {
    shape: { is: 'choice', label: 'Shape', values: IRIS_SHAPES, usual: 'circle' },
    direction: direction(['open', 'close'], 'open'),
    softness: { is: 'softness', usual: USUAL_SOFTNESS },
  },
  plan: (transition) => ({
    kind: 'map',
    map: { kind: 'iris', shape: transition.shape ?? 'circle', direction: transition.direction ?? 'open' },
    softness: softnessOf(transition, USUAL_SOFTNESS),
  }),
};
