import { softnessOf, type TransitionKindRecord } from '../transition-kind';

const USUAL_COUNT = 9;
const USUAL_SOFTNESS = 0.2;

export const checks: TransitionKindRecord<'checks'> = {
  kind: 'checks',
  name: 'checks',
  family: 'shapes',
  movesPictures: false,
  parameters: {
    seed: { is: 'seed', usual: 1 },
    count: { is: 'count', usual: USUAL_COUNT, least: 1, most: 100 },
    softness: { is: 'softness', usual: USUAL_SOFTNESS },
  },
  plan: (transition) => ({
    kind: 'map',
    map: { kind: 'checks', count: transition.count ?? USUAL_COUNT, seed: transition.seed ?? 1 },
    softness: softnessOf(transition, USUAL_SOFTNESS),
  }),
};
